import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ruleOf } from '../model/access.ts';
import { type AudienceId, EVERYONE, closureOf, includesItself } from '../model/audience.ts';
import type { PageId } from '../model/ids.ts';
import { type Site, nodeAt } from '../model/site.ts';
import { anySite } from '../testing/random-site.ts';
import { type Membership, accessReason, accessTable, heldBackRows, membershipsOf } from './access.ts';
import { compareAccess } from './compare-access.ts';
import { outlineOf } from './outline.ts';

const moment = fc
  .constantFrom(
    '2026-10-01T00:00:00Z',
    '2026-11-01T00:00:00Z',
    '2026-11-30T23:59:59Z',
    '2026-12-01T00:00:00Z',
    '2027-02-01T00:00:00Z',
  )
  .map((one) => Date.parse(one));
const own = fc.subarray(['staff', 'students', 'governors'] as AudienceId[]);

/** The rules said plainly: each page asks the page above. */
function slowly(site: Site, page: PageId, visitor: Membership, at: number): 'open' | 'locked' | 'out' {
  const isHidden = (id: PageId): boolean => {
    const { hidden, parent } = nodeAt(site, id);
    return hidden === 'branch' || (parent !== null && isHidden(parent));
  };
  const passes = (id: PageId): boolean => {
    const { parent } = nodeAt(site, id);
    const { only, except, standsAlone } = ruleOf(nodeAt(site, id));
    if (!standsAlone && parent !== null && !passes(parent)) return false;
    if (only !== null && !only.some((one) => visitor.has(one))) return false;
    return !except.some((one) => visitor.has(one));
  };
  const isTime = (id: PageId): boolean => {
    const { parent } = nodeAt(site, id);
    const { from, until, standsAlone } = ruleOf(nodeAt(site, id));
    if (!standsAlone && parent !== null && !isTime(parent)) return false;
    return (from === null || at >= Date.parse(from)) && (until === null || at < Date.parse(until));
  };
  const look = (id: PageId): string => {
    const { parent } = nodeAt(site, id);
    return ruleOf(nodeAt(site, id)).closedLook ?? (parent === null ? 'out-of-sight' : look(parent));
  };
  if (nodeAt(site, page).hidden !== 'no' || isHidden(page) || !isTime(page)) return 'out';
  if (passes(page)) return 'open';
  return look(page) === 'locked' ? 'locked' : 'out';
}

