import { z } from 'zod';
import { restoreSlugs, settleAfter, slugsBefore, slugsFromTitle } from '../model/address-scope.ts';
import { pageIdSchema } from '../model/ids.ts';
import { nodeOf } from '../model/node.ts';
import { NO_VALUES, pageChangesShape, withChanges } from '../model/page-fields.ts';
import { checkParent, orderKeyFor, placeSchema } from '../model/place.ts';
import { refuse } from '../model/refusal.ts';
import { SiteChange } from '../model/site-change.ts';
import { checkAccess, checkDetails, checkFrame, checkRestored, checkSlugs, checkTarget } from './checks.ts';
import { defineOperation, quoted, restoresSchema } from './definition.ts';

export const pageAddSchema = z.strictObject({
  name: z.literal('page.add'),
  page: pageIdSchema,
  place: placeSchema,
  ...pageChangesShape,
  title: pageChangesShape.title.unwrap(),
  restores: restoresSchema,
});

/** Adds a page, a heading or a link. Whoever adds it makes the id. */
export const pageAdd = defineOperation({
  schema: pageAddSchema,

  apply(site, operation) {
    const { page } = operation;
    const values = withChanges(NO_VALUES, operation);
    const { type, title, access, frame } = values;
    if (site.nodes.has(page)) return refuse('page-exists', { page });
    const forbidden =
      checkParent(site, operation.place.parent, null, 0) ??
      checkSlugs(site, page, operation.slug, operation.place.parent, operation.restores !== undefined) ??
      checkTarget(site, page, type, operation.target, operation.restores !== undefined) ??
      (operation.restores === undefined
        ? (checkAccess(site, page, access) ?? checkFrame(site, frame) ?? checkDetails(site, page, operation.details))
        : null) ??
      checkRestored(operation.restores);
    if (forbidden) return forbidden;
    if (Object.keys(title).length === 0) return refuse('title-empty', { page });
    if (type !== 'page' && operation.content) return refuse('has-text', { page });

    const node = nodeOf(
      { id: page, parent: operation.place.parent, order: orderKeyFor(site, operation.place, null) },
      {
        ...values,
        slug: slugsFromTitle(values),
        inAddress: type === 'heading' ? (operation.inAddress ?? false) : type === 'page',
      },
    );
    const change = new SiteChange(site);
    change.put(node);
    settleAfter(change, [page]);
    restoreSlugs(change, operation.restores);
    return {
      ok: true,
      site: change.site,
      inverse: [{ name: 'page.remove', page, forGood: true, restores: slugsBefore(change) }],
      touched: [...change.touched],
    };
  },

  cells: (operation) => [`${operation.page}.there`],

  words(operation, site) {
    const where = operation.place.parent === null ? 'at the top level' : `in ${quoted(site, operation.place.parent)}`;
    const title = operation.title[site.settings.language] ?? Object.values(operation.title)[0] ?? '';
    return `added the ${operation.type ?? 'page'} ‘${title}’ ${where}`;
  },
});
