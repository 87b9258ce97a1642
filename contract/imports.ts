import { z } from 'zod';
import { pageIdSchema } from '#core/model/ids.ts';
import { IMPORT_KINDS } from '#core/imports/import-plan.ts';

/** The forms in which a tree can be brought; `auto` is told by the name of the file and by what it says. */
export const IMPORT_FORMATS = ['auto', 'csv', 'opml', 'list', 'sitemap', 'json'] as const;

export const importBody = z.strictObject({
  name: z.string().max(300).default(''),
  format: z.enum(IMPORT_FORMATS).default('auto'),
  /** The bytes of a file in base 64, or its text. */
  bytes: z.base64().max(35_000_000).optional(),
  text: z.string().max(10_000_000).optional(),
  /** False: only what would change is told. */
  apply: z.boolean(),
  /** The items to take, by their keys; all where it is left out. Pages are only removed where they are named. */
  chosen: z.array(z.string().max(2100)).max(20_000).optional(),
  request: z
    .string()
    .regex(/^[0-9A-Za-z_-]{8,40}$/)
    .optional(),
});
export type ImportBody = z.output<typeof importBody>;

const lineFault = z.object({ line: z.number().int(), detail: z.string() });
export const importAnswer = z.object({
  format: z.enum(IMPORT_FORMATS),
  /** How many pages the file has. */
  pages: z.number().int(),
  items: z.array(
    z.object({
      key: z.string(),
      kind: z.enum(IMPORT_KINDS),
      page: pageIdSchema.nullable(),
      title: z.string(),
      fields: z.array(z.string()),
      line: z.number().int().nullable(),
    }),
  ),
  /** What of the file was left out, and why. */
  notes: z.array(lineFault),
  /** How many operations were applied, as one step that can be undone; null where nothing was to be applied. */
  applied: z.number().int().nullable(),
  revision: z.number().int(),
});
export type ImportAnswer = z.infer<typeof importAnswer>;
