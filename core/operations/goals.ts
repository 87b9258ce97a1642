import { z } from 'zod';
import { type Goal, type GoalId, goalIdSchema } from '../model/plan.ts';
import { refuse } from '../model/refusal.ts';
import type { Site } from '../model/site.ts';
import { type Applied, defineOperation } from './definition.ts';

export const MAX_STATEMENT_LENGTH = 300;
export const MAX_AUDIENCE_LENGTH = 200;
export const MAX_MEASURE_LENGTH = 300;

const statement = z.string().max(MAX_STATEMENT_LENGTH, `at most ${MAX_STATEMENT_LENGTH} characters`);
const audience = z.string().max(MAX_AUDIENCE_LENGTH, `at most ${MAX_AUDIENCE_LENGTH} characters`);
const measure = z.string().max(MAX_MEASURE_LENGTH, `at most ${MAX_MEASURE_LENGTH} characters`);

export const goalAddSchema = z.strictObject({
  name: z.literal('goal.add'),
  goal: goalIdSchema,
  /** The goal that it follows; null puts it first, left out puts it last. */
  after: goalIdSchema.nullable().optional(),
  statement,
  audience: audience.optional(),
  measure: measure.optional(),
});

/** Adds a goal of the site. Whoever adds it makes the id. */
export const goalAdd = defineOperation({
  schema: goalAddSchema,

  apply(site, { goal, after, ...given }) {
    if (site.goals.some((one) => one.id === goal)) return refuse('goal-exists', { goal });
    const made: Goal = {
      id: goal,
      statement: given.statement.trim(),
      audience: (given.audience ?? '').trim(),
      measure: (given.measure ?? '').trim(),
    };
    if (made.statement === '') return refuse('goal-empty', { goal });
    const goals = [...site.goals];
    const before = after === undefined ? -1 : goals.findIndex((one) => one.id === after);
    goals.splice(after === undefined || (after !== null && before === -1) ? goals.length : before + 1, 0, made);
    return withGoals(site, goals, { name: 'goal.remove', goal });
  },

  cells: ({ goal }) => [`goal:${goal}.there`],

  words: ({ statement: text }) => `added the goal ‘${text}’`,
});

export const goalSetSchema = z.strictObject({
  name: z.literal('goal.set'),
  goal: goalIdSchema,
  fields: z.strictObject({ statement, audience, measure }).partial(),
});

/** Sets fields of a goal; those left out stay as they are. */
export const goalSet = defineOperation({
  schema: goalSetSchema,

  apply(site, { goal, fields }) {
    const was = site.goals.find((one) => one.id === goal);
    if (!was) return refuse('goal-unknown', { goal });
    const next = { ...was };
    const before: typeof fields = {};
    for (const field of ['statement', 'audience', 'measure'] as const) {
      const text = fields[field]?.trim();
      if (text === undefined || text === was[field]) continue;
      next[field] = text;
      before[field] = was[field];
    }
    if (next.statement === '') return refuse('goal-empty', { goal });
    if (Object.keys(before).length === 0) return { ok: true, site, inverse: [], touched: [] };
    const goals = site.goals.map((one) => (one === was ? next : one));
    return withGoals(site, goals, { name: 'goal.set', goal, fields: before });
  },

  cells: ({ goal, fields }) => Object.keys(fields).map((field) => `goal:${goal}.${field}`),

  words: ({ goal, fields }, site) =>
    fields.statement === undefined
      ? `changed the goal ${named(site, goal)}`
      : `changed the goal ${named(site, goal)} to ‘${fields.statement}’`,
});

export const goalRemoveSchema = z.strictObject({ name: z.literal('goal.remove'), goal: goalIdSchema });

/** Takes a goal away. Pages that serve it keep saying so, and serve it again if it comes back. */
export const goalRemove = defineOperation({
  schema: goalRemoveSchema,

  apply(site, { goal }) {
    const at = site.goals.findIndex((one) => one.id === goal);
    if (at === -1) return refuse('goal-unknown', { goal });
    const { id, ...given } = site.goals[at]!;
    return withGoals(site, site.goals.toSpliced(at, 1), {
      name: 'goal.add',
      goal: id,
      after: site.goals[at - 1]?.id ?? null,
      ...given,
    });
  },

  cells: ({ goal }) => [`goal:${goal}.there`],

  words: ({ goal }, site) => `removed the goal ${named(site, goal)}`,
});

const withGoals = (site: Site, goals: readonly Goal[], inverse: Applied['inverse'][number]): Applied => ({
  ok: true,
  site: { ...site, goals },
  inverse: [inverse],
  touched: [],
});

const named = (site: Site, goal: GoalId): string =>
  `‘${site.goals.find((one) => one.id === goal)?.statement ?? 'that is not there'}’`;
