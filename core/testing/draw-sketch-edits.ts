import { BOX_TYPES, BOX_WIDTHS, type Box, type BoxId, type Sketch, type VariantId } from '../model/sketch.ts';
import type { Site } from '../model/site.ts';
import type { Draw } from './draw.ts';
import type { OperationDraws } from './draw-edit.ts';
import { NOBODY, drawAfter, drawId, drawName, drawNewId } from './draw-values.ts';

const PURPOSES = ['What it costs', 'Who teaches here', 'The slipway at low tide', ''];
const NAMES = ['Course', 'Person', 'Place'];

/** Boxes of a variant; an odd draw has one of them twice. */
export function drawBoxes(draw: Draw): Box[] {
  const boxes = Array.from({ length: draw.int(1, 7) }, (_, n): Box => ({
    id: `b${n}${draw.int(0, 9)}` as BoxId,
    type: draw.of(BOX_TYPES),
    purpose: draw.of(PURPOSES),
    words: draw.of([null, null, 40, 120, 400]),
    width: draw.of([...BOX_WIDTHS, 'whole']),
  }));
  return draw.odd() ? [boxes[0]!, boxes[0]!] : boxes;
}

/** A sketch with variants where there is one; one that is not there in an odd draw. */
const drawSketch = (site: Site, draw: Draw): Sketch | undefined =>
  draw.odd()
    ? undefined
    : (draw.maybeOf(site.sketches.filter(({ variants }) => variants.length > 0)) ?? site.sketches[0]);
const idOf = (sketch: Sketch | undefined): Sketch['id'] => sketch?.id ?? (NOBODY as string as Sketch['id']);
const drawVariant = (sketch: Sketch | undefined, draw: Draw): VariantId =>
  draw.odd()
    ? (NOBODY as string as VariantId)
    : (draw.maybeOf(sketch?.variants ?? [])?.id ?? (NOBODY as string as VariantId));

const drawKinds = (site: Site, draw: Draw) => draw.some(site.settings.labels, 0, 2).map(({ id }) => id);

export const drawSketchAdd: OperationDraws['sketch.add'] = (site, draw) => {
  const variants = draw.some(['a', 'b', 'c'], 1, 3).map((id) => ({
    id: id as VariantId,
    name: id.toUpperCase(),
    boxes: drawBoxes(draw),
  }));
  return {
    name: 'sketch.add',
    sketch: drawNewId(site.sketches, ['s1', 's2', 's3'], draw),
    ...drawAfter(site.sketches, draw),
    title: drawName(draw, NAMES),
    kinds: draw.maybe(0.4, () => drawKinds(site, draw)),
    variants,
    taken: draw.maybe(0.4, () => (draw.odd() ? (NOBODY as string as VariantId) : draw.of(variants).id)),
  };
};
export const drawSketchSet: OperationDraws['sketch.set'] = (site, draw) => {
  const sketch = drawSketch(site, draw);
  const untaken = sketch?.variants.filter(({ id }) => id !== sketch.taken) ?? [];
  const fields = Object.entries({
    title: drawName(draw, NAMES),
    kinds: drawKinds(site, draw),
    taken: draw.odd() ? (NOBODY as string as VariantId) : (draw.maybeOf(untaken)?.id ?? null),
  });
  return { name: 'sketch.set', sketch: idOf(sketch), fields: Object.fromEntries(draw.some(fields, 1, 3)) };
};
export const drawSketchRemove: OperationDraws['sketch.remove'] = (site, draw) => ({
  name: 'sketch.remove',
  sketch: drawId(site.sketches, draw),
});

export const drawVariantAdd: OperationDraws['variant.add'] = (site, draw) => {
  const sketch = drawSketch(site, draw);
  const variants = sketch?.variants ?? [];
  return {
    name: 'variant.add',
    sketch: idOf(sketch),
    variant: drawNewId(variants, ['a', 'b', 'c', 'd'], draw),
    ...drawAfter(variants, draw),
    title: drawName(draw, ['Short', 'With pictures']),
    boxes: draw.maybe(0.8, () => drawBoxes(draw)),
  };
};
export const drawVariantSet: OperationDraws['variant.set'] = (site, draw) => {
  const sketch = drawSketch(site, draw);
  const fields = Object.entries({ title: drawName(draw, ['Long', 'Plain']), boxes: drawBoxes(draw) });
  return {
    name: 'variant.set',
    sketch: idOf(sketch),
    variant: drawVariant(sketch, draw),
    fields: Object.fromEntries(draw.some(fields, 1, 2)),
  };
};
export const drawVariantRemove: OperationDraws['variant.remove'] = (site, draw) => {
  const sketch = drawSketch(site, draw);
  return { name: 'variant.remove', sketch: idOf(sketch), variant: drawVariant(sketch, draw) };
};

const someBoxes = (sketch: Sketch | undefined, variant: VariantId): readonly Box[] =>
  sketch?.variants.find(({ id }) => id === variant)?.boxes ?? [];
/** A variant that has boxes, where there is one. */
const drawFilled = (sketch: Sketch | undefined, draw: Draw): VariantId =>
  draw.odd()
    ? drawVariant(sketch, draw)
    : (sketch?.variants.find(({ boxes }) => boxes.length > 0)?.id ?? drawVariant(sketch, draw));
const noBox = (): BoxId => NOBODY as string as BoxId;

export const drawBoxPut: OperationDraws['box.put'] = (site, draw) => {
  const sketch = drawSketch(site, draw);
  const variant = drawFilled(sketch, draw);
  const boxes = someBoxes(sketch, variant);
  const was = draw.chance(0.5) ? draw.maybeOf(boxes) : undefined;
  const box = { ...drawBoxes(draw)[0]!, id: was?.id ?? drawNewId<BoxId>([...boxes], ['x0', 'x1', 'x2', 'x3'], draw) };
  const after = draw.maybeOf(boxes.filter(({ id }) => id !== box.id))?.id ?? null;
  return {
    name: 'box.put',
    sketch: idOf(sketch),
    variant,
    box,
    ...(draw.chance(0.5) && { after: draw.odd() ? noBox() : after }),
  };
};
export const drawBoxRemove: OperationDraws['box.remove'] = (site, draw) => {
  const sketch = drawSketch(site, draw);
  const variant = drawFilled(sketch, draw);
  const box = draw.odd() ? noBox() : (draw.maybeOf(someBoxes(sketch, variant))?.id ?? noBox());
  return { name: 'box.remove', sketch: idOf(sketch), variant, box };
};
