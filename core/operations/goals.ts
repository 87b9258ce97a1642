import { z } from 'zod';
import { type Goal, goalIdSchema } from '../model/plan.ts';
import { type Refusal, refuse } from '../model/refusal.ts';
import { defineOperation } from './definition.ts';
import { Things, allBut, fieldsBefore } from './things.ts';

export const MAX_STATEMENT_LENGTH = 300;
export const MAX_AUDIENCE_LENGTH = 200;
export const MAX_MEASURE_LENGTH = 300;

const statement = z.string().max(MAX_STATEMENT_LENGTH, `at most ${MAX_STATEMENT_LENGTH} characters`);
const audience = z.string().max(MAX_AUDIENCE_LENGTH, `at most ${MAX_AUDIENCE_LENGTH} characters`);
const measure = z.string().max(MAX_MEASURE_LENGTH, `at most ${MAX_MEASURE_LENGTH} characters`);

const goals = new Things<Goal>({
  kind: 'goal',
  listIn: (site) => site.goals,
  withList: (site, list) => ({ ...site, goals: list }),
  nameOf: (goal) => goal.statement,
});
const checkGoal = ({ id, statement: text }: Goal): Refusal | null =>
  text === '' ? refuse('goal-empty', { goal: id }) : null;

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
    const made: Goal = {
      id: goal,
      statement: given.statement.trim(),
      audience: (given.audience ?? '').trim(),
      measure: (given.measure ?? '').trim(),
    };
    return goals.checkNew(site, goal) ?? checkGoal(made) ?? goals.add(site, made, after);
  },

  cells: ({ goal }) => goals.cellOfThere(goal),

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
    const was = goals.find(site, goal);
    if (!was) return goals.unknown(goal);
    const next: Goal = {
      id: goal,
      statement: fields.statement?.trim() ?? was.statement,
      audience: fields.audience?.trim() ?? was.audience,
      measure: fields.measure?.trim() ?? was.measure,
    };
    return checkGoal(next) ?? goals.set(site, was, next, fieldsBefore(was, next));
  },

  cells: ({ goal, fields }) => goals.cellsOfFields(goal, fields),

  words: ({ goal, fields }, site) =>
    fields.statement === undefined
      ? `changed the goal ${goals.named(site, goal)}`
      : `changed the goal ${goals.named(site, goal)} to ‘${fields.statement}’`,
});

export const goalRemoveSchema = z.strictObject({ name: z.literal('goal.remove'), goal: goalIdSchema });

/** Takes a goal away. Pages that serve it keep saying so, and serve it again if it comes back. */
export const goalRemove = defineOperation({
  schema: goalRemoveSchema,

  apply(site, { goal }) {
    const was = goals.find(site, goal);
    if (!was) return goals.unknown(goal);
    return goals.remove(site, was, allBut(was, 'id'));
  },

  cells: ({ goal }) => goals.cellOfThere(goal),

  words: ({ goal }, site) => `removed the goal ${goals.named(site, goal)}`,
});
