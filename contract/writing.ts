import { z } from 'zod';
import { pageIdSchema } from '#core/model/ids.ts';

/** What a browser tells while somebody writes in a text, again and again, and once when they leave it. */
export const writingBody = z.strictObject({
  page: pageIdSchema,
  /** The tab in which it is written, made up by the browser: it is told to all, and knows by this that it is itself. */
  tab: z.string().min(1).max(40),
  isWriting: z.boolean(),
});
export type WritingBody = z.infer<typeof writingBody>;
export const writingAnswer = z.object({});

/** What the others are told. */
export const writingNews = z.object({ page: pageIdSchema, tab: z.string(), isWriting: z.boolean(), by: z.string() });
export type WritingNews = z.infer<typeof writingNews>;

/** It is told so often, and forgotten where it was not for this long. */
export const TOLD_EVERY_MS = 8_000;
export const FORGOTTEN_AFTER_MS = 20_000;
