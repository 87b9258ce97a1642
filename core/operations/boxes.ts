import { z } from 'zod';
import { sketchIdSchema } from '../model/plan.ts';
import { refuse } from '../model/refusal.ts';
import {
  type Box,
  MAX_BOXES,
  type Sketch,
  type Variant,
  boxIdSchema,
  boxSchema,
  variantIdSchema,
} from '../model/sketch.ts';
import type { Site } from '../model/site.ts';
import { type Applied, defineOperation } from './definition.ts';
import { putInOrder } from './in-order.ts';
import type { Operation } from './operation.ts';
import { sketches } from './sketches.ts';

export const boxPutSchema = z.strictObject({
  name: z.literal('box.put'),
  sketch: sketchIdSchema,
  variant: variantIdSchema,
  box: boxSchema,
  /** The box that it follows; null puts it first. Left out, a new one comes last, and one that is there stays where it is. */
  after: boxIdSchema.nullable().optional(),
});

/** Adds a box to a variant of a sketch, or puts it in place of the one with its id: elsewhere, or with something else said of it. */
export const boxPut = defineOperation({
  schema: boxPutSchema,

  apply(site, { sketch: id, variant: of, box, after }) {
    const found = variantIn(site, id, of);
    if ('code' in found) return found;
    const { sketch, variant } = found;
    const put = putInOrder(variant.boxes, box, after);
    if (put === null) return refuse('box-unknown', { box: after! });
    if (put.isSame) return { ok: true, site, inverse: [], touched: [] };
    if (put.list.length > MAX_BOXES) return refuse('box-too-many', { limit: MAX_BOXES });
    const inverse = put.was
      ? { name: 'box.put' as const, sketch: id, variant: of, box: put.was, after: put.before as Box['id'] | null }
      : { name: 'box.remove' as const, sketch: id, variant: of, box: box.id };
    return become(site, sketch, variant, put.list, inverse);
  },

  cells: ({ sketch, variant, box }) => [`box:${sketch}/${variant}/${box.id}.there`],

  words({ sketch, variant: id, box, after }, site) {
    const variant = sketches.find(site, sketch)?.variants.find((one) => one.id === id);
    const was = variant?.boxes.find((one) => one.id === box.id);
    const of = `the sketch ${sketches.named(site, sketch)}`;
    if (!was) return `added a box to ${of}`;
    return after === undefined ? `changed a box of ${of}` : `rearranged ${of}`;
  },
});

export const boxRemoveSchema = z.strictObject({
  name: z.literal('box.remove'),
  sketch: sketchIdSchema,
  variant: variantIdSchema,
  box: boxIdSchema,
});

/** Takes a box out of a variant. Texts that have a place for it keep that. */
export const boxRemove = defineOperation({
  schema: boxRemoveSchema,

  apply(site, { sketch: id, variant: of, box }) {
    const found = variantIn(site, id, of);
    if ('code' in found) return found;
    const { sketch, variant } = found;
    const at = variant.boxes.findIndex((one) => one.id === box);
    const was = variant.boxes[at];
    if (!was) return refuse('box-unknown', { box });
    const after = variant.boxes[at - 1]?.id ?? null;
    const inverse = { name: 'box.put' as const, sketch: id, variant: of, box: was, after };
    return become(site, sketch, variant, variant.boxes.toSpliced(at, 1), inverse);
  },

  cells: ({ sketch, variant, box }) => [`box:${sketch}/${variant}/${box}.there`],

  words: ({ sketch }, site) => `removed a box from the sketch ${sketches.named(site, sketch)}`,
});

/** A variant of a sketch, or why there is none. */
function variantIn(site: Site, id: Sketch['id'], of: Variant['id']) {
  const sketch = sketches.find(site, id);
  if (!sketch) return sketches.unknown(id);
  const variant = sketch.variants.find((one) => one.id === of);
  return variant ? { sketch, variant } : refuse('variant-unknown', { variant: of });
}

function become(site: Site, sketch: Sketch, variant: Variant, boxes: readonly Box[], inverse: Operation): Applied {
  const variants = sketch.variants.map((one) => (one === variant ? { ...variant, boxes: [...boxes] } : one));
  return {
    ok: true,
    site: { ...site, sketches: site.sketches.map((one) => (one === sketch ? { ...sketch, variants } : one)) },
    inverse: [inverse],
    touched: [],
  };
}
