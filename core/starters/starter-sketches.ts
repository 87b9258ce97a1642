import { z } from 'zod';
import type { LabelId } from '../model/access.ts';
import {
  type BoxId,
  MAX_BOXES,
  MAX_SKETCH_NAME_LENGTH,
  MAX_VARIANTS,
  MAX_VARIANT_NAME_LENGTH,
  type Sketch,
  type VariantId,
  boxSchema,
} from '../model/sketch.ts';
import { MAX_LABEL_NAME_LENGTH } from '../model/page-label.ts';
import type { SketchId } from '../model/plan.ts';
import type { Operation } from '../operations/operation.ts';

export const sketchNameSchema = z.string().trim().min(1).max(MAX_SKETCH_NAME_LENGTH);

/** A sketch of what a starter's pages will contain. Kinds go by their names, variants by theirs; ids are a site's own. */
export const starterSketchSchema = z.strictObject({
  name: sketchNameSchema,
  kinds: z.array(z.string().trim().min(1).max(MAX_LABEL_NAME_LENGTH)).max(100).optional(),
  variants: z
    .array(
      z.strictObject({
        name: z.string().trim().min(1).max(MAX_VARIANT_NAME_LENGTH),
        boxes: z.array(boxSchema.omit({ id: true })).max(MAX_BOXES),
      }),
    )
    .max(MAX_VARIANTS),
  /** The place of the variant that was taken, from 0 on; left out while that is open. */
  taken: z.int().min(0).optional(),
});
export type StarterSketch = z.infer<typeof starterSketchSchema>;

/** Ids for a sketch and what is in it. */
export interface SketchIds {
  readonly newSketch: () => SketchId;
  readonly newVariant: () => VariantId;
  readonly newBox: () => BoxId;
}

type SketchAdd = Extract<Operation, { name: 'sketch.add' }>;

/** What adds a starter's sketch to a site. */
export function addOfSketch(
  { name, kinds = [], variants, taken }: StarterSketch,
  kindOf: (name: string) => LabelId,
  { newSketch, newVariant, newBox }: SketchIds,
): SketchAdd {
  const made = variants.map((variant) => ({
    id: newVariant(),
    name: variant.name,
    boxes: variant.boxes.map((box) => ({ ...box, id: newBox() })),
  }));
  return {
    name: 'sketch.add',
    sketch: newSketch(),
    title: name,
    kinds: kinds.map(kindOf),
    variants: made,
    taken: taken === undefined ? null : (made[taken]?.id ?? null),
  };
}

/** A sketch as a starter keeps it. @param kindNamed the name of a kind that goes along; undefined for one that does not */
export function starterSketchOf(
  { name, kinds, variants, taken }: Sketch,
  kindNamed: (kind: LabelId) => string | undefined,
): StarterSketch {
  const named = kinds.flatMap((kind) => kindNamed(kind) ?? []);
  const at = variants.findIndex(({ id }) => id === taken);
  return {
    name,
    ...(named.length > 0 && { kinds: named }),
    variants: variants.map((variant) => ({
      name: variant.name,
      boxes: variant.boxes.map(({ type, purpose, words, width }) => ({ type, purpose, words, width })),
    })),
    ...(at !== -1 && { taken: at }),
  };
}
