import { z } from 'zod';
import { restoreSlugs, settleAfter, slugsBefore } from '../model/address-scope.ts';
import { type PageId, pageIdSchema } from '../model/ids.ts';
import { changesOf } from '../model/page-fields.ts';
import { orderKeySchema, placeOf } from '../model/place.ts';
import { refuse } from '../model/refusal.ts';
import { SiteChange } from '../model/site-change.ts';
import { branchOf, childrenOf, nodeAt } from '../model/site.ts';
import { checkRestored, checkStands } from './checks.ts';
import { andBelow, defineOperation, quoted, restoresSchema } from './definition.ts';

export const pageRemoveSchema = z.strictObject({
  name: z.literal('page.remove'),
  page: pageIdSchema,
  forGood: z.boolean().optional(),
  remember: z.strictObject({ parent: pageIdSchema.nullable(), order: orderKeySchema }).optional(),
  restores: restoresSchema,
});

/**
 * Takes a node, and all below it, out of the tree. It is kept and can be put back.
 * `forGood` (in inverses of adding only) leaves nothing of it; it is refused while pages stand below.
 * `remember` (in inverses of putting back only) is the place that the node keeps while it is out.
 */
export const pageRemove = defineOperation({
  schema: pageRemoveSchema,

  apply(site, { page, forGood, remember, restores }) {
    const forbidden = checkStands(site, page) ?? checkRestored(restores);
    if (forbidden) return forbidden;
    const node = nodeAt(site, page);
    const change = new SiteChange(site);
    if (forGood) {
      const below = childrenOf(site, page).length;
      if (below > 0) return refuse('pages-below', { page, below });
      change.takeOut(page);
    } else {
      for (const id of branchOf(site, page).reverse()) {
        change.put({ ...nodeAt(site, id), ...(id === page ? remember : undefined), removedWith: page });
      }
    }
    settleAfter(change, []);
    restoreSlugs(change, restores);
    const restore = slugsBefore(change);
    return {
      ok: true,
      site: change.site,
      inverse: forGood
        ? [
            {
              name: 'page.add',
              page,
              place: placeOf(site, page),
              ...changesOf(node),
              restores: { ...restore, [page]: node.slug } as Record<PageId, typeof node.slug>,
            },
          ]
        : [{ name: 'page.putBack', page, place: placeOf(site, page), restores: restore }],
      touched: [...change.touched],
    };
  },

  cells: (operation) => [`${operation.page}.there`],

  words: ({ page }, site) => `removed ${quoted(site, page)}${andBelow(branchOf(site, page).length - 1)}`,
});
