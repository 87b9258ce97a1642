import { isSameJson } from './canonical-json.ts';
import { z } from 'zod';
import { type ContentId, type PageId, contentIdSchema, pageIdSchema } from './ids.ts';

/** Where a page of the plan comes from: see the words of the product. */
export const ORIGINS = ['new', 'keep', 'rework', 'split', 'gather'] as const;
export type Origin = (typeof ORIGINS)[number];

/** How far the content of a page is, in the order in which it goes. */
export const READINESS = ['not-started', 'drafting', 'in-review', 'ready'] as const;
export type Readiness = (typeof READINESS)[number];

/** How much a page matters for being found quickly: 1 the most. */
export const IMPORTANCE = [1, 2, 3] as const;
export type Importance = (typeof IMPORTANCE)[number];

export const goalIdSchema = z
  .string()
  .regex(/^[0-9A-Za-z]{1,24}$/, 'a goal id is 1 to 24 letters and digits')
  .brand<'GoalId'>();
export type GoalId = z.infer<typeof goalIdSchema>;

export const sketchIdSchema = z
  .string()
  .regex(/^[0-9A-Za-z]{1,24}$/, 'the id of a sketch is 1 to 24 letters and digits')
  .brand<'SketchId'>();
export type SketchId = z.infer<typeof sketchIdSchema>;

/** What the site is for: a short statement, for whom, and how one will know. */
export interface Goal {
  readonly id: GoalId;
  readonly statement: string;
  readonly audience: string;
  readonly measure: string;
}

export const questionIdSchema = z.string().regex(/^[0-9A-Za-z]{1,24}$/, 'a question id is 1 to 24 letters and digits');

/** A question about a page. It is open until it is settled, with an answer or without. */
export interface Question {
  readonly text: string;
  readonly by: string;
  /** When it was asked, ISO 8601. */
  readonly at: string;
  readonly answer: string;
  /** Who settled it, or null while it is open. */
  readonly settledBy: string | null;
}

/** What is planned for a page. Never changed in place. */
export interface PagePlan {
  readonly origin: Origin | null;
  readonly purpose: string;
  /** Who writes it: a name. */
  readonly owner: string;
  /** The day by which it is to be ready, `2027-03-01`, or null. */
  readonly due: string | null;
  readonly readiness: Readiness;
  readonly importance: Importance | null;
  /** How many words it will have. */
  readonly words: number | null;
  readonly goals: readonly GoalId[];
  /** The addresses of the old site that it takes the place of. */
  readonly oldAddresses: readonly string[];
  /** Pages that whoever writes it should look at. */
  readonly references: readonly PageId[];
  readonly notes: ContentId | null;
  /** The sketch of what it will contain; null for that of its kind, if there is one. */
  readonly sketch: SketchId | null;
  readonly questions: Readonly<Record<string, Question>>;
}

export const NO_PLAN: PagePlan = Object.freeze({
  origin: null,
  purpose: '',
  owner: '',
  due: null,
  readiness: 'not-started',
  importance: null,
  words: null,
  goals: [],
  oldAddresses: [],
  references: [],
  notes: null,
  sketch: null,
  questions: {},
});
export const PLAN_FIELDS = Object.keys(NO_PLAN) as readonly (keyof PagePlan)[];

export const MAX_PURPOSE_LENGTH = 2000;
export const MAX_OWNER_LENGTH = 100;
export const MAX_WORDS = 1_000_000;
export const MAX_OLD_ADDRESS_LENGTH = 2000;
export const MAX_OLD_ADDRESSES = 500;

export const oldAddressSchema = z
  .string()
  .min(1, 'an old address is not empty')
  .max(MAX_OLD_ADDRESS_LENGTH, `at most ${MAX_OLD_ADDRESS_LENGTH} characters`)
  .regex(/^\S+$/, 'an address has no spaces');

export const questionSchema = z.strictObject({
  text: z.string().min(1).max(2000),
  by: z.string().max(100),
  at: z.iso.datetime(),
  answer: z.string().max(4000),
  settledBy: z.string().max(100).nullable(),
});

const fieldSchemas = {
  origin: z.enum(ORIGINS).nullable(),
  purpose: z.string().max(MAX_PURPOSE_LENGTH, `at most ${MAX_PURPOSE_LENGTH} characters`),
  owner: z.string().max(MAX_OWNER_LENGTH, `at most ${MAX_OWNER_LENGTH} characters`),
  due: z.iso.date('a day such as 2027-03-01').nullable(),
  readiness: z.enum(READINESS),
  importance: z.literal(IMPORTANCE).nullable(),
  words: z.int().min(0, 'no less than 0').max(MAX_WORDS, `at most ${MAX_WORDS}`).nullable(),
  goals: z.array(goalIdSchema).max(100),
  oldAddresses: z.array(oldAddressSchema).max(MAX_OLD_ADDRESSES),
  references: z.array(pageIdSchema).max(200),
  notes: contentIdSchema.nullable(),
  sketch: sketchIdSchema.nullable(),
};

