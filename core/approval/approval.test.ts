import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { asLive } from '../model/node.ts';
import { isSameJson } from '../model/canonical-json.ts';
import { nodeDifferences } from '../model/node.ts';
import { type PermissionSet, NO_PERMISSION } from '../model/permission.ts';
import type { PageId } from '../model/ids.ts';
import { isPractice } from '../model/practice.ts';
import { type Site, branchOf, maybeNodeAt } from '../model/site.ts';
import { SHIPPED_ROLES, permissionsOf } from '../people/role.ts';
import { holds } from '../testing/holds.ts';
import { anyEditStep, anySite, siteAfter, siteAfterSteps } from '../testing/random-site.ts';
import { printOf } from './print.ts';
import type { RoleId } from '../people/role.ts';
import { type ApprovalRule, decides, handedOver, ruleAt, rulesNaming } from './rule.ts';
import { lackingApproval, standingOf } from './standing.ts';

const PEOPLE = ['ada', 'ben', 'cy', 'dee'];
const everybody = () => true;

/** Rules on some pages, and perhaps on the whole site. */
const anyRules = fc.record({
  whole: fc.option(fc.integer({ min: 1, max: 3 })),
  branches: fc.array(fc.tuple(fc.nat(), fc.integer({ min: 1, max: 3 })), { maxLength: 4 }),
});
function rulesIn(
  site: Site,
  { whole, branches }: { whole: number | null; branches: [number, number][] },
): ApprovalRule[] {
  const pages = branchOf(site, null);
  const by = { people: PEOPLE };
  const rules = new Map<PageId | null, ApprovalRule>();
  if (whole !== null) rules.set(null, { page: null, by, count: whole });
  if (pages.length > 0)
    for (const [at, count] of branches) {
      const page = pages[at % pages.length]!;
      rules.set(page, { page, by, count });
    }
  return [...rules.values()];
}

/** A page and those above it, as visitors have them. */
function liveAbove(site: Site, page: PageId): PageId[] {
  const entry = site.live.get(page);
  return entry ? [page, ...(entry.node.parent === null ? [] : liveAbove(site, entry.node.parent))] : [];
}

describe('a rule that names somebody', () => {
  const [mira, teo, kofi] = ['a', 'b', 'c'] as const;
  const rule = (people: readonly string[], count: number): ApprovalRule => ({
    page: null,
    by: { people: [...people] },
    count,
  });

  it('is handed over in their place, and wants no more approvals than there are persons', () => {
    expect(handedOver(rule([mira, kofi], 2), mira, teo)).toEqual(rule([teo, kofi], 2));
    expect(handedOver(rule([mira, teo], 2), mira, teo)).toEqual(rule([teo], 1));
    const ofRole: ApprovalRule = { page: null, by: { role: 'publisher' as RoleId }, count: 2 };
    expect(handedOver(ofRole, mira, teo)).toBe(ofRole);
    expect(rulesNaming([rule([mira], 1), rule([kofi], 1), ofRole], mira)).toEqual([rule([mira], 1)]);
  });
});

describe('the rule of a page', () => {
  it('is the nearest one above it, in the draft or else where visitors have it', () => {
    holds(
      fc.property(anySite, anyRules, (site, drawn) => {
        const rules = rulesIn(site, drawn);
        for (const page of branchOf(site, null)) {
          // The slow way: of all rules whose branch holds the page, that of the smallest branch.
          const around = rules.filter((rule) => rule.page === null || branchOf(site, rule.page).includes(page));
          const size = (rule: ApprovalRule) => (rule.page === null ? Infinity : branchOf(site, rule.page).length);
          const live = liveAbove(site, page).flatMap((at) => rules.filter((rule) => rule.page === at));
          const [whole, own] = [around.find((rule) => rule.page === null), around.filter((rule) => rule.page !== null)];
          const nearest = own.sort((a, b) => size(a) - size(b))[0] ?? live[0] ?? whole ?? null;
          expect(ruleAt(site, rules, page)).toBe(isPractice(site, page) ? null : nearest);
        }
      }),
    );
  });

  it('is decided by who has the role, or may do as much', () => {
    const rule: ApprovalRule = { page: null, by: { role: SHIPPED_ROLES[2]!.id }, count: 1 };
    const as = (permissions: PermissionSet) => decides(rule, SHIPPED_ROLES, { id: 'x', permissions });
    expect(SHIPPED_ROLES.map((role) => as(permissionsOf(role)))).toEqual([false, false, true, true, true]);
    expect(as(NO_PERMISSION)).toBe(false);
  });
});

