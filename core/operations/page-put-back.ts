import { z } from 'zod';
import { restoreSlugs, settleAfter, settleSlugs, frontierOf, slugsBefore } from '../model/address-scope.ts';
import { type PageId, pageIdSchema } from '../model/ids.ts';
import { checkParent, orderKeyFor, placeSchema } from '../model/place.ts';
import { refuse } from '../model/refusal.ts';
import { SiteChange } from '../model/site-change.ts';
import { type Site, homeOf, maybeNodeAt } from '../model/site.ts';
import { checkRestored } from './checks.ts';
import { andBelow, defineOperation, quoted, restoresSchema } from './definition.ts';

export const pagePutBackSchema = z.strictObject({
  name: z.literal('page.putBack'),
  page: pageIdSchema,
  place: placeSchema.optional(),
  restores: restoresSchema,
});

/**
 * Puts a removed node, and what was removed with it, back where it was; where its parent is gone, under the nearest
 * ancestor that is there. `place` (in inverses) says exactly where.
 */
export const pagePutBack = defineOperation({
  schema: pagePutBackSchema,

  apply(site, { page, place, restores }) {
    const node = site.nodes.get(page);
    if (!node) return refuse('page-unknown', { page });
    if (node.removedWith !== page) return refuse('page-not-removed', { page });
    const branch = removedWith(site, page);
    const parent = place && canHold(site, place.parent) ? place.parent : nearestParent(site, page);
    const forbidden = checkParent(site, parent, null, removedHeight(site, branch, page)) ?? checkRestored(restores);
    if (forbidden) return forbidden;
    const kept = parent === (place ? place.parent : node.parent);
    const order = orderKeyFor(site, kept ? { parent, order: place?.order ?? node.order } : { parent }, null);

    const change = new SiteChange(site);
    change.put({ ...node, parent, order, removedWith: null });
    for (const id of branch) if (id !== page) change.put({ ...site.nodes.get(id)!, removedWith: null });
    settleSlugs(change, frontierOf(change.site, page, homeOf(change.site)), false);
    settleAfter(change, []);
    restoreSlugs(change, restores);
    const movedAway = parent !== node.parent || order !== node.order;
    return {
      ok: true,
      site: change.site,
      inverse: [
        {
          name: 'page.remove',
          page,
          remember: movedAway ? { parent: node.parent, order: node.order } : undefined,
          restores: slugsBefore(change),
        },
      ],
      touched: [...change.touched],
    };
  },

  cells: (operation) => [`${operation.page}.there`],

  words: ({ page }, site) => `put back ${quoted(site, page)}${andBelow(removedWith(site, page).length - 1)}`,
});

/** The nodes that were taken out by the removal of `page`, itself first. */
export function removedWith(site: Site, page: PageId): PageId[] {
  const found: PageId[] = [page];
  site.nodes.forEach((node) => {
    if (node.removedWith === page && node.id !== page) found.push(node.id);
  });
  return found;
}

const canHold = (site: Site, id: PageId | null): boolean => {
  if (id === null) return true;
  const node = maybeNodeAt(site, id);
  return node !== undefined && node.type !== 'link';
};

/** The nearest ancestor of a removed node that stands in the tree and can hold pages. */
export function nearestParent(site: Site, page: PageId): PageId | null {
  const passed = new Set<PageId>();
  for (let up = site.nodes.get(page)?.parent ?? null; up !== null && !passed.has(up);) {
    if (canHold(site, up)) return up;
    passed.add(up);
    up = site.nodes.get(up)?.parent ?? null;
  }
  return null;
}

function removedHeight(site: Site, branch: readonly PageId[], top: PageId): number {
  const within = new Set(branch);
  let height = 0;
  for (const id of branch) {
    let depth = 0;
    for (let at: PageId | null = id; at !== null && at !== top && within.has(at); depth++)
      at = site.nodes.get(at)?.parent ?? null;
    height = Math.max(height, depth);
  }
  return height;
}
