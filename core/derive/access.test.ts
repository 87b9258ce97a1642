import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { type AccessRule, type LabelId, NO_RULE, type PassphraseId, ruleOf } from '../model/access.ts';
import { type AudienceId, EVERYONE, closureOf, includesItself, isBuiltIn } from '../model/audience.ts';
import type { PageId } from '../model/ids.ts';
import type { LabelRule } from '../model/page-label.ts';
import { type Site, isWithin, nodeAt } from '../model/site.ts';
import { type Step, anySite, anyStep, siteAfterSteps } from '../testing/random-site.ts';
import {
  type AccessTable,
  type Membership,
  accessReason,
  accessTable,
  accessTableAfter,
  closingRows,
  heldBackRows,
  membershipsOf,
  passphrasePage,
} from './access.ts';
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
const given = fc.subarray(['passphraseOfTests1', 'passphraseOfTests2'] as PassphraseId[]);
const visitorOf = (site: Site, audiences: readonly AudienceId[], passphrases: readonly PassphraseId[]): Membership =>
  new Set([...closureOf(site.settings.audiences, audiences), ...passphrases]);

/** The rules that stand at a page: those of its labels, then its own. */
const rulesOf = (site: Site, id: PageId): Pick<AccessRule, keyof LabelRule>[] => {
  const rule = ruleOf(nodeAt(site, id));
  const ofLabel = (label: LabelId) => ({
    ...NO_RULE,
    ...(site.settings.labels.find((one) => one.id === label)?.rule ?? { only: [] }),
  });
  return [...rule.labels.map(ofLabel), rule];
};

type Answer = 'open' | 'asks' | 'asks, locked' | 'locked' | 'out';

/** The rules said plainly: each page asks the page above. */
function slowly(site: Site, page: PageId, visitor: Membership, at: number): Answer {
  const isHidden = (id: PageId): boolean => {
    const { hidden, parent } = nodeAt(site, id);
    return hidden === 'branch' || (parent !== null && isHidden(parent));
  };
  const passes = (id: PageId): boolean => {
    const { parent } = nodeAt(site, id);
    if (!ruleOf(nodeAt(site, id)).standsAlone && parent !== null && !passes(parent)) return false;
    return rulesOf(site, id).every(
      ({ only, except }) =>
        (only === null || only.some((one) => visitor.has(one))) && !except.some((one) => visitor.has(one)),
    );
  };
  const gave = (id: PageId): boolean => {
    const { parent } = nodeAt(site, id);
    const { passphrase, standsAlone } = ruleOf(nodeAt(site, id));
    if (!standsAlone && parent !== null && !gave(parent)) return false;
    return passphrase === null || visitor.has(passphrase);
  };
  const isTime = (id: PageId): boolean => {
    const { parent } = nodeAt(site, id);
    if (!ruleOf(nodeAt(site, id)).standsAlone && parent !== null && !isTime(parent)) return false;
    return rulesOf(site, id).every(
      ({ from, until }) => (from === null || at >= Date.parse(from)) && (until === null || at < Date.parse(until)),
    );
  };
  const look = (id: PageId): string | null => {
    const { parent } = nodeAt(site, id);
    const said = rulesOf(site, id).findLast(({ closedLook }) => closedLook !== null);
    return said?.closedLook ?? (parent === null ? null : look(parent));
  };
  if (nodeAt(site, page).hidden !== 'no' || isHidden(page) || !isTime(page)) return 'out';
  // Unless a rule says otherwise, a lock shows to whom a passphrase would let in, and to nobody else.
  const isLocked = passes(page) ? look(page) !== 'out-of-sight' : (look(page) ?? 'out-of-sight') !== 'out-of-sight';
  if (!passes(page)) return isLocked ? 'locked' : 'out';
  return gave(page) ? 'open' : isLocked ? 'asks, locked' : 'asks';
}

/** What a row of a table for one visitor says. */
const answerIn = ({ open, asks, locked }: AccessTable, row: number): Answer =>
  open[row] === 1
    ? 'open'
    : asks[row] === 1
      ? locked[row] === 1
        ? 'asks, locked'
        : 'asks'
      : locked[row] === 1
        ? 'locked'
        : 'out';

