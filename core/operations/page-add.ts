import { z } from 'zod';
import { restoreSlugs, settleAfter, slugsBefore, slugsFromTitle } from '../model/address-scope.ts';
import { accessChangeSchema, withAccess } from '../model/access.ts';
import { frameChangeSchema, withFrame } from '../model/frame.ts';
import { contentIdSchema, pageIdSchema } from '../model/ids.ts';
import { HIDDEN, NODE_TYPES, type SiteNode } from '../model/node.ts';
import { targetSchema } from '../model/target.ts';
import { checkParent, orderKeyFor, placeSchema } from '../model/place.ts';
import { planChangeSchema, withPlan } from '../model/plan.ts';
import { refuse } from '../model/refusal.ts';
import { SiteChange } from '../model/site-change.ts';
import { MAX_TITLE_LENGTH } from '../model/site.ts';
import { NO_SLUGS, slugsSchema } from '../model/slug.ts';
import { NO_TEXTS, textsSchema, withTexts } from '../model/texts.ts';
import { checkAccess, checkFrame, checkRestored, checkSlugs, checkTarget } from './checks.ts';
import { defineOperation, quoted, restoresSchema } from './definition.ts';

export const pageAddSchema = z.strictObject({
  name: z.literal('page.add'),
  page: pageIdSchema,
  place: placeSchema,
  type: z.enum(NODE_TYPES).optional(),
  title: textsSchema(MAX_TITLE_LENGTH),
  label: textsSchema(MAX_TITLE_LENGTH).optional(),
  slug: slugsSchema.optional(),
  description: textsSchema(2000).optional(),
  inMenus: z.boolean().optional(),
  hidden: z.enum(HIDDEN).optional(),
  inAddress: z.boolean().optional(),
  target: targetSchema.nullable().optional(),
  content: contentIdSchema.nullable().optional(),
  access: accessChangeSchema.optional(),
  frame: frameChangeSchema.optional(),
  plan: planChangeSchema.optional(),
  restores: restoresSchema,
});

/** Adds a page, a heading or a link. Whoever adds it makes the id. */
export const pageAdd = defineOperation({
  schema: pageAddSchema,

  apply(site, operation) {
    const { page, type = 'page' } = operation;
    const access = withAccess(null, operation.access ?? {});
    const frame = withFrame(null, operation.frame ?? {});
    if (site.nodes.has(page)) return refuse('page-exists', { page });
    const forbidden =
      checkParent(site, operation.place.parent, null, 0) ??
      checkSlugs(site, page, operation.slug, operation.place.parent, operation.restores !== undefined) ??
      checkTarget(site, page, type, operation.target, operation.restores !== undefined) ??
      (operation.restores === undefined ? (checkAccess(site, page, access) ?? checkFrame(site, frame)) : null) ??
      checkRestored(operation.restores);
    if (forbidden) return forbidden;
    const title = withTexts(NO_TEXTS, operation.title);
    if (Object.keys(title).length === 0) return refuse('title-empty', { page });
    if (type !== 'page' && operation.content) return refuse('has-text', { page });

    const node: SiteNode = {
      id: page,
      parent: operation.place.parent,
      order: orderKeyFor(site, operation.place, null),
      type,
      title,
      label: withTexts(NO_TEXTS, operation.label ?? {}),
      slug: slugsFromTitle({ type, title, slug: operation.slug ?? NO_SLUGS }),
      description: withTexts(NO_TEXTS, operation.description ?? {}),
      inMenus: operation.inMenus ?? true,
      hidden: operation.hidden ?? 'no',
      inAddress: type === 'heading' ? (operation.inAddress ?? false) : type === 'page',
      target: operation.target ?? null,
      content: operation.content ?? null,
      access,
      frame,
      plan: withPlan(null, operation.plan ?? {}),
      removedWith: null,
    };
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
