import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { outlineOf } from '../derive/outline.ts';
import { canonicalJson, isSameJson } from '../model/canonical-json.ts';
import type { PageId } from '../model/ids.ts';
import type { SiteNode } from '../model/node.ts';
import { PAGE_FIELDS, PAGE_FIELD_NAMES, pageField } from '../model/page-fields.ts';
import { ALL_PERMISSIONS, PERMISSIONS, type Permission, has, hasAllOf, listOf, setOf } from '../model/permission.ts';
import { type Site, branchOf, isWithin } from '../model/site.ts';
import { applyOperation, applyOperations } from '../operations/apply.ts';
import { holds } from '../testing/holds.ts';
import { anySite, anyStep, drawEdit } from '../testing/random-site.ts';
import { forbiddenIn, forbiddenWords, mayGive } from './forbidden.ts';
import { powerChanges } from './power-changes.ts';
import { FULL_POWERS, type Powers, heldAt, mayAt, maySomewhere, powersOf, powersTable } from './powers.ts';
import { SHIPPED_ROLES, permissionsOf } from './role.ts';

const anySet = fc.subarray([...PERMISSIONS]).map(setOf);
/** Somebody with random roles, on the whole site and on some of its branches. */
const anyPowers = fc.record({
  onSite: fc.option(anySet, { freq: 3 }),
  branches: fc.array(fc.tuple(fc.nat(), anySet), { maxLength: 5 }),
});
type Drawn = typeof anyPowers extends fc.Arbitrary<infer Value> ? Value : never;

function powersIn(site: Site, { onSite, branches }: Drawn): Powers {
  const pages = [...site.nodes.keys()];
  return {
    onSite: onSite === null ? null : { role: 'drawn', permissions: onSite },
    onBranches: new Map(
      pages.length === 0
        ? []
        : branches.map(([at, permissions]) => [pages[at % pages.length]!, { role: 'drawn', permissions }]),
    ),
  };
}

/** What is held at a page, by the words of the rule: the nearest role above it, the page itself included. */
function slowlyHeld(
  nodes: ReadonlyMap<PageId, SiteNode> | Site['nodes'],
  powers: Powers,
  page: PageId,
  practice: PageId | null,
): number {
  const chain: PageId[] = [];
  for (let at: PageId | null = page; at !== null; at = nodes.get(at)?.parent ?? null) chain.push(at);
  const nearest = chain.find((id) => powers.onBranches.has(id));
  const held = (nearest === undefined ? powers.onSite : powers.onBranches.get(nearest)!)?.permissions ?? 0;
  // Whoever writes anywhere may do all that concerns pages where one practises.
  const writes = [powers.onSite, ...powers.onBranches.values()].some((one) => one && has(one.permissions, 'write'));
  const isForPractice = practice !== null && chain.includes(practice) && writes;
  return isForPractice ? held | setOf(['read', 'comment', 'plan', 'write', 'shape', 'menus']) : held;
}

describe('what somebody may do at each page', () => {
  it('is that of the nearest role above it, for all pages in one pass', () => {
    holds(
      fc.property(anySite, anyPowers, (site, drawn) => {
        const powers = powersIn(site, drawn);
        const outline = outlineOf(site);
        const table = powersTable(outline, powers, site.practice);
        for (const [row, { id }] of outline.nodes.entries()) {
          expect(table.permissions[row]).toBe(slowlyHeld(site.nodes, powers, id, site.practice));
          const { held, through } = heldAt(site, powers, id);
          expect(held?.permissions ?? 0).toBe(table.permissions[row]);
          const by = table.through[row]!;
          expect(through).toBe(by === -1 ? null : outline.nodes[by]!.id);
        }
      }),
      { numRuns: 100 },
    );
  });

  it('holds for a page that was removed as where it stood', () => {
    holds(
      fc.property(anySite, anyPowers, (site, drawn) => {
        const powers = powersIn(site, drawn);
        for (const { id } of site.nodes.values())
          expect(heldAt(site, powers, id).held?.permissions ?? 0).toBe(
            slowlyHeld(site.nodes, powers, id, site.practice),
          );
      }),
      { numRuns: 50 },
    );
  });
});

