import { z } from 'zod';
import { type LabelId, labelIdSchema } from './access.ts';
import { kindAmong } from './page-label.ts';
import type { SiteNode } from './node.ts';
import { ruleOf } from './access.ts';
import { planOf, sketchIdSchema } from './plan.ts';
import type { Site } from './site.ts';

const idSchema = (of: string) =>
  z.string().regex(/^[0-9A-Za-z]{1,24}$/, `the id of a ${of} is 1 to 24 letters and digits`);
export const variantIdSchema = idSchema('variant').brand<'VariantId'>();
export type VariantId = z.infer<typeof variantIdSchema>;
export const boxIdSchema = idSchema('box').brand<'BoxId'>();
export type BoxId = z.infer<typeof boxIdSchema>;

/** What a box can stand for: text, or a type of section of that name. */
export const BOX_TYPES = [
  'text',
  'picture',
  'gallery',
  'button',
  'note',
  'band',
  'fold',
  'table',
  'pageList',
  'pageFields',
  'quotation',
  'download',
  'film',
  'sound',
  'form',
] as const;
export type BoxType = (typeof BOX_TYPES)[number];

/** How much of the width of the text a box takes; on a telephone all of it. */
export const BOX_WIDTHS = ['whole', 'half', 'third'] as const;
export type BoxWidth = (typeof BOX_WIDTHS)[number];

export const MAX_SKETCHES = 200;
export const MAX_SKETCH_NAME_LENGTH = 80;
export const MAX_VARIANTS = 6;
export const MAX_VARIANT_NAME_LENGTH = 40;
export const MAX_BOXES = 60;
export const MAX_BOX_PURPOSE_LENGTH = 300;
export const MAX_BOX_WORDS = 5000;

export const boxSchema = z.strictObject({
  id: boxIdSchema,
  type: z.enum(BOX_TYPES),
  /** What it is for, which whoever writes it reads in its place. */
  purpose: z.string().trim().max(MAX_BOX_PURPOSE_LENGTH, `at most ${MAX_BOX_PURPOSE_LENGTH} characters`),
  /** About how many words it will have; null where nobody has said. */
  words: z.int().min(1).max(MAX_BOX_WORDS, `at most ${MAX_BOX_WORDS}`).nullable(),
  width: z.enum(BOX_WIDTHS),
});
/** A section that a page is to have, before it is written. */
export type Box = Readonly<z.infer<typeof boxSchema>>;
export const boxesSchema = z.array(boxSchema).max(MAX_BOXES, `at most ${MAX_BOXES} boxes`);

export const variantSchema = z.strictObject({
  id: variantIdSchema,
  name: z.string().min(1).max(MAX_VARIANT_NAME_LENGTH),
  /** From the top of the page down. */
  boxes: boxesSchema,
});
/** One way in which a page could be made up. */
export type Variant = Readonly<z.infer<typeof variantSchema>>;

export const sketchSchema = z.strictObject({
  id: sketchIdSchema,
  name: z.string().min(1).max(MAX_SKETCH_NAME_LENGTH),
  /** Whose pages have it, unless they name another one. */
  kinds: z.array(labelIdSchema).max(100),
  variants: z.array(variantSchema).max(MAX_VARIANTS),
  /** The variant that the pages are made by; null while that is open. */
  taken: variantIdSchema.nullable(),
});
/** What one page or several will contain, in several variants until one is taken. It is a part of the plan and never goes live. */
export type Sketch = Readonly<z.infer<typeof sketchSchema>>;

/** The sketch of a page: the one that it names, else the first one for its kind; null for none, and for headings and links. */
export function sketchOf({ sketches, settings }: Site, node: SiteNode): Sketch | null {
  if (sketches.length === 0 || node.type !== 'page') return null;
  const named = planOf(node).sketch;
  if (named !== null) {
    const own = sketches.find(({ id }) => id === named);
    if (own) return own;
  }
  const kind: LabelId | undefined = kindAmong(ruleOf(node).labels, settings.labels)?.id;
  return (kind !== undefined && sketches.find(({ kinds }) => kinds.includes(kind))) || null;
}

/** The variant that holds: the one that was taken, else the only one; null while there are several, or none. */
export const variantThatHolds = ({ variants, taken }: Sketch): Variant | null =>
  variants.find(({ id }) => id === taken) ?? (variants.length === 1 ? variants[0]! : null);
