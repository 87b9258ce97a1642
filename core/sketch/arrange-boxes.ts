import type { Box, BoxId, BoxType, BoxWidth } from '../model/sketch.ts';
import { BOXES } from './box-types.ts';
import { isSameJson } from '../model/canonical-json.ts';
import { readBoxLine, readBoxes } from './read-boxes.ts';

const place = (boxes: readonly Box[], id: BoxId): number => boxes.findIndex((one) => one.id === id);

/** A box as it is before anybody has said more of it. */
export const newBox = (id: BoxId, type: BoxType = 'text'): Box => ({
  id,
  type,
  purpose: '',
  words: null,
  width: 'whole',
});

/** With a new one after a box, or first where that is null. */
export const withBoxAfter = (boxes: readonly Box[], after: BoxId | null, box: Box): Box[] =>
  boxes.toSpliced(after === null ? 0 : place(boxes, after) + 1, 0, box);

/** With a box so many places further down, or up where that is less than nothing; the same list where it has no room to go. */
export function withBoxMoved(boxes: readonly Box[], id: BoxId, by: number): readonly Box[] {
  const from = place(boxes, id);
  const to = Math.max(0, Math.min(boxes.length - 1, from + by));
  return from === -1 || from === to ? boxes : boxes.toSpliced(from, 1).toSpliced(to, 0, boxes[from]!);
}

/** With a box put into a gap: before the box that stands there, or last. */
export function withBoxInGap(boxes: readonly Box[], id: BoxId, gap: number): readonly Box[] {
  const from = place(boxes, id);
  return from === -1 ? boxes : withBoxMoved(boxes, id, (gap > from ? gap - 1 : gap) - from);
}

/** With something else said of a box. What has no words says no length. */
export const withBoxSet = (
  boxes: readonly Box[],
  id: BoxId,
  set: Partial<{ type: BoxType; purpose: string; words: number | null; width: BoxWidth }>,
): Box[] =>
  boxes.map((one) => {
    if (one.id !== id) return one;
    const next = { ...one, ...set };
    return BOXES[next.type].hasWords ? next : { ...next, words: null };
  });

/** With what was typed for a box: a type before a colon and a length at the end are read as such. */
export function withBoxTyped(boxes: readonly Box[], id: BoxId, line: string): Box[] {
  const { type, purpose, words } = readBoxLine(line);
  return withBoxSet(boxes, id, { purpose, ...(type && { type }), ...(words !== undefined && { words }) });
}

/** With a list of lines after a box: a box each. A box that says nothing yet gives way to them. */
export function withBoxesPasted(
  boxes: readonly Box[],
  at: BoxId,
  text: string,
  newId: () => BoxId,
): { readonly boxes: Box[]; readonly last: BoxId | null } {
  const pasted = readBoxes(text, newId);
  const from = place(boxes, at);
  const isEmpty = boxes[from]?.purpose === '';
  return {
    boxes: boxes.toSpliced(isEmpty ? from : from + 1, isEmpty ? 1 : 0, ...pasted),
    last: pasted.at(-1)?.id ?? null,
  };
}

/** The same boxes under ids of their own: for a variant that begins as a copy. */
export const copiedBoxes = (boxes: readonly Box[], newId: () => BoxId): Box[] =>
  boxes.map((one) => ({ ...one, id: newId() }));

/** One step on the way from one list of boxes to another: what `box.put` and `box.remove` do. */
export type BoxStep =
  | { readonly name: 'box.put'; readonly box: Box; readonly after?: BoxId | null }
  | { readonly name: 'box.remove'; readonly box: BoxId };

/**
 * What makes one list of boxes of another, box by box, so that what somebody else does to other boxes at the same time stays. Boxes that are
 * where they are to be are left alone: as many as keep their order. Law: the steps lead to the other list.
 */
export function boxSteps(before: readonly Box[], after: readonly Box[]): BoxStep[] {
  const known = new Map(before.map((box) => [box.id, box]));
  const wanted = new Set(after.map(({ id }) => id));
  const stay = keepingOrder(
    before.map(({ id }) => id).filter((id) => wanted.has(id)),
    after.map(({ id }) => id),
  );
  return [
    ...before.filter(({ id }) => !wanted.has(id)).map(({ id }): BoxStep => ({ name: 'box.remove', box: id })),
    ...after.flatMap((box, at): BoxStep[] => {
      if (!stay.has(box.id)) return [{ name: 'box.put', box, after: after[at - 1]?.id ?? null }];
      return isSameJson(known.get(box.id), box) ? [] : [{ name: 'box.put', box }];
    }),
  ];
}

/** The most ids of one list that stand in the same order in the other: the longest increasing run of their places. */
function keepingOrder(ids: readonly BoxId[], order: readonly BoxId[]): Set<BoxId> {
  const placeOf = new Map(order.map((id, at) => [id, at]));
  const runs: BoxId[][] = [];
  for (const id of ids) {
    const longest = runs
      .filter((run) => placeOf.get(run.at(-1)!)! < placeOf.get(id)!)
      .reduce<readonly BoxId[]>((best, run) => (run.length > best.length ? run : best), []);
    runs.push([...longest, id]);
  }
  return new Set(runs.reduce<readonly BoxId[]>((best, run) => (run.length > best.length ? run : best), []));
}
