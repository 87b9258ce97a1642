import { z } from 'zod';
import { pageIdSchema } from './ids.ts';

/** Where an old address that no page takes over leads: to a page, or nowhere (`gone`). */
export const letGoSchema = z.union([z.strictObject({ page: pageIdSchema }), z.literal('gone')]);
export type LetGo = z.infer<typeof letGoSchema>;

export const oldPageDecisionSchema = z.strictObject({
  /** Set where the old page is let go. */
  letGo: letGoSchema.nullable(),
  /** Pages that it was said not to belong to: they are not proposed again. */
  declined: z.array(pageIdSchema).max(200),
});
/** What a person has decided about an address of the old site. */
export type OldPageDecision = Readonly<z.infer<typeof oldPageDecisionSchema>>;

export const UNDECIDED: OldPageDecision = Object.freeze({ letGo: null, declined: [] });
