import { describe, expect, it } from 'vitest';
import { toPageId } from '../model/ids.ts';
import { type GoalId, type PlanChange, planOf } from '../model/plan.ts';
import { nodeAt } from '../model/site.ts';
import { siteAfter } from '../testing/random-site.ts';
import { applyOperation, applyOperations, cellsOf, wordsOf } from './apply.ts';
import type { Operation } from './operation.ts';

const boats = toPageId('boats');
const copy = toPageId('copy');
const g1 = 'g1' as GoalId;
const add: Operation = { name: 'page.add', page: boats, place: { parent: null }, title: { en: 'Boats' } };
const plan = (change: PlanChange): Operation => ({ name: 'page.set', page: boats, fields: { plan: change } });
const QUESTION = {
  text: 'Which boats?',
  by: 'Ines',
  at: '2026-11-25T09:00:00Z',
  answer: '',
  settledBy: null,
};
const planAfter = (...operations: Operation[]) => planOf(nodeAt(siteAfter([add, ...operations]), boats));

describe('the plan of a page', () => {
  it('keeps what an edit leaves out', () =>
    expect(planAfter(plan({ owner: 'Bram', words: 300 }), plan({ due: '2027-03-01' }))).toMatchObject({
      owner: 'Bram',
      words: 300,
      due: '2027-03-01',
    }));

  it('is nothing again where all of it is removed', () => {
    const site = siteAfter([add, plan({ owner: 'Bram', goals: [g1] }), plan({ owner: ' ', goals: [] })]);
    expect(nodeAt(site, boats).plan).toBeNull();
  });

  it('names each thing of a list once', () =>
    expect(planAfter(plan({ oldAddresses: ['/a', '/b', '/a'] })).oldAddresses).toEqual(['/a', '/b']));

  it('takes two questions of two people at once, and settles one without touching the other', () => {
    const later = { ...QUESTION, text: 'How many?', at: '2026-11-25T10:00:00Z', by: 'Marek' };
    const questions = planAfter(
      plan({ questions: { q2: later } }),
      plan({ questions: { q1: QUESTION } }),
      plan({ questions: { q1: { ...QUESTION, answer: 'Three.', settledBy: 'Ines' } } }),
    ).questions;
    expect(Object.keys(questions)).toEqual(['q1', 'q2']);
    expect(questions.q1).toMatchObject({ answer: 'Three.', settledBy: 'Ines' });
    expect(questions.q2).toEqual(later);
  });

  it('decides each field and each question by itself', () =>
    expect(cellsOf(plan({ owner: 'Bram', questions: { q1: QUESTION } }))).toEqual([
      'boats.plan.owner',
      'boats.plan.questions.q1',
    ]));

  it('never goes live, and makes no page differ from what is live', () => {
    const site = siteAfter([add, plan({ owner: 'Bram' })]);
    const live = applyOperation(site, { name: 'release.make', pages: [boats], retire: [] });
    if (!live.ok) throw new Error(live.code);
    expect(live.site.live.get(boats)?.node.plan).toBeNull();
    const again = applyOperation(live.site, { name: 'release.make', pages: [boats], retire: [] });
    expect(again).toMatchObject({ ok: true, touched: [] });
  });

  it('goes with a copy, but for what is of the first one alone: old addresses, questions, how far it is', () => {
    const site = siteAfter([
      add,
      plan({
        owner: 'Bram',
        purpose: 'Shows the boats.',
        origin: 'keep',
        readiness: 'ready',
        oldAddresses: ['/boats.html'],
        questions: { q1: QUESTION },
      }),
      { name: 'page.copy', page: boats, place: { parent: null }, ids: { [boats]: copy } as never },
    ]);
    expect(nodeAt(site, copy).plan).toMatchObject({
      owner: 'Bram',
      purpose: 'Shows the boats.',
      origin: null,
      readiness: 'not-started',
      oldAddresses: [],
      questions: {},
    });
  });

  it('is told in words', () => {
    const site = siteAfter([add]);
    expect(wordsOf(plan({ owner: 'Bram', due: '2027-03-01' }), site)).toBe('set the owner and due date of ‘Boats’');
    expect(wordsOf(plan({ questions: { q1: QUESTION } }), site)).toBe('asked about ‘Boats’');
  });
});

describe('goals', () => {
  const goal = (id: string, statement: string, after?: string | null): Operation => ({
    name: 'goal.add',
    goal: id as GoalId,
    statement,
    after: after as GoalId | null | undefined,
  });

  it('stand in the order in which they were put, and come back to their place', () => {
    const site = siteAfter([goal('g1', 'One'), goal('g3', 'Three'), goal('g2', 'Two', 'g1'), goal('g0', 'None', null)]);
    expect(site.goals.map((one) => one.id)).toEqual(['g0', 'g1', 'g2', 'g3']);
    const without = applyOperation(site, { name: 'goal.remove', goal: g1 });
    if (!without.ok) throw new Error(without.code);
    const back = applyOperations(without.site, without.inverse);
    expect(back.ok && back.site.goals).toEqual(site.goals);
  });

  it('cannot be without a statement', () => {
    expect(applyOperation(siteAfter([]), goal('g1', '  '))).toMatchObject({ ok: false, code: 'goal-empty' });
    const site = siteAfter([goal('g1', 'One')]);
    expect(applyOperation(site, { name: 'goal.set', goal: g1, fields: { statement: '' } })).toMatchObject({
      code: 'goal-empty',
    });
    expect(applyOperation(site, { name: 'goal.set', goal: 'x' as GoalId, fields: {} })).toMatchObject({
      code: 'goal-unknown',
    });
  });
});

describe('an old page', () => {
  const decide = (fields: Extract<Operation, { name: 'oldPage.decide' }>['fields']): Operation => ({
    name: 'oldPage.decide',
    address: '/news.php?id=3',
    fields,
  });

  it('is let go to a page that stands in the tree, or to nowhere', () => {
    expect(siteAfter([add, decide({ letGo: { page: boats } })]).oldPages.get('/news.php?id=3')?.letGo).toEqual({
      page: boats,
    });
    expect(applyOperation(siteAfter([]), decide({ letGo: { page: boats } }))).toMatchObject({ code: 'page-unknown' });
  });

  it('is undecided again where nothing is left of a decision', () =>
    expect(siteAfter([decide({ letGo: 'gone' }), decide({ letGo: null })]).oldPages.size).toBe(0));
});
