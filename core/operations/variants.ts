import { z } from 'zod';
import { sketchIdSchema } from '../model/plan.ts';
import { refuse } from '../model/refusal.ts';
import {
  MAX_VARIANTS,
  MAX_VARIANT_NAME_LENGTH,
  type Sketch,
  type Variant,
  type VariantId,
  boxesSchema,
  variantIdSchema,
} from '../model/sketch.ts';
import type { Site } from '../model/site.ts';
import { type Applied, defineOperation } from './definition.ts';
import type { Operation } from './operation.ts';
import { checkSketch, sketches } from './sketches.ts';
import { fieldsBefore } from './things.ts';

const title = z.string().max(MAX_VARIANT_NAME_LENGTH, `at most ${MAX_VARIANT_NAME_LENGTH} characters`);

export const variantAddSchema = z.strictObject({
  name: z.literal('variant.add'),
  sketch: sketchIdSchema,
  variant: variantIdSchema,
  /** The variant that it follows; null puts it first, left out puts it last. */
  after: variantIdSchema.nullable().optional(),
  title,
  boxes: boxesSchema.optional(),
});

/** Adds a variant to a sketch. Whoever adds it makes its id, which no other variant of the sketch has. */
export const variantAdd = defineOperation({
  schema: variantAddSchema,

  apply(site, { sketch: id, variant, after, title: name, boxes = [] }) {
    const sketch = sketches.find(site, id);
    if (!sketch) return sketches.unknown(id);
    const { variants } = sketch;
    if (variants.length >= MAX_VARIANTS) return refuse('variant-too-many', { limit: MAX_VARIANTS });
    const before = after == null ? -1 : variants.findIndex((one) => one.id === after);
    const isLast = after === undefined || (after !== null && before === -1);
    const made: Variant = { id: variant, name: name.trim(), boxes };
    const next = { ...sketch, variants: variants.toSpliced(isLast ? variants.length : before + 1, 0, made) };
    return checkSketch(next) ?? become(site, sketch, next, [{ name: 'variant.remove', sketch: id, variant }]);
  },

  cells: ({ sketch, variant }) => [`variant:${sketch}/${variant}.there`],

  words: ({ sketch, title: name }, site) => `added the variant ‘${name}’ to the sketch ${sketches.named(site, sketch)}`,
});

export const variantSetSchema = z.strictObject({
  name: z.literal('variant.set'),
  sketch: sketchIdSchema,
  variant: variantIdSchema,
  fields: z.strictObject({ title, boxes: boxesSchema }).partial(),
});

/** Renames a variant of a sketch, or sets its boxes, all of them: `box.put` sets one. */
export const variantSet = defineOperation({
  schema: variantSetSchema,

  apply(site, { sketch: id, variant, fields: { title: name, boxes } }) {
    const sketch = sketches.find(site, id);
    if (!sketch) return sketches.unknown(id);
    const was = sketch.variants.find((one) => one.id === variant);
    if (!was) return refuse('variant-unknown', { variant });
    const made: Variant = { id: variant, name: name?.trim() ?? was.name, boxes: boxes ?? was.boxes };
    const before = fieldsBefore(was, made);
    if (Object.keys(before).length === 0) return { ok: true, site, inverse: [], touched: [] };
    const next = { ...sketch, variants: sketch.variants.map((one) => (one === was ? made : one)) };
    return (
      checkSketch(next) ??
      become(site, sketch, next, [{ name: 'variant.set', sketch: id, variant, fields: before } as Operation])
    );
  },

  cells: ({ sketch, variant, fields }) => Object.keys(fields).map((field) => `variant:${sketch}/${variant}.${field}`),

  words({ sketch, variant, fields: { title: name } }, site) {
    const of = `${namedVariant(site, sketch, variant)} of the sketch ${sketches.named(site, sketch)}`;
    return name === undefined ? `changed the boxes of ${of}` : `renamed ${of} to ‘${name}’`;
  },
});

export const variantRemoveSchema = z.strictObject({
  name: z.literal('variant.remove'),
  sketch: sketchIdSchema,
  variant: variantIdSchema,
});

/** Takes a variant away. Where it was the one that had been taken, the sketch is open again. */
export const variantRemove = defineOperation({
  schema: variantRemoveSchema,

  apply(site, { sketch: id, variant }) {
    const sketch = sketches.find(site, id);
    if (!sketch) return sketches.unknown(id);
    const { variants, taken } = sketch;
    const at = variants.findIndex((one) => one.id === variant);
    const was = variants[at];
    if (!was) return refuse('variant-unknown', { variant });
    return become(
      site,
      sketch,
      { ...sketch, variants: variants.toSpliced(at, 1), taken: taken === variant ? null : taken },
      [
        {
          name: 'variant.add',
          sketch: id,
          variant,
          after: variants[at - 1]?.id ?? null,
          title: was.name,
          boxes: [...was.boxes],
        },
        ...(taken === variant ? [{ name: 'sketch.set' as const, sketch: id, fields: { taken } }] : []),
      ],
    );
  },

  cells: ({ sketch, variant }) => [`variant:${sketch}/${variant}.there`],

  words: ({ sketch, variant }, site) =>
    `removed ${namedVariant(site, sketch, variant)} of the sketch ${sketches.named(site, sketch)}`,
});

const namedVariant = (site: Site, sketch: string, variant: VariantId): string =>
  `the variant ‘${sketches.find(site, sketch)?.variants.find(({ id }) => id === variant)?.name ?? 'that is not there'}’`;

const become = (site: Site, was: Sketch, next: Sketch, inverse: Operation[]): Applied => ({
  ok: true,
  site: { ...site, sketches: site.sketches.map((one) => (one === was ? next : one)) },
  inverse,
  touched: [],
});
