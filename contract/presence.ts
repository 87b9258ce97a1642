import { z } from 'zod';
import { pageIdSchema } from '#core/model/ids.ts';

const name = z.string().max(100).nullable().default(null);

/** What a browser tells of the page that somebody has selected: when that changes, and again and again. */
export const hereBody = z.strictObject({
  /** The tab, made up by the browser: it is told to all, and knows by this that it is itself. */
  tab: z.string().min(1).max(40),
  page: pageIdSchema.nullable(),
  /** The item of the settings that is open there and whose field is changed, as the address bar has it; null for the page's own. */
  setting: name,
  /** The field of it that is being changed there, by its label; null for none. */
  field: name,
});
export const hereAnswer = z.object({});

/** What the others are told; `isHere` is false once the tab is closed, or no longer seen. */
export const hereNews = z.object({
  tab: z.string(),
  by: z.string(),
  page: pageIdSchema.nullable(),
  setting: name,
  field: name,
  isHere: z.boolean(),
});
export type HereNews = z.infer<typeof hereNews>;

/** It is told so often, and forgotten where it was not for this long. */
export const HERE_EVERY_MS = 20_000;
export const HERE_FOR_MS = 50_000;
