import { z } from 'zod';
import { ANSWER_STATES, MAX_ANSWER_NOTE_LENGTH, saidSchema } from '#core/forms/answer.ts';
import { pageIdSchema } from '#core/model/ids.ts';
import { formIdSchema } from '#core/model/site-form.ts';

const state = z.enum(ANSWER_STATES);

/** An answer as lists have it. */
export const listedAnswer = z.object({
  id: z.uuid(),
  form: formIdSchema,
  /** What the form was called when it was sent. */
  formName: z.string(),
  sentAt: z.iso.datetime(),
  /** Its first words. */
  words: z.string(),
  state,
  hasNote: z.boolean(),
});
export type ListedAnswer = z.infer<typeof listedAnswer>;

export const answersAnswer = z.object({
  /** Newest first. */
  answers: z.array(listedAnswer),
  /** Whether there are older ones: ask for those before the last. */
  hasMore: z.boolean(),
  /** How many there are to each form; those to forms that are gone are among them. */
  totals: z.array(z.object({ form: formIdSchema, name: z.string(), count: z.int().min(0), fresh: z.int().min(0) })),
});
export type AnswersAnswer = z.infer<typeof answersAnswer>;

export const wholeAnswer = listedAnswer.extend({
  /** The page that it was sent from; null where it is not known. */
  page: pageIdSchema.nullable(),
  pageTitle: z.string(),
  /** Whoever was signed in, by name. */
  visitorName: z.string().nullable(),
  said: z.array(saidSchema),
  note: z.string(),
});
export type WholeAnswer = z.infer<typeof wholeAnswer>;

export const setAnswerBody = z.strictObject({ state, note: z.string().max(MAX_ANSWER_NOTE_LENGTH) }).partial();
