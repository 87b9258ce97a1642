import type { PageId } from '../model/ids.ts';
import type { Place } from '../model/place.ts';
import { type Site, ancestorsOf, childrenOf, maybeNodeAt, nodeAt } from '../model/site.ts';
import { outlineOf } from '../derive/outline.ts';
import { applyOperation } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';

/** What a gesture in the tree means, as operations. Each gives an empty list where there is nothing to do. */
type Move = Extract<Operation, { name: 'page.move' }>;
const move = (page: PageId, place: Place): Move => ({ name: 'page.move', page, place });

/** The nodes among these that stand below no other one of them, in the order in which they were given. */
export function topmost(site: Site, ids: Iterable<PageId>): PageId[] {
  const chosen = new Set([...ids].filter((id) => maybeNodeAt(site, id)));
  return [...chosen].filter((id) => !ancestorsOf(site, id).some((above) => chosen.has(above.id)));
}

/** Nests a node as the last child of the sibling above it. */
export function nest(site: Site, id: PageId): Move[] {
  const siblings = childrenOf(site, nodeAt(site, id).parent);
  const above = siblings[siblings.indexOf(id) - 1];
  if (above === undefined || nodeAt(site, above).type === 'link') return [];
  return [move(id, { parent: above })];
}

/** Lifts a node out of its parent, to stand right after it. */
export function lift(site: Site, id: PageId): Move[] {
  const { parent } = nodeAt(site, id);
  return parent === null ? [] : [move(id, { parent: nodeAt(site, parent).parent, after: parent })];
}

/** Moves a node one place up (-1) or down (1) among its siblings. */
export function shift(site: Site, id: PageId, by: -1 | 1): Move[] {
  const { parent } = nodeAt(site, id);
  const siblings = childrenOf(site, parent);
  const at = siblings.indexOf(id);
  const to = at + by;
  if (to < 0 || to >= siblings.length) return [];
  return [move(id, { parent, after: by === 1 ? siblings[to]! : (siblings[to - 1] ?? null) })];
}

/**
 * The same gesture for several nodes, one after the other, each on the tree that the ones before have left: for
 * those of them that stand below no other one, in an order that keeps them in theirs. Nothing where one cannot.
 */
export function gestureForAll(site: Site, ids: readonly PageId[], gesture: 'nest' | 'lift' | 'up' | 'down'): Move[] {
  const tops = inTreeOrder(site, topmost(site, ids));
  if (gesture === 'lift' || gesture === 'down') tops.reverse();
  const made: Move[] = [];
  let at = site;
  for (const id of tops) {
    const [operation] =
      gesture === 'nest' ? nest(at, id) : gesture === 'lift' ? lift(at, id) : shift(at, id, gesture === 'up' ? -1 : 1);
    if (!operation) return [];
    const outcome = applyOperation(at, operation);
    if (!outcome.ok) return [];
    made.push(operation);
    at = outcome.site;
  }
  return made;
}

const inTreeOrder = (site: Site, ids: readonly PageId[]): PageId[] => {
  const { rowOf } = outlineOf(site);
  return [...ids].sort((a, b) => rowOf.get(a)! - rowOf.get(b)!);
};
