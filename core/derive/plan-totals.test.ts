import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { type GoalId, READINESS, openQuestions, planOf } from '../model/plan.ts';
import { branchOf, nodeAt } from '../model/site.ts';
import { toPageId } from '../model/ids.ts';
import { anySite, siteAfter } from '../testing/random-site.ts';
import { outlineOf } from './outline.ts';
import { goalsServed, planTotalsOf } from './plan-totals.ts';

describe('totals of a branch', () => {
  it('are what counting the branch page by page gives', () => {
    holds(
      fc.property(anySite, (site) => {
        const outline = outlineOf(site);
        const totals = planTotalsOf(outline);
        outline.nodes.forEach((top, row) => {
          const branch = branchOf(site, top.id).map((id) => nodeAt(site, id));
          const pages = branch.filter((node) => node.type === 'page').map(planOf);
          const waiting = pages.filter((plan) => plan.readiness !== 'ready' && plan.due !== null);
          expect(totals.pages[row]).toBe(pages.length);
          expect(totals.words[row]).toBe(pages.reduce((sum, plan) => sum + (plan.words ?? 0), 0));
          expect(totals.questions[row]).toBe(branch.map(planOf).reduce((sum, plan) => sum + openQuestions(plan), 0));
          expect(totals.due[row]).toBe(waiting.map((plan) => plan.due!).sort()[0] ?? null);
          expect(READINESS.map((_, at) => totals.readiness[row * READINESS.length + at])).toEqual(
            READINESS.map((readiness) => pages.filter((plan) => plan.readiness === readiness).length),
          );
        });
      }),
      { numRuns: 100 },
    );
  });
});

describe('goals', () => {
  const page = (id: string, goals: string[]) => ({
    name: 'page.add' as const,
    page: toPageId(id),
    place: { parent: null },
    title: { en: id },
    plan: { goals: goals as GoalId[] },
  });
  const goal = (id: string) => ({ name: 'goal.add' as const, goal: id as GoalId, statement: `Goal ${id}` });

  it('say how many pages serve them, and which pages serve none', () => {
    const site = siteAfter([goal('g1'), goal('g2'), page('a', ['g1']), page('b', ['gone']), page('c', [])]);
    const served = goalsServed(site, outlineOf(site));
    expect([...served.pages]).toEqual([
      ['g1', 1],
      ['g2', 0],
    ]);
    expect(served.servingNone).toBe(2);
  });
});
