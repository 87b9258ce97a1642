import { generateKeyBetween } from 'fractional-indexing';
import { z } from 'zod';
import { type PageId, pageIdSchema } from './ids.ts';
import type { Refusal } from './refusal.ts';
import { refuse } from './refusal.ts';
import { MAX_DEPTH, type Site, ancestorsOf, childrenOf, isWithin, maybeNodeAt, nodeAt } from './site.ts';

export const orderKeySchema = z.string().max(200).refine(isOrderKey, 'not an order key');

/**
 * Where a node is to stand. `after`: the sibling that it follows, null for the first place; left out, or no longer
 * there: the last place. `order` is in inverses only: the order key that it had, taken again while no sibling has it.
 */
export const placeSchema = z.strictObject({
  parent: pageIdSchema.nullable(),
  after: pageIdSchema.nullable().optional(),
  order: orderKeySchema.optional(),
});
export type Place = z.infer<typeof placeSchema>;

/** A place as a person names it: seen from another node. */
export const SIDES = ['inside', 'before', 'after'] as const;
export type Side = (typeof SIDES)[number];

/** Whether a node (with so many levels below it) can hang under that parent; the rule that forbids it otherwise. */
export function checkParent(site: Site, parent: PageId | null, moved: PageId | null, height: number): Refusal | null {
  if (parent === null) return null;
  const node = site.nodes.get(parent);
  if (!node) return refuse('parent-unknown', { page: parent });
  if (node.removedWith !== null) return refuse('page-removed', { page: parent });
  if (node.type === 'link') return refuse('parent-is-link', { page: parent });
  if (moved !== null && isWithin(site, parent, moved)) return refuse('moved-inside-itself', { page: moved });
  const depth = ancestorsOf(site, parent).length + 1;
  if (depth + height >= MAX_DEPTH) return refuse('too-deep', { page: moved ?? parent, deepest: MAX_DEPTH });
  return null;
}

/** The order key for a place. The node that is being moved, if any, is not counted among the siblings. */
export function orderKeyFor(site: Site, place: Place, moved: PageId | null): string {
  const all = childrenOf(site, place.parent);
  const siblings = moved === null ? all : all.filter((id) => id !== moved);
  const keyOf = (index: number): string | null => {
    const id = siblings[index];
    return id === undefined ? null : nodeAt(site, id).order;
  };
  if (place.order !== undefined) {
    if (!siblings.some((id) => nodeAt(site, id).order === place.order)) return place.order;
    const same = siblings.findLastIndex((id) => nodeAt(site, id).order === place.order);
    return generateKeyBetween(place.order, keyOf(same + 1));
  }
  const after =
    place.after === null ? -1 : place.after === undefined ? siblings.length - 1 : siblings.indexOf(place.after);
  const index = place.after != null && after === -1 ? siblings.length - 1 : after;
  return generateKeyBetween(keyOf(index), keyOf(index + 1));
}

/** Whether the ordering library takes the key. */
export function isOrderKey(key: string): boolean {
  try {
    generateKeyBetween(key, null);
    return true;
  } catch {
    return false;
  }
}

/** The place that a node has now, exactly. */
export function placeOf(site: Site, id: PageId): Place {
  const node = maybeNodeAt(site, id) ?? site.nodes.get(id);
  if (!node) throw new Error(`No node '${id}' in site '${site.key}'.`);
  return { parent: node.parent, order: node.order };
}
