import type { Outline } from '../derive/outline.ts';
import type { PageId } from '../model/ids.ts';
import type { Side } from '../model/place.ts';
import type { Site } from '../model/site.ts';
import { childrenOf, isWithin, maybeNodeAt } from '../model/site.ts';
import type { Operation } from '../operations/operation.ts';
import { topmost } from './arrange.ts';

/** Where something that is dragged would hang. */
export interface DropPlace {
  readonly parent: PageId | null;
  /** The sibling that it would follow, null for the first place. */
  readonly after: PageId | null;
  /** The depth that it would have; the top level is 0. */
  readonly depth: number;
}

/** A hand that moves straight up or down strays sideways by so many pixels. */
const STRAIGHT = 24;

/** By how many levels a page is to go in (or out, where it is negative) that was carried sideways by so many pixels. @param level the width of a level */
export function levelsCarried(sideways: number, level: number): number {
  const beyond = Math.abs(sideways) - STRAIGHT;
  return beyond < 0 ? 0 : Math.sign(sideways) * (1 + Math.floor(beyond / level));
}

/**
 * The place in a gap between rows that show: `gap` rows stand above it. `depth` is the one asked for; the nearest one
 * that is possible there is taken. Without `mayNest` it goes inside the row above only where the gap is within its open branch.
 * Rows of what is moved (`isMoved`) are looked through. Null where there is no place.
 */
export function placeInGap(
  outline: Outline,
  rows: readonly number[],
  gap: number,
  depth: number,
  isMoved: (row: number) => boolean,
  mayNest = true,
): DropPlace | null {
  const aboveAt = rows.slice(0, gap).findLastIndex((row) => !isMoved(row));
  const below = rows.slice(gap).find((row) => !isMoved(row));
  const least = below === undefined ? 0 : outline.depth[below]!;
  if (aboveAt === -1) return { parent: null, after: null, depth: 0 };
  const above = rows[aboveAt]!;
  const canHold = outline.nodes[above]!.type !== 'link';
  const deepest = outline.depth[above]! + (canHold ? 1 : 0);
  if (least > deepest) return null;
  const most = mayNest ? deepest : Math.max(least, outline.depth[above]!);
  const taken = Math.max(least, Math.min(most, depth));
  if (taken === outline.depth[above]! + 1) {
    // Right below an open branch it becomes the first; into a closed or empty one it comes last.
    const isOpen = below !== undefined && outline.parent[below] === above;
    return {
      parent: outline.nodes[above]!.id,
      after: isOpen ? null : lastBelow(outline, above, isMoved),
      depth: taken,
    };
  }
  let at = above;
  while (outline.depth[at]! > taken) at = outline.parent[at]!;
  const parent = outline.parent[at]!;
  return { parent: parent === -1 ? null : outline.nodes[parent]!.id, after: outline.nodes[at]!.id, depth: taken };
}

/** The place inside a row, as its last child; null for a link, and within what is moved. */
export function placeInside(outline: Outline, row: number, isMoved: (row: number) => boolean): DropPlace | null {
  const node = outline.nodes[row]!;
  if (node.type === 'link' || isMoved(row)) return null;
  return { parent: node.id, after: lastBelow(outline, row, isMoved), depth: outline.depth[row]! + 1 };
}

/** The place beside a row, before or after it with all that is below it; null within what is moved. */
export function placeBeside(
  outline: Outline,
  row: number,
  side: 'before' | 'after',
  isMoved: (row: number) => boolean,
): DropPlace | null {
  if (isMoved(row)) return null;
  const parentRow = outline.parent[row]!;
  const parent = parentRow === -1 ? null : outline.nodes[parentRow]!.id;
  const depth = outline.depth[row]!;
  if (side === 'after') return { parent, after: outline.nodes[row]!.id, depth };
  let after: PageId | null = null;
  for (let sibling = parentRow + 1; sibling < row; sibling = outline.end[sibling]!)
    if (!isMoved(sibling)) after = outline.nodes[sibling]!.id;
  return { parent, after, depth };
}

/** The last child that stays where it is, or null. */
function lastBelow(outline: Outline, row: number, isMoved: (row: number) => boolean): PageId | null {
  let last: PageId | null = null;
  for (let child = row + 1; child < outline.end[row]!; child = outline.end[child]!)
    if (!isMoved(child)) last = outline.nodes[child]!.id;
  return last;
}

/** Whether a row is one of these nodes or stands below one. */
export function movedRows(outline: Outline, moved: readonly PageId[]): (row: number) => boolean {
  const ranges = moved.flatMap((id) => {
    const row = outline.rowOf.get(id);
    return row === undefined ? [] : [[row, outline.end[row]!] as const];
  });
  return (row) => ranges.some(([first, end]) => row >= first && row < end);
}

/**
 * The place on a side of a node; at the end of the top level, before the page to practise on, where there is no such
 * node. The sibling that it would follow is none of `without`: of what is moved there.
 */
export function placeOn(
  site: Site,
  id: PageId | null,
  side: Side,
  without: readonly PageId[] = [],
): Pick<DropPlace, 'parent' | 'after'> {
  const lastOf = (siblings: readonly PageId[]) => siblings.findLast((one) => !without.includes(one)) ?? null;
  const node = id === null ? undefined : maybeNodeAt(site, id);
  if (!node) return { parent: null, after: lastOf(childrenOf(site, null).filter((one) => one !== site.practice)) };
  if (side === 'inside') return { parent: node.id, after: lastOf(childrenOf(site, node.id)) };
  const siblings = childrenOf(site, node.parent);
  const upTo = siblings.indexOf(node.id) + (side === 'after' ? 1 : 0);
  return { parent: node.parent, after: lastOf(siblings.slice(0, upTo)) };
}

/** Moves nodes to a place, keeping their order among themselves. Nothing where they all stand there already. */
export function moveToPlace(
  site: Site,
  ids: readonly PageId[],
  { parent, after }: Pick<DropPlace, 'parent' | 'after'>,
): Extract<Operation, { name: 'page.move' }>[] {
  const moved = topmost(site, ids);
  if (parent !== null && moved.some((id) => isWithin(site, parent, id))) return [];
  const operations = moved.map((page, index) => ({
    name: 'page.move' as const,
    page,
    place: { parent, after: index === 0 ? after : moved[index - 1]! },
  }));
  const siblings = childrenOf(site, parent);
  const first = after === null ? 0 : siblings.indexOf(after) + 1;
  const stand = moved.every((id, index) => siblings[first + index] === id);
  return stand ? [] : operations;
}
