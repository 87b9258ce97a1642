import { z } from 'zod';
import { contentIdSchema } from './ids.ts';

export const sharedIdSchema = z
  .string()
  .regex(/^[0-9A-Za-z]{1,24}$/, 'the id of a shared section is 1 to 24 letters and digits')
  .brand<'SharedId'>();
export type SharedId = z.infer<typeof sharedIdSchema>;

export const MAX_SHARED_NAME_LENGTH = 60;
export const MAX_SHARED = 200;

export const sharedSectionSchema = z.strictObject({
  id: sharedIdSchema,
  name: z.string().min(1).max(MAX_SHARED_NAME_LENGTH),
  /** What it says; null for nothing. */
  content: contentIdSchema.nullable(),
});
/** A text that is kept once and shown on many pages. */
export type SharedSection = Readonly<z.infer<typeof sharedSectionSchema>>;