describe('a print', () => {
  it('is the same exactly where visitors would get the same', () => {
    let [same, different] = [0, 0];
    holds(
      fc.property(anySite, fc.array(anyEditStep, { maxLength: 6 }), (site, steps) => {
        const after = siteAfterSteps(steps, site);
        for (const page of site.nodes.keys()) {
          const [one, other] = [maybeNodeAt(site, page), maybeNodeAt(after, page)];
          const isSame =
            one && other
              ? nodeDifferences(one, other).length === 0 && isSameJson(one.order, other.order)
              : !one && !other;
          if (one && other && isSame) expect(asLive(one).content).toBe(asLive(other).content);
          expect(printOf(site, page) === printOf(after, page)).toBe(isSame);
          if (isSame) same++;
          else different++;
        }
      }),
    );
    expect(Math.min(same, different)).toBeGreaterThan(50);
  });
});

describe('an approval', () => {
  it('counts for as many different people as the rule wants, without whoever proposed it, as long as the page stays as it was', () => {
    const seen = new Map<string, number>();
    holds(
      fc.property(
        anySite,
        anyRules,
        fc.array(fc.tuple(fc.constantFrom(...PEOPLE), fc.boolean()), { maxLength: 5 }),
        fc.constantFrom(...PEOPLE),
        fc.nat(),
        fc.array(anyEditStep, { maxLength: 3 }),
        fc.boolean(),
        (before, drawn, given, proposer, at, steps, isEdited) => {
          const pages = branchOf(before, null);
          if (pages.length === 0) return;
          const page = pages[at % pages.length]!;
          const stepped = siteAfterSteps(steps, before);
          if (!maybeNodeAt(stepped, page)) return;
          const fields = { description: { en: 'Told anew' } };
          const site = isEdited ? siteAfter([{ name: 'page.set', page, fields }], stepped) : stepped;
          const rules = rulesIn(site, drawn);
          const proposal = {
            account: proposer,
            pages: [page],
            approvals: given.map(([account, isLate]) => ({
              account,
              prints: { [page]: printOf(isLate ? site : before, page) },
            })),
          };
          const { standing, by } = standingOf(site, rules, [proposal], page, everybody);
          seen.set(standing, (seen.get(standing) ?? 0) + 1);
          const isSame = printOf(before, page) === printOf(site, page);
          const counting = new Set(
            given.filter(([who, isLate]) => who !== proposer && (isLate || isSame)).map(([who]) => who),
          );
          const rule = ruleAt(site, rules, page);
          expect(new Set(by)).toEqual(rule ? counting : new Set());
          const isMissing = rule !== null && counting.size < rule.count;
          expect(lackingApproval(site, rules, [proposal], { pages: [page], retire: [] }, everybody)).toEqual(
            isMissing ? [page] : [],
          );
          expect(standing === 'approved').toBe(rule !== null && !isMissing);
          expect(standing === 'free').toBe(rule === null);
          // Approving what a page says is not approving that it goes.
          expect(lackingApproval(site, rules, [proposal], { pages: [], retire: [page] }, everybody)).toEqual(
            rule ? [page] : [],
          );
          // What nobody has offered lacks approval, whatever was approved elsewhere.
          expect(lackingApproval(site, rules, [], { pages: [page], retire: [] }, everybody)).toEqual(
            rule ? [page] : [],
          );
        },
      ),
    );
    for (const standing of ['free', 'waiting', 'approved', 'changed'])
      expect(seen.get(standing) ?? 0).toBeGreaterThan(2);
  });

  it('of somebody who does not decide there does not count', () => {
    holds(
      fc.property(anySite, fc.nat(), (site, at) => {
        const pages = branchOf(site, null).filter((page) => !isPractice(site, page));
        if (pages.length === 0) return;
        const page = pages[at % pages.length]!;
        const rules: ApprovalRule[] = [{ page: null, by: { people: ['ben'] }, count: 1 }];
        const proposal = {
          account: 'ada',
          pages: [page],
          approvals: [{ account: 'cy', prints: { [page]: printOf(site, page) } }],
        };
        const only = (account: string) => account === 'ben';
        expect(standingOf(site, rules, [proposal], page, only).standing).toBe('waiting');
      }),
    );
  });
});
