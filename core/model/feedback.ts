import { z } from 'zod';
import { type PageId, pageIdSchema } from './ids.ts';
import { sketchIdSchema } from './plan.ts';
import { boardIdSchema, pieceIdSchema } from './board.ts';
import { boxIdSchema, variantIdSchema } from './sketch.ts';
import { MAX_TITLE_LENGTH } from './page-fields.ts';
import { SIDES } from './place.ts';

/** What somebody whom a plan was shared with says of a page: it is right, it should be otherwise, or they cannot tell. */
export const VERDICTS = ['agreed', 'change', 'unsure'] as const;
export type Verdict = (typeof VERDICTS)[number];

export const COMMENT_KINDS = ['comment', 'question', 'proposal'] as const;
export type CommentKind = (typeof COMMENT_KINDS)[number];

/**
 * What is proposed for a page: another title, in the language of the site, or another place, seen from a page (`near`; null
 * for the end of the top level), or both.
 */
export const proposesSchema = z
  .strictObject({
    title: z
      .string()
      .trim()
      .min(1, 'Type the title that you propose.')
      .max(MAX_TITLE_LENGTH, `At most ${MAX_TITLE_LENGTH} characters.`)
      .optional(),
    place: z.strictObject({ near: pageIdSchema.nullable(), side: z.enum(SIDES) }).optional(),
  })
  .refine(({ title, place }) => title !== undefined || place !== undefined, 'Propose a title, a place, or both.');
export type Proposes = z.infer<typeof proposesSchema>;

/** What of a page's sketch a comment is about: a variant, or one box of it. */
export const aboutSketchSchema = z.strictObject({
  sketch: sketchIdSchema,
  variant: variantIdSchema,
  box: boxIdSchema.nullable(),
});
export type AboutSketch = Readonly<z.infer<typeof aboutSketchSchema>>;

/** The board that a comment is about, or one piece of it. Such a comment is about no page. */
export const aboutBoardSchema = z.strictObject({ board: boardIdSchema, piece: pieceIdSchema.nullable() });
export type AboutBoard = Readonly<z.infer<typeof aboutBoardSchema>>;

export const MAX_COMMENT_LENGTH = 4000;
export const MAX_GUEST_NAME_LENGTH = 80;

/** What people have said of the pages of a plan, as far as counting needs it. */
export interface Feedback {
  readonly verdicts: readonly { readonly page: PageId; readonly verdict: Verdict; readonly isSettled: boolean }[];
  /** Those about a board name no page. */
  readonly comments: readonly { readonly page: PageId | null; readonly isSettled: boolean }[];
}
