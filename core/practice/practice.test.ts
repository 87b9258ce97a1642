import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { planRelease, waitingPages } from '../changes/release-plan.ts';
import { checkSite } from '../model/check-site.ts';
import type { PageId } from '../model/ids.ts';
import { isPractice, practiceBranch } from '../model/practice.ts';
import { branchOf, childrenOf, homeOf, nodeAt } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import { applyOperations } from '../operations/apply.ts';
import { mayAt, powersOf } from '../people/powers.ts';
import { SHIPPED_ROLES } from '../people/role.ts';
import { INSERTABLE } from '../sections/all-sections.ts';
import { holds } from '../testing/holds.ts';
import { anySite, anyStep, emptySite, siteAfter, siteAfterSteps } from '../testing/random-site.ts';
import { EXERCISES } from './exercises.ts';
import { clearedPractice, practicePages } from './practice-pages.ts';

const ids = () => {
  let next = 0;
  return () => `practice${next++}` as PageId;
};
const made = () => practicePages('en', { parent: null }, ids());
const titles = (site: ReturnType<typeof emptySite>) =>
  practiceBranch(site).map((page) => textIn(nodeAt(site, page).title, 'en'));

describe('the practice page of a new site', () => {
  it('has an exercise for every section that can be inserted, and is sound', () => {
    expect(Object.keys(EXERCISES).sort()).toEqual(INSERTABLE.map(({ type }) => type).sort());
    const site = siteAfter(made().operations);
    expect(checkSite(site)).toEqual([]);
    const texts = JSON.stringify(made().contents);
    for (const words of Object.values(EXERCISES)) expect(texts).toContain(words);
    const kept = new Set(made().contents.map(({ id }) => id));
    for (const page of practiceBranch(site)) expect(kept.has(nodeAt(site, page).content!)).toBe(true);
  });

  it('is not the home page: the first page that is made is', () => {
    const site = siteAfter(made().operations);
    expect(homeOf(site)).toBeNull();
    const later = siteAfter(
      [{ name: 'page.add', page: 'home' as PageId, place: { parent: null }, title: { en: 'Home' } }],
      site,
    );
    expect(homeOf(later)).toBe('home');
  });

  it('is as it was at the beginning once it is cleared, whatever was done in it', () => {
    holds(
      fc.property(fc.array(anyStep, { maxLength: 12 }), (steps) => {
        const start = siteAfter(made().operations);
        const site = siteAfterSteps(steps, start);
        const practice = start.practice!;
        if (site.practice !== practice || site.nodes.get(practice)?.type !== 'page') return;
        if (site.nodes.get(practice)!.removedWith !== null) return;
        let next = 0;
        const newId = () => `new${next++}` as PageId;
        const { operations } = clearedPractice('en', practice, childrenOf(site, practice), newId);
        const outcome = applyOperations(site, operations);
        if (!outcome.ok) throw new Error(outcome.code);
        expect(titles(outcome.site).slice(1)).toEqual(titles(start).slice(1));
        expect(checkSite(outcome.site)).toEqual([]);
      }),
      { numRuns: 100 },
    );
  });
});

describe('the practice branch', () => {
  it('never waits to go live and never goes, also where it is asked for', () => {
    let asked = 0;
    holds(
      fc.property(anySite, fc.array(anyStep, { maxLength: 12 }), (start, steps) => {
        const site = siteAfterSteps(steps, siteAfter(made().operations, start));
        const practice = practiceBranch(site);
        for (const page of waitingPages(site)) expect(isPractice(site, page)).toBe(false);
        asked += practice.length;
        const { after } = planRelease(site, { pages: branchOf(site, null), retire: [] });
        for (const page of practiceBranch(after)) expect(after.live.get(page)?.retired ?? true).toBe(true);
      }),
    );
    expect(asked).toBeGreaterThan(300);
  });

  it('is where a writer of another branch may shape, and a reader may not', () => {
    const site = siteAfter([
      ...made().operations,
      { name: 'page.add', page: 'own' as PageId, place: { parent: null }, title: { en: 'Own' } },
    ]);
    const as = (role: number, page: PageId | null) =>
      powersOf(SHIPPED_ROLES, [{ page, role: SHIPPED_ROLES[role]!.id }]);
    const below = childrenOf(site, site.practice).at(0)!;
    for (const permission of ['read', 'comment', 'plan', 'write', 'shape', 'menus'] as const) {
      expect(mayAt(site, as(1, 'own' as PageId), permission, below)).toBe(true);
      expect(mayAt(site, as(0, null), permission, below)).toBe(permission === 'read');
    }
    for (const permission of ['access', 'publish', 'people', 'everything'] as const)
      expect(mayAt(site, as(1, null), permission, below)).toBe(false);
    expect(mayAt(site, as(1, null), 'shape', 'own' as PageId)).toBe(false);
  });
});