describe('who may open what', () => {
  it('is what the rules say, for every page and any visitor, at any moment', () =>
    holds(
      fc.property(anySite, own, given, moment, (site, audiences, passphrases, at) => {
        const outline = outlineOf(site);
        const visitor = visitorOf(site, audiences, passphrases);
        const table = accessTable(outline, site.settings, [visitor], at);
        outline.nodes.forEach(({ id }, row) => expect(answerIn(table, row)).toBe(slowly(site, id, visitor, at)));
      }),
      { numRuns: 150 },
    ));

  it('is the same for several visitors in one pass as for each alone', () =>
    holds(
      fc.property(anySite, moment, (site, at) => {
        const outline = outlineOf(site);
        const visitors = membershipsOf(site.settings.audiences);
        const together = accessTable(outline, site.settings, visitors, at);
        visitors.forEach((visitor, bit) => {
          const alone = accessTable(outline, site.settings, [visitor], at);
          outline.nodes.forEach((_, row) => {
            expect((together.open[row]! >>> bit) & 1).toBe(alone.open[row]);
            expect((together.locked[row]! >>> bit) & 1).toBe(alone.locked[row]);
            expect((together.asks[row]! >>> bit) & 1).toBe(alone.asks[row]);
          });
        });
      }),
      { numRuns: 100 },
    ));

  it('comes with the reason: what narrows the page, from the root', () =>
    holds(
      fc.property(anySite, own, given, moment, (site, audiences, passphrases, at) => {
        const outline = outlineOf(site);
        const visitor = visitorOf(site, audiences, passphrases);
        const { open, locked, asks: asking } = accessTable(outline, site.settings, [visitor], at);
        outline.nodes.forEach(({ id }, row) => {
          const { opens, asks, closedLook, chain } = accessReason(site, id, visitor, at);
          expect(opens).toBe(open[row] === 1);
          expect(asks).toBe(asking[row] === 1);
          expect(!opens && closedLook !== 'out-of-sight').toBe(locked[row] === 1);
          expect(chain.some(({ keepsOut }) => keepsOut)).toBe(!opens);
        });
      }),
      { numRuns: 100 },
    ));

  it('never opens what is hidden, and never shows a lock on what opens', () =>
    holds(
      fc.property(anySite, moment, (site, at) => {
        const outline = outlineOf(site);
        const { open, locked } = accessTable(outline, site.settings, membershipsOf(site.settings.audiences), at);
        outline.nodes.forEach(({ hidden }, row) => {
          if (hidden !== 'no') expect([open[row], locked[row]]).toEqual([0, 0]);
          expect(open[row]! & locked[row]!).toBe(0);
        });
      }),
    ));

  const setting: fc.Arbitrary<Step> = anyStep.map((step) => ({ ...step, name: 'page.set' }));
  it('is the same after an edit whether it is worked out for the branches that changed or for the whole', () =>
    holds(
      fc.property(anySite, fc.array(setting, { minLength: 1, maxLength: 6 }), moment, (site, steps, at) => {
        const before = outlineOf(site);
        // What has moved, come or gone makes another tree, which is worked out as a whole.
        const after = siteAfterSteps(steps, site);
        if (after.children !== site.children) return;
        const visitors = membershipsOf(site.settings.audiences);
        const outline = outlineOf(after);
        const changed = outline.nodes.flatMap((node, row) => (node === before.nodes[row] ? [] : [row]));
        const table = accessTable(before, site.settings, visitors, at);
        const { until, ...anew } = accessTable(outline, after.settings, visitors, at);
        const { until: soon, ...byBranch } = accessTableAfter(table, outline, after.settings, visitors, at, changed);
        expect(byBranch).toEqual(anew);
        expect(soon).toBeLessThanOrEqual(until);
      }),
    ));

  it('asks for the passphrases of a page one by one from the top, and with all of them the page opens', () =>
    holds(
      fc.property(anySite, own, moment, (site, audiences, at) => {
        const outline = outlineOf(site);
        const { asks } = accessTable(outline, site.settings, [visitorOf(site, audiences, [])], at);
        outline.nodes.forEach(({ id }, row) => {
          if (asks[row] === 0) return;
          const gave: PassphraseId[] = [];
          for (;;) {
            const asking = passphrasePage(site, id, visitorOf(site, audiences, gave));
            if (asking === null) break;
            expect(isWithin(site, id, asking)).toBe(true);
            gave.push(ruleOf(nodeAt(site, asking)).passphrase!);
          }
          expect(accessReason(site, id, visitorOf(site, audiences, gave), at).opens).toBe(true);
        });
      }),
    ));

  it('stays as it is until the moment that the table names, and no window turns before it', () =>
    holds(
      fc.property(anySite, moment, (site, at) => {
        const outline = outlineOf(site);
        const visitors = membershipsOf(site.settings.audiences);
        const now = accessTable(outline, site.settings, visitors, at);
        expect(now.until).toBeGreaterThan(at);
        const before = accessTable(outline, site.settings, visitors, Math.min(now.until, at + 1e12) - 1);
        expect(before.open).toEqual(now.open);
        expect(before.locked).toEqual(now.locked);
      }),
    ));

  it('closes what is open by the clock only where that was said before', () =>
    holds(
      fc.property(anySite, moment, moment, (site, one, other) => {
        const [now, then] = [Math.min(one, other), Math.max(one, other)];
        const outline = outlineOf(site);
        const openAt = (at: number) => accessTable(outline, site.settings, [visitorOf(site, [], [])], at).open;
        const closing = closingRows(outline, site.settings, now);
        const later = openAt(then);
        openAt(now).forEach((open, row) => {
          if (open === 1 && later[row] === 0) expect(closing[row]).toBe(1);
        });
      }),
    ));

  it.each(['engines', 'search'] as const)(
    'holds %s back from a page, or from it and all below, by the topmost rule that does',
    (finder) =>
      holds(
        fc.property(anySite, (site) => {
          const outline = outlineOf(site);
          const holdsBack = (row: number, ...how: string[]) =>
            rulesOf(site, outline.nodes[row]!.id).some((rule) => how.includes(rule[finder]));
          const by = outline.nodes.map((_, row) => {
            let from = holdsBack(row, 'page', 'branch') ? row : -1;
            for (let up = row; up !== -1; up = outline.parent[up]!) if (holdsBack(up, 'branch')) from = up;
            return from;
          });
          expect([...heldBackRows(outline, site.settings, finder)]).toEqual(by);
        }),
      ),
  );
});

describe('two visitors', () => {
  it('are told apart by the pages that one of them can open alone, each with the rule that decided it', () =>
    holds(
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
    holds(
      fc.property(anySite, own, (site, audiences) => {
        for (const { id } of site.settings.audiences) expect(includesItself(site.settings.audiences, id)).toBe(false);
        const closure = closureOf(site.settings.audiences, audiences);
        expect(closure.has(EVERYONE)).toBe(true);
        for (const id of [...closure].filter((one) => !isBuiltIn(one)))
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