/** What differs between two sites and its maker may not change, worked out from the sites alone. */
function overstepped(before: Site, after: Site, powers: Powers): string[] {
  const faults: string[] = [];
  const held = (site: Site, page: PageId | null, permission: Permission) =>
    has(
      page === null ? (powers.onSite?.permissions ?? 0) : slowlyHeld(site.nodes, powers, page, site.practice),
      permission,
    );
  for (const [id, node] of after.nodes) {
    const was = before.nodes.get(id);
    if (node === was) continue;
    if (!was) {
      if (!held(after, node.parent, 'shape')) faults.push(`made ${id}`);
      if (node.inMenus && !held(after, node.parent, 'menus')) faults.push(`put the new ${id} in menus`);
      continue;
    }
    const isPutBack = was.removedWith !== null && node.removedWith === null;
    if (
      (node.parent !== was.parent || (node.removedWith === null) !== (was.removedWith === null)) &&
      !held(before, id, 'shape')
    )
      faults.push(`moved or removed ${id}`);
    if (node.parent !== was.parent && (!isPutBack || node.parent !== was.parent) && !held(after, node.parent, 'shape'))
      faults.push(`moved ${id} into ${node.parent}`);
    for (const name of PAGE_FIELD_NAMES) {
      if (name === 'slug' || pageField(name).isSame(node[name], was[name])) continue;
      const permission = PAGE_FIELDS[name].permission;
      const may =
        held(before, id, permission) ||
        // Kinds and labels without a rule, and the date and the list of a page, need less.
        (name === 'access' && held(before, id, 'shape')) ||
        (name === 'frame' && held(before, id, 'write'));
      if (!may) faults.push(`changed ${name} of ${id}`);
      if (name === 'hidden')
        for (const below of branchOf(before, id))
          if (!held(before, below, 'access')) faults.push(`hid ${below} below ${id}`);
    }
  }
  for (const [id] of before.nodes) if (!after.nodes.has(id) && !held(before, id, 'shape')) faults.push(`erased ${id}`);
  if (!isSameJson(before.settings, after.settings) && !mayChangeSettings(before, after, powers))
    faults.push('changed settings');
  for (const part of ['goals', 'sketches', 'boards', 'oldPages'] as const)
    if (before[part] !== after[part] && !held(before, null, 'plan')) faults.push(`changed ${part}`);
  for (const id of new Set([...before.live.keys(), ...after.live.keys()]))
    if (before.live.get(id) !== after.live.get(id) && !held(before, id, 'publish')) faults.push(`published ${id}`);
  if (canonicalJson(before.liveSettings) !== canonicalJson(after.liveSettings) && !held(before, null, 'publish'))
    faults.push('published settings');
  return faults;
}

/** What each part of the settings needs on the whole site. An entry of a menu needs no more than the right to its page. */
const SETTINGS: Readonly<Record<keyof Site['settings'], readonly Permission[]>> = {
  name: ['everything'],
  language: ['everything'],
  timeZone: ['everything'],
  hosts: ['everything'],
  home: ['shape'],
  trail: ['menus'],
  look: ['look'],
  audiences: ['access'],
  labels: ['access', 'shape'],
  menus: ['menus', 'access'],
  layouts: ['menus', 'access'],
  facts: ['write'],
  shared: ['write'],
  forms: ['write'],
  redirects: ['shape'],
};

const mayChangeSettings = (before: Site, after: Site, powers: Powers): boolean =>
  (Object.keys(SETTINGS) as (keyof Site['settings'])[]).every(
    (part) =>
      before.settings[part] === after.settings[part] ||
      SETTINGS[part].some((one) => has(powers.onSite?.permissions ?? 0, one)) ||
      (part === 'menus' && maySomewhere(powers, 'menus')),
  );

describe('an edit', () => {
  it('changes nothing that its maker may not change', () => {
    let [allowed, refused] = [0, 0];
    holds(
      fc.property(anySite, anyPowers, fc.array(anyStep, { minLength: 1, maxLength: 12 }), (start, drawn, steps) => {
        let site = start;
        for (const step of steps) {
          const powers = powersIn(site, drawn);
          const operation = drawEdit(site, step);
          const outcome = applyOperation(site, operation);
          if (!outcome.ok) continue;
          const forbidden = forbiddenIn(site, powers, [operation]);
          if (forbidden) {
            refused++;
            expect(forbiddenWords(powers, forbidden)).toMatch(/^This needs the permission ‘.+’\. .+\.$/);
          } else {
            allowed++;
            expect({ operation, faults: overstepped(site, outcome.site, powers) }).toEqual({ operation, faults: [] });
          }
          site = outcome.site;
        }
      }),
      { numRuns: 150 },
    );
    expect(allowed).toBeGreaterThan(100);
    expect(refused).toBeGreaterThan(100);
  });

  it('can be undone by whoever may make it, where it is about pages', () => {
    holds(
      fc.property(anySite, anyPowers, fc.array(anyStep, { minLength: 1, maxLength: 12 }), (start, drawn, steps) => {
        let site = start;
        for (const step of steps) {
          const powers = powersIn(site, drawn);
          const operation = drawEdit(site, step);
          const outcome = applyOperation(site, operation);
          if (!outcome.ok) continue;
          if (operation.name.startsWith('page.') && !forbiddenIn(site, powers, [operation])) {
            const back = forbiddenIn(outcome.site, powers, outcome.inverse, true);
            expect({ operation, inverse: outcome.inverse, back: back && forbiddenWords(powers, back) }).toMatchObject({
              back: null,
            });
          }
          site = outcome.site;
        }
      }),
      { numRuns: 150 },
    );
  });

  it('of several operations is looked at one after the other, on what those before have made', () => {
    holds(
      fc.property(anySite, anyPowers, fc.array(anyStep, { minLength: 2, maxLength: 6 }), (start, drawn, steps) => {
        const powers = powersIn(start, drawn);
        let site = start;
        const operations = [];
        let first = null;
        for (const step of steps) {
          const operation = drawEdit(site, step);
          const outcome = applyOperation(site, operation);
          if (!outcome.ok) continue;
          first ??= forbiddenIn(site, powers, [operation]);
          operations.push(operation);
          site = outcome.site;
        }
        const together = forbiddenIn(start, powers, operations);
        expect(together?.permission).toBe(first?.permission);
        expect(together?.at).toBe(first?.at);
      }),
      { numRuns: 60 },
    );
  });
});