describe('who may open what', () => {
  it('is what the rules say, for every page and any visitor, at any moment', () =>
    fc.assert(
      fc.property(anySite, own, moment, (site, audiences, at) => {
        const outline = outlineOf(site);
        const visitor = closureOf(site.settings.audiences, audiences);
        const { open, locked } = accessTable(outline, [visitor], at);
        outline.nodes.forEach(({ id }, row) =>
          expect(open[row] === 1 ? 'open' : locked[row] === 1 ? 'locked' : 'out').toBe(slowly(site, id, visitor, at)),
        );
      }),
      { numRuns: 300 },
    ));

  it('is the same for several visitors in one pass as for each alone', () =>
    fc.assert(
      fc.property(anySite, moment, (site, at) => {
        const outline = outlineOf(site);
        const visitors = membershipsOf(site.settings.audiences);
        const together = accessTable(outline, visitors, at);
        visitors.forEach((visitor, bit) => {
          const alone = accessTable(outline, [visitor], at);
          outline.nodes.forEach((_, row) => {
            expect((together.open[row]! >>> bit) & 1).toBe(alone.open[row]);
            expect((together.locked[row]! >>> bit) & 1).toBe(alone.locked[row]);
          });
        });
      }),
      { numRuns: 150 },
    ));

  it('comes with the reason: what narrows the page, from the root', () =>
    fc.assert(
      fc.property(anySite, own, moment, (site, audiences, at) => {
        const outline = outlineOf(site);
        const visitor = closureOf(site.settings.audiences, audiences);
        const { open, locked } = accessTable(outline, [visitor], at);
        outline.nodes.forEach(({ id }, row) => {
          const { opens, closedLook, chain } = accessReason(site, id, visitor, at);
          expect(opens).toBe(open[row] === 1);
          expect(!opens && closedLook === 'locked').toBe(locked[row] === 1);
          expect(chain.some(({ keepsOut }) => keepsOut)).toBe(!opens);
        });
      }),
      { numRuns: 150 },
    ));

  it('never opens what is hidden, and never shows a lock on what opens', () =>
    fc.assert(
      fc.property(anySite, moment, (site, at) => {
        const outline = outlineOf(site);
        const { open, locked } = accessTable(outline, membershipsOf(site.settings.audiences), at);
        outline.nodes.forEach(({ hidden }, row) => {
          if (hidden !== 'no') expect([open[row], locked[row]]).toEqual([0, 0]);
          expect(open[row]! & locked[row]!).toBe(0);
        });
      }),
    ));

  it('stays as it is until the moment that the table names, and no window turns before it', () =>
    fc.assert(
      fc.property(anySite, moment, (site, at) => {
        const outline = outlineOf(site);
        const visitors = membershipsOf(site.settings.audiences);
        const now = accessTable(outline, visitors, at);
        expect(now.until).toBeGreaterThan(at);
        const before = accessTable(outline, visitors, Math.min(now.until, at + 1e12) - 1);
        expect(before.open).toEqual(now.open);
        expect(before.locked).toEqual(now.locked);
      }),
    ));

  it.each(['engines', 'search'] as const)('holds %s back from a page, or from it and all below', (finder) =>
    fc.assert(
      fc.property(anySite, (site) => {
        const outline = outlineOf(site);
        const by = heldBackRows(outline, finder);
        outline.nodes.forEach((node, row) => {
          let isHeld = ruleOf(node)[finder] !== 'no';
          for (let up = outline.parent[row]!; up !== -1; up = outline.parent[up]!)
            isHeld ||= ruleOf(outline.nodes[up]!)[finder] === 'branch';
          expect(by[row] !== -1).toBe(isHeld);
        });
      }),
    ),
  );
});

describe('two visitors', () => {
  it('are told apart by the pages that one of them can open alone, each with the rule that decided it', () =>
    fc.assert(
      fc.property(anySite, own, own, moment, moment, (site, mine, theirs, now, then) => {
        const seeing = (audiences: AudienceId[], at: number) => ({
          visitor: closureOf(site.settings.audiences, audiences),
          at,
        });
        const [left, right] = [seeing(mine, now), seeing(theirs, then)];
        const found = compareAccess(site, left, right);
        const differs = outlineOf(site).nodes.filter(
          ({ id, type }) =>
            type === 'page' &&
            (slowly(site, id, left.visitor, now) === 'open') !== (slowly(site, id, right.visitor, then) === 'open'),
        );
        expect(found.map(({ page }) => page)).toEqual(differs.map(({ id }) => id));
        for (const one of found) expect(one.left.opens).toBe(!one.right.opens);
        expect(compareAccess(site, right, left).map(({ page }) => page)).toEqual(found.map(({ page }) => page));
      }),
    ));
});

describe('audiences', () => {
  it('never include themselves, whatever is done, and everyone is in the closure of all', () =>
    fc.assert(
      fc.property(anySite, own, (site, audiences) => {
        for (const { id } of site.settings.audiences) expect(includesItself(site.settings.audiences, id)).toBe(false);
        const closure = closureOf(site.settings.audiences, audiences);
        expect(closure.has(EVERYONE)).toBe(true);
        for (const id of closure)
          expect([...closureOf(site.settings.audiences, [id])].every((one) => closure.has(one))).toBe(true);
      }),
    ));

  it('take in whoever belongs to one that they include', () => {
    const audiences = [
      { id: 'members' as AudienceId, name: 'Members', includes: ['staff' as AudienceId] },
      { id: 'staff' as AudienceId, name: 'Staff', includes: [] },
    ];
    expect([...closureOf(audiences, ['staff' as AudienceId])].sort()).toEqual(['everyone', 'members', 'staff']);
    expect([...closureOf(audiences, ['members' as AudienceId])].sort()).toEqual(['everyone', 'members']);
  });
});