/** A change of a plan: what is left out stays. Questions are changed one by one; `null` takes one away. */
export const planChangeSchema = z
  .strictObject({ ...fieldSchemas, questions: z.record(questionIdSchema, questionSchema.nullable()) })
  .partial();
export type PlanChange = z.infer<typeof planChangeSchema>;

/** A plan as it is kept and sent: without the fields that are as in `NO_PLAN`. */
export const keptPlanSchema = z
  .strictObject({ ...fieldSchemas, questions: z.record(questionIdSchema, questionSchema) })
  .partial();
export type KeptPlan = z.infer<typeof keptPlanSchema>;

/** The plan of a node; `NO_PLAN` where nothing is planned. */
export const planOf = (node: { readonly plan: PagePlan | null }): PagePlan => node.plan ?? NO_PLAN;

/** How many questions wait for an answer. */
export function openQuestions(plan: PagePlan): number {
  let count = 0;
  for (const id in plan.questions) if (plan.questions[id]!.settledBy === null) count++;
  return count;
}

/**
 * The plan with the changes made; null where nothing is planned any more. Spaces around texts are taken away, and
 * lists name each thing once. Where nothing changes the same object comes back.
 */
export function withPlan(plan: PagePlan | null, change: PlanChange): PagePlan | null {
  const before = plan ?? NO_PLAN;
  const given: Partial<Record<keyof PagePlan, unknown>> = {
    ...change,
    ...(change.purpose !== undefined && { purpose: change.purpose.trim() }),
    ...(change.owner !== undefined && { owner: change.owner.replace(/\s+/g, ' ').trim() }),
    ...(change.questions && { questions: withQuestions(before.questions, change.questions) }),
  };
  for (const field of ['goals', 'oldAddresses', 'references'] as const)
    if (change[field]) given[field] = [...new Set<string>(change[field])];
  const changed = PLAN_FIELDS.filter((field) => given[field] !== undefined && !isSameJson(before[field], given[field]));
  if (changed.length === 0) return plan;
  const next: Record<string, unknown> = {};
  for (const field of PLAN_FIELDS) next[field] = changed.includes(field) ? given[field] : before[field];
  const made = next as unknown as PagePlan;
  return PLAN_FIELDS.every((field) => isSameJson(made[field], NO_PLAN[field])) ? null : made;
}

/** The change that makes `before` of `after`, for the fields that differ. */
export function planChange(after: PagePlan | null, before: PagePlan | null): PlanChange {
  const from = after ?? NO_PLAN;
  const to = before ?? NO_PLAN;
  const change: Record<string, unknown> = {};
  for (const field of PLAN_FIELDS) if (!isSameJson(from[field], to[field])) change[field] = to[field];
  if (change.questions) {
    const ids = new Set([...Object.keys(from.questions), ...Object.keys(to.questions)]);
    change.questions = Object.fromEntries(
      [...ids]
        .filter((id) => !isSameJson(from.questions[id], to.questions[id]))
        .map((id) => [id, to.questions[id] ?? null]),
    );
  }
  return change as PlanChange;
}

/** The plan without the fields that are as in `NO_PLAN`; `fromKeptPlan` gives back the same. */
export function toKeptPlan(plan: PagePlan): KeptPlan {
  const kept: Record<string, unknown> = {};
  for (const field of PLAN_FIELDS) if (!isSameJson(plan[field], NO_PLAN[field])) kept[field] = plan[field];
  return kept as KeptPlan;
}

export const fromKeptPlan = (kept: KeptPlan | null): PagePlan | null =>
  kept === null ? null : withPlan(null, kept as PlanChange);

export const samePlan = (a: PagePlan | null, b: PagePlan | null): boolean =>
  a === b || (a !== null && b !== null && PLAN_FIELDS.every((field) => isSameJson(a[field], b[field])));

function withQuestions(
  questions: PagePlan['questions'],
  changes: Readonly<Record<string, Question | null>>,
): PagePlan['questions'] {
  const all = Object.entries({ ...questions, ...changes }).filter((entry): entry is [string, Question] => !!entry[1]);
  all.sort(([a, one], [b, other]) => compare(one.at, other.at) || compare(a, b));
  return Object.fromEntries(all);
}

const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
