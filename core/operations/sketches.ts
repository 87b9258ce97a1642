import { z } from 'zod';
import { labelIdSchema } from '../model/access.ts';
import { sketchIdSchema } from '../model/plan.ts';
import { type Refusal, refuse } from '../model/refusal.ts';
import {
  MAX_SKETCHES,
  MAX_SKETCH_NAME_LENGTH,
  MAX_VARIANTS,
  type Sketch,
  variantIdSchema,
  variantSchema,
} from '../model/sketch.ts';
import { defineOperation } from './definition.ts';
import { Things, allBut, fieldsBefore } from './things.ts';

const title = z.string().max(MAX_SKETCH_NAME_LENGTH, `at most ${MAX_SKETCH_NAME_LENGTH} characters`);
const kinds = z.array(labelIdSchema).max(100);
const variants = z.array(variantSchema).max(MAX_VARIANTS, `at most ${MAX_VARIANTS} variants`);
const taken = variantIdSchema.nullable();

export const sketches = new Things<Sketch>({
  kind: 'sketch',
  listIn: (site) => site.sketches,
  withList: (site, list) => ({ ...site, sketches: list }),
  nameOf: ({ name }) => name,
  limit: { most: MAX_SKETCHES, code: 'sketch-too-many' },
});

/** What is wrong with a sketch, or null. */
export function checkSketch({ id, name, variants: all, taken: chosen }: Sketch): Refusal | null {
  if (name === '') return refuse('sketch-unnamed', { sketch: id });
  if (all.length > MAX_VARIANTS) return refuse('variant-too-many', { limit: MAX_VARIANTS });
  const unnamed = all.find((one) => one.name.trim() === '');
  if (unnamed) return refuse('variant-unnamed', { variant: unnamed.id });
  const twice = firstTwice(all.map((one) => one.id));
  if (twice !== undefined) return refuse('variant-exists', { variant: twice });
  if (chosen !== null && !all.some((one) => one.id === chosen)) return refuse('variant-unknown', { variant: chosen });
  const box = all.map(({ boxes }) => firstTwice(boxes.map((one) => one.id))).find((one) => one !== undefined);
  return box === undefined ? null : refuse('box-twice', { box });
}

const firstTwice = (all: readonly string[]): string | undefined => all.find((one, at) => all.indexOf(one) !== at);

export const sketchAddSchema = z.strictObject({
  name: z.literal('sketch.add'),
  sketch: sketchIdSchema,
  /** The sketch that it follows; null puts it first, left out puts it last. */
  after: sketchIdSchema.nullable().optional(),
  title,
  kinds: kinds.optional(),
  variants: variants.optional(),
  taken: taken.optional(),
});

/** Adds a sketch. Whoever adds it makes the ids, of its variants and boxes too. */
export const sketchAdd = defineOperation({
  schema: sketchAddSchema,

  apply(site, { sketch, after, title: name, ...given }) {
    const made: Sketch = {
      id: sketch,
      name: name.trim(),
      kinds: given.kinds ?? [],
      variants: given.variants ?? [],
      taken: given.taken ?? null,
    };
    return sketches.checkNew(site, sketch) ?? checkSketch(made) ?? sketches.add(site, made, after);
  },

  cells: ({ sketch }) => sketches.cellOfThere(sketch),

  words: ({ title: name }) => `added the sketch ‘${name}’`,
});

export const sketchSetSchema = z.strictObject({
  name: z.literal('sketch.set'),
  sketch: sketchIdSchema,
  fields: z.strictObject({ title, kinds, taken }).partial(),
});

/** Renames a sketch, says for which kinds it is, or takes one of its variants. */
export const sketchSet = defineOperation({
  schema: sketchSetSchema,

  apply(site, { sketch, fields: { title: name, ...given } }) {
    const was = sketches.find(site, sketch);
    if (!was) return sketches.unknown(sketch);
    const next: Sketch = { ...was, ...given, name: name?.trim() ?? was.name };
    return checkSketch(next) ?? sketches.set(site, was, next, fieldsBefore(was, next));
  },

  cells: ({ sketch, fields }) => sketches.cellsOfFields(sketch, fields),

  words({ sketch, fields }, site) {
    const name = sketches.named(site, sketch);
    if (fields.title !== undefined) return `renamed the sketch ${name} to ‘${fields.title}’`;
    if (fields.taken === undefined) return `changed the sketch ${name}`;
    const variant = sketches.find(site, sketch)?.variants.find(({ id }) => id === fields.taken);
    return variant ? `took the variant ‘${variant.name}’ of the sketch ${name}` : `left the sketch ${name} open again`;
  },
});

export const sketchRemoveSchema = z.strictObject({ name: z.literal('sketch.remove'), sketch: sketchIdSchema });

/** Takes a sketch away. Pages that name it keep saying so, and have it again if it comes back; their texts stay as they are. */
export const sketchRemove = defineOperation({
  schema: sketchRemoveSchema,

  apply(site, { sketch }) {
    const was = sketches.find(site, sketch);
    if (!was) return sketches.unknown(sketch);
    return sketches.remove(site, was, { title: was.name, ...allBut(was, 'id', 'name') });
  },

  cells: ({ sketch }) => sketches.cellOfThere(sketch),

  words: ({ sketch }, site) => `removed the sketch ${sketches.named(site, sketch)}`,
});
