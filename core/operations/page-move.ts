import { z } from 'zod';
import { frontierOf, restoreSlugs, settleAfter, slugsBefore } from '../model/address-scope.ts';
import { type PageId, pageIdSchema } from '../model/ids.ts';
import { checkParent, orderKeyFor, placeOf, placeSchema } from '../model/place.ts';
import { SiteChange } from '../model/site-change.ts';
import { branchOf, heightOf, homeOf, nodeAt } from '../model/site.ts';
import type { Slugs } from '../model/slug.ts';
import { checkRestored, checkStands } from './checks.ts';
import { andBelow, defineOperation, quoted, restoresSchema } from './definition.ts';

export const pageMoveSchema = z.strictObject({
  name: z.literal('page.move'),
  page: pageIdSchema,
  place: placeSchema,
  restores: restoresSchema,
});

/** Moves a node, and all below it, to another place. */
export const pageMove = defineOperation({
  schema: pageMoveSchema,

  apply(site, { page, place, restores }) {
    const forbidden =
      checkRestored(restores) ?? checkStands(site, page) ?? checkParent(site, place.parent, page, heightOf(site, page));
    if (forbidden) return forbidden;
    const node = nodeAt(site, page);
    const order = orderKeyFor(site, place, page);
    const change = new SiteChange(site);
    if (node.parent !== place.parent || node.order !== order) change.put({ ...node, parent: place.parent, order });
    // Among its siblings a page keeps its address, whatever has become free there since.
    settleAfter(change, node.parent === place.parent ? [] : [page]);
    restoreSlugs(change, restores);
    if (change.touched.size === 0) return { ok: true, site, inverse: [], touched: [] };
    // The way back makes these slugs anew, even where the way here left them.
    const held: Record<PageId, Slugs> = slugsBefore(change);
    for (const id of frontierOf(site, page, homeOf(site))) held[id] = nodeAt(site, id).slug;
    return {
      ok: true,
      site: change.site,
      inverse: [{ name: 'page.move', page, place: placeOf(site, page), restores: held }],
      touched: [...change.touched],
    };
  },

  cells: (operation) => [`${operation.page}.place`],

  words({ page, place }, site) {
    const below = andBelow(branchOf(site, page).length - 1);
    if (place.parent === site.nodes.get(page)?.parent)
      return `moved ${quoted(site, page)}${below} among its neighbours`;
    return place.parent === null
      ? `moved ${quoted(site, page)}${below} to the top level`
      : `moved ${quoted(site, page)}${below} into ${quoted(site, place.parent)}`;
  },
});
