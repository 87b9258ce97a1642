import { goalsServed } from '#core/derive/plan-totals.ts';
import { STANDINGS } from '#core/derive/feedback-totals.ts';
import { variantOf } from '#core/derive/sketch-totals.ts';
import type { FilterField } from '#core/derive/filters.ts';
import { VERDICTS } from '#core/model/feedback.ts';
import { IMPORTANCE, ORIGINS, READINESS, openQuestions, planOf } from '#core/model/plan.ts';
import { STANDING_FILTER_WORDS, VERDICT_WORDS } from '../../tree/feedback-words.tsx';
import { ownersOf } from './plan-columns.tsx';
import { ORIGIN_WORDS, READINESS_WORDS, todayHere } from '../../tree/plan-words.tsx';

const planAt = ({ derived }: Parameters<FilterField['matches']>[0], row: number) => planOf(derived.outline.nodes[row]!);
const isPageAt = ({ derived }: Parameters<FilterField['matches']>[0], row: number) =>
  derived.outline.nodes[row]!.type === 'page';

/** What the Plan lens adds to the filters. */
export const PLAN_FILTERS: readonly FilterField[] = [
  {
    key: 'origin',
    name: 'Origin',
    kind: 'one-of',
    values: [...ORIGINS.map((value) => ({ value, words: ORIGIN_WORDS[value] })), { value: 'none', words: 'Not set' }],
    matches: (facts, row, value) => isPageAt(facts, row) && (planAt(facts, row).origin ?? 'none') === value,
  },
  {
    key: 'readiness',
    name: 'Readiness',
    kind: 'one-of',
    values: READINESS.map((value) => ({ value, words: READINESS_WORDS[value] })),
    matches: (facts, row, value) => isPageAt(facts, row) && planAt(facts, row).readiness === value,
  },
  {
    key: 'plan',
    name: 'In the plan',
    kind: 'one-of',
    values: [
      { value: 'late', words: 'Late' },
      { value: 'questions', words: 'With open questions' },
      { value: 'unowned', words: 'Without owner' },
      { value: 'undated', words: 'Without due date' },
      { value: 'no-goal', words: 'Serves no goal' },
      { value: 'old', words: 'Takes over old addresses' },
      { value: 'open-sketch', words: 'Sketch waits for a choice' },
      { value: 'unsketched', words: 'Without a sketch' },
    ],
    matches: (facts, row, value) => {
      const plan = planAt(facts, row);
      if (value === 'questions') return openQuestions(plan) > 0;
      if (!isPageAt(facts, row)) return false;
      switch (value) {
        case 'late':
          return plan.due !== null && plan.readiness !== 'ready' && plan.due < todayHere();
        case 'unowned':
          return plan.owner === '';
        case 'undated':
          return plan.due === null;
        case 'no-goal':
          return !plan.goals.some((goal) => facts.site.goals.some((one) => one.id === goal));
        case 'open-sketch':
          return variantOf(facts.site, facts.derived.outline.nodes[row]!) === undefined;
        case 'unsketched':
          return variantOf(facts.site, facts.derived.outline.nodes[row]!) === null;
        default:
          return plan.oldAddresses.length > 0;
      }
    },
  },
  {
    key: 'feedback',
    name: 'Feedback',
    kind: 'one-of',
    values: STANDINGS.map((value) => ({ value, words: STANDING_FILTER_WORDS[value] })),
    matches: ({ feedback }, row, value) => feedback?.standing[row] === value,
  },
  {
    key: 'verdict',
    name: 'Somebody said',
    kind: 'one-of',
    values: VERDICTS.map((value) => ({ value, words: VERDICT_WORDS[value] })),
    matches: ({ feedback }, row, value) =>
      (feedback?.verdicts[row * VERDICTS.length + VERDICTS.findIndex((one) => one === value)] ?? 0) > 0,
  },
  {
    key: 'importance',
    name: 'Importance',
    kind: 'one-of',
    values: [
      ...IMPORTANCE.map((one) => ({ value: String(one), words: String(one) })),
      { value: 'none', words: 'Not set' },
    ],
    matches: (facts, row, value) => isPageAt(facts, row) && String(planAt(facts, row).importance ?? 'none') === value,
  },
  {
    key: 'owner',
    name: 'Owner',
    kind: 'some',
    valuesOf: ({ site }) =>
      // A name may have a comma, which parts values in the address bar.
      ownersOf(site).map((owner) => ({ value: encodeURIComponent(owner), words: owner })),
    matches: (facts, row, value) => encodeURIComponent(planAt(facts, row).owner) === value,
  },
  {
    key: 'goal',
    name: 'Serves the goal',
    kind: 'some',
    valuesOf: ({ site, derived }) => {
      const served = goalsServed(site, derived.outline).pages;
      return site.goals.map(({ id, statement }) => ({ value: id, words: `${statement} (${served.get(id)})` }));
    },
    matches: (facts, row, value) => planAt(facts, row).goals.some((goal) => goal === value),
  },
];
