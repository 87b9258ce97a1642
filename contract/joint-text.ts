import { z } from 'zod';
import { textPlaceSchema } from '#core/model/text-place.ts';

/** The part of the shared document that is the text. */
export const JOINT_FRAGMENT = 'text';

/** How the request begins of an edit that gives a page, or another place of a text, what is written there. */
export const JOINT_REQUEST = 'text ';

/** The largest update that is sent at once, in characters of Base64: a pasted text of the greatest length, and its markup. */
const MAX_UPDATE_LENGTH = 1_500_000;
/** In bytes. */
export const LARGEST_JOINT_BODY = MAX_UPDATE_LENGTH + 5_000;

/** Where somebody's cursor stands in a text that several write, as places in the shared document that move along with it. */
const caretSchema = z.strictObject({ anchor: z.string().max(500), head: z.string().max(500) });
export type Caret = z.infer<typeof caretSchema>;

/** What a browser has written in a text since it last said so, and how much of the others' it has. */
export const jointBody = z.strictObject({
  /** The tab, made up by the browser: what is told to all is told with it, and knows by this that it is itself. */
  tab: z.string().min(1).max(40),
  /** The text that the shared document began from, as it was told; null from who has none of it yet. */
  base: z.string().max(40).nullable(),
  /** The number of the last update that the browser has. */
  after: z.int().min(0),
  /** An update of the shared document, as Yjs writes it, in Base64. */
  update: z.base64().min(1).max(MAX_UPDATE_LENGTH).nullable(),
  caret: caretSchema.nullable(),
  /** Whether the answer is to wait until its place has all of it. */
  save: z.boolean(),
});
export type JointBody = z.infer<typeof jointBody>;

export const jointAnswer = z.object({
  base: z.string(),
  /** The number of the last update there is, and of the last one that its place in the site has. */
  seq: z.int(),
  savedSeq: z.int(),
  /** The revision of the site that gave it that. */
  savedRevision: z.int(),
  /** What the browser lacks, in Base64; null for nothing. */
  update: z.string().nullable(),
  /** Why the site does not take what is written, in words; null where it does. */
  problem: z.string().nullable(),
});
export type JointAnswer = z.infer<typeof jointAnswer>;

/** What everybody is told: that something was written in a text, where, or that it is saved now. */
export const jointNews = z.object({
  text: textPlaceSchema,
  tab: z.string(),
  by: z.string(),
  seq: z.int(),
  savedSeq: z.int(),
  caret: caretSchema.nullable(),
});
export type JointNews = z.infer<typeof jointNews>;

/** A cursor is told so often, and forgotten where it was not for this long. */
export const CARET_EVERY_MS = 15_000;
export const CARET_FOR_MS = 40_000;