describe('an edit that moves pages', () => {
  it('tells of each page at which somebody comes to have other permissions, and of no other', () => {
    let found = 0;
    holds(
      fc.property(anySite, anyPowers, fc.array(anyStep, { minLength: 1, maxLength: 8 }), (before, drawn, steps) => {
        const powers = powersIn(before, drawn);
        let after = before;
        for (const step of steps) {
          const outcome = applyOperations(after, [drawEdit(after, step)]);
          if (outcome.ok) after = outcome.site;
        }
        const expected = branchOf(after, null).flatMap((page) => {
          if (before.nodes.get(page)?.removedWith !== null) return [];
          const [was, is] = [
            slowlyHeld(before.nodes, powers, page, before.practice),
            slowlyHeld(after.nodes, powers, page, after.practice),
          ];
          return was === is ? [] : [{ page, gained: is & ~was, lost: was & ~is }];
        });
        found += expected.length;
        expect(powerChanges(before, after, powers)).toEqual(expected);
      }),
      { numRuns: 100 },
    );
    expect(found).toBeGreaterThan(0);
  });
});

describe('roles', () => {
  it('let everybody read who has one, and with everything comes all', () => {
    for (const role of SHIPPED_ROLES) expect(has(permissionsOf(role), 'read')).toBe(true);
    expect(permissionsOf({ ...SHIPPED_ROLES[0]!, permissions: [] })).toBe(setOf(['read']));
    expect(setOf(['everything'])).toBe(ALL_PERMISSIONS);
    expect(listOf(setOf(['write', 'comment']))).toEqual(['comment', 'write']);
  });

  it('grow from one shipped role to the next', () => {
    for (const [at, role] of SHIPPED_ROLES.slice(1).entries())
      expect(hasAllOf(permissionsOf(role), permissionsOf(SHIPPED_ROLES[at]!))).toBe(true);
  });

  it('that a site does not have give nothing', () => {
    const powers = powersOf(SHIPPED_ROLES, [{ page: null, role: 'gone' as never }]);
    expect(maySomewhere(powers, 'read')).toBe(false);
  });

  it('are given by nobody who has less there', () => {
    holds(
      fc.property(anySite, anyPowers, fc.constantFrom(...SHIPPED_ROLES), fc.nat(), (site, drawn, role, at) => {
        const powers = powersIn(site, drawn);
        const pages = [null, ...site.nodes.keys()];
        const page = pages[at % pages.length]!;
        const may = mayGive(site, powers, role, page);
        const held =
          page === null ? (powers.onSite?.permissions ?? 0) : slowlyHeld(site.nodes, powers, page, site.practice);
        expect(may).toBe(has(held, 'people') && hasAllOf(held, permissionsOf(role)));
        expect(mayGive(site, FULL_POWERS, role, page)).toBe(true);
      }),
      { numRuns: 100 },
    );
  });
});

describe('the reason why something is not allowed', () => {
  it('names the permission, the page, the role, and the branch through which it holds', () => {
    holds(
      fc.property(anySite, (site) => {
        const deep = [...site.nodes.values()].find(
          ({ parent, removedWith }) => parent !== null && removedWith === null,
        );
        if (!deep) return;
        const powers = powersOf(SHIPPED_ROLES, [{ page: deep.parent, role: SHIPPED_ROLES[0]!.id }]);
        expect(mayAt(site, powers, 'write', deep.id)).toBe(false);
        const words = forbiddenWords(powers, { permission: 'write', at: deep.id, site });
        expect(words).toContain('‘Write’');
        expect(words).toContain('your role is Reader, through the branch ‘');
        expect(forbiddenWords(powers, { permission: 'write', at: null, site })).toContain(
          'On the whole site you have no role',
        );
        expect(isWithin(site, deep.id, deep.parent!)).toBe(true);
      }),
      { numRuns: 20 },
    );
  });
});
