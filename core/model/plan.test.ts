import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { toPageId } from './ids.ts';
import {
  type GoalId,
  IMPORTANCE,
  NO_PLAN,
  ORIGINS,
  type PlanChange,
  READINESS,
  fromKeptPlan,
  keptPlanSchema,
  openQuestions,
  planChange,
  planChangeSchema,
  toKeptPlan,
  withPlan,
} from './plan.ts';

const question = fc.record({
  text: fc.constantFrom('Why?', 'When?'),
  by: fc.constantFrom('Ines', 'Marek'),
  at: fc.constantFrom('2026-11-25T09:00:00Z', '2026-11-26T09:00:00Z'),
  answer: fc.constantFrom('', 'Soon.'),
  settledBy: fc.constantFrom(null, 'Ines'),
});
const change: fc.Arbitrary<PlanChange> = fc.record(
  {
    origin: fc.constantFrom(...ORIGINS, null),
    purpose: fc.constantFrom('', 'For families.'),
    owner: fc.constantFrom('', 'Bram'),
    due: fc.constantFrom(null, '2027-03-01'),
    readiness: fc.constantFrom(...READINESS),
    importance: fc.constantFrom(...IMPORTANCE, null),
    words: fc.constantFrom(null, 0, 250),
    goals: fc.uniqueArray(fc.constantFrom(...(['g1', 'g2'] as GoalId[]))),
    oldAddresses: fc.uniqueArray(fc.constantFrom('/a', '/b', '/c')),
    references: fc.uniqueArray(fc.constantFrom(toPageId('p1'), toPageId('p2'))),
    questions: fc.dictionary(fc.constantFrom('q1', 'q2', 'q3'), fc.option(question, { nil: null }), { maxKeys: 3 }),
  },
  { requiredKeys: [] },
);
const plan = fc.array(change, { maxLength: 4 }).map((changes) => changes.reduce(withPlan, null));

describe('a plan', () => {
  it('is given back by the change between two plans, in either direction', () => {
    holds(
      fc.property(plan, plan, (before, after) => {
        expect(withPlan(after, planChange(after, before))).toEqual(before);
        expect(withPlan(before, planChange(before, after))).toEqual(after);
      }),
      { numRuns: 150 },
    );
  });

  it('stays the same object where nothing changes, and is null where nothing is planned', () => {
    holds(
      fc.property(plan, (one) => {
        expect(withPlan(one, {})).toBe(one);
        expect(withPlan(one, planChange(one, one))).toBe(one);
        expect(withPlan(one, planChange(one, null))).toBeNull();
      }),
    );
  });

  it('is kept in short, through JSON and its schema, and read back the same', () => {
    holds(
      fc.property(plan, (one) => {
        if (one === null) return;
        const kept = keptPlanSchema.parse(JSON.parse(JSON.stringify(toKeptPlan(one))));
        expect(fromKeptPlan(kept)).toEqual(one);
        for (const [field, value] of Object.entries(kept))
          expect(value).not.toEqual(NO_PLAN[field as keyof typeof NO_PLAN]);
      }),
      { numRuns: 100 },
    );
  });

  it('has its questions in the order in which they were asked, whatever the order of the changes', () => {
    const at = (day: number) => ({
      text: 'Why?',
      by: 'Ines',
      at: `2026-11-${day}T09:00:00Z`,
      answer: '',
      settledBy: null,
    });
    const one = withPlan(withPlan(null, { questions: { late: at(27) } }), {
      questions: { early: at(25), middle: at(26) },
    });
    expect(Object.keys(one!.questions)).toEqual(['early', 'middle', 'late']);
    expect(openQuestions(one!)).toBe(3);
    const settled = withPlan(one, { questions: { late: { ...at(27), settledBy: 'Marek' }, early: null } });
    expect(openQuestions(settled!)).toBe(1);
  });

  it.each([
    [{ due: '1 March' }],
    [{ due: '2027-02-30' }],
    [{ importance: 4 }],
    [{ words: -1 }],
    [{ words: 1.5 }],
    [{ origin: 'copied' }],
    [{ readiness: 'done' }],
    [{ oldAddresses: ['with space'] }],
    [{ oldAddresses: [''] }],
    [{ mood: 'sunny' }],
    [{ questions: { q1: { text: '', by: '', at: 'now', answer: '', settledBy: null } } }],
  ])('cannot have %j', (wrong) => expect(planChangeSchema.safeParse(wrong).success).toBe(false));
});
