import { z } from 'zod';
import {
  frontierOf,
  restoreSlugs,
  settleAfter,
  settleSlugs,
  slugsBefore,
  slugsFromTitle,
} from '../model/address-scope.ts';
import { pageIdSchema } from '../model/ids.ts';
import { type SiteNode, isSameNode } from '../model/node.ts';
import {
  PAGE_FIELD_NAMES,
  type PageChanges,
  changesBetween,
  pageChangesShape,
  pageField,
  withChanges,
} from '../model/page-fields.ts';
import { refuse } from '../model/refusal.ts';
import { SiteChange } from '../model/site-change.ts';
import { addsStep, childrenOf, homeOf, nodeAt } from '../model/site.ts';
import { NO_SLUGS, type Slugs, sameSlugs } from '../model/slug.ts';
import {
  checkAccess,
  checkDetails,
  checkFrame,
  checkRestored,
  checkSlugs,
  checkStands,
  checkTarget,
} from './checks.ts';
import { defineOperation, quoted, restoresSchema } from './definition.ts';

const fieldsSchema = z.strictObject(pageChangesShape);

export const pageSetSchema = z.strictObject({
  name: z.literal('page.set'),
  page: pageIdSchema,
  fields: fieldsSchema,
  restores: restoresSchema,
});

/** Sets fields of a node; those left out stay as they are. */
export const pageSet = defineOperation({
  schema: pageSetSchema,

  apply(site, { page, fields, restores }) {
    const forbidden = checkStands(site, page);
    if (forbidden) return forbidden;
    const node = nodeAt(site, page);
    const next = withFields(node, fields);
    const wrong =
      checkRestored(restores) ??
      checkSlugs(site, page, fields.slug, node.parent, restores !== undefined) ??
      (fields.access && restores === undefined ? checkAccess(site, page, next.access) : null) ??
      (fields.frame && restores === undefined ? checkFrame(site, next.frame) : null) ??
      (restores === undefined ? checkDetails(site, page, fields.details) : null) ??
      (fields.type !== undefined || fields.target !== undefined
        ? checkTarget(site, page, next.type, next.target, restores !== undefined)
        : null);
    if (wrong) return wrong;
    if (Object.keys(next.title).length === 0) return refuse('title-empty', { page });
    if (next.type === 'link' && childrenOf(site, page).length > 0)
      return refuse('pages-below', { page, below: childrenOf(site, page).length });
    if (next.type !== 'page' && next.content !== null) return refuse('has-text', { page });

    const change = new SiteChange(site);
    if (!isSameNode(node, next)) change.put(next);
    const home = homeOf(change.site);
    if (addsStep(node, homeOf(site)) !== addsStep(next, home)) {
      // The children come into another scope, or the node comes into this one.
      settleSlugs(
        change,
        [page, ...childrenOf(change.site, page)].flatMap((id) => frontierOf(change.site, id, home)),
        false,
      );
    } else if (!sameSlugs(node.slug, next.slug)) settleSlugs(change, [page], false);
    settleAfter(change, []);
    restoreSlugs(change, restores);
    if (change.touched.size === 0) return { ok: true, site, inverse: [], touched: [] };
    const before = slugsBefore(change);
    return {
      ok: true,
      site: change.site,
      inverse: [{ name: 'page.set', page, fields: fieldsBefore(node, next, fields), restores: before }],
      touched: [...change.touched],
    };
  },

  cells: ({ page, fields }) => fieldsSet(fields).map((field) => `${page}.${field}`),

  words({ page, fields }, site) {
    const { language } = site.settings;
    const name = quoted(site, page);
    const told = PAGE_FIELD_NAMES.filter(
      // A new title brings its slug along.
      (field) => fields[field] !== undefined && (field !== 'slug' || fields.title === undefined),
    ).map((field) => pageField(field).words(fields[field], name, language));
    return told.filter(Boolean).join(', ') || `left ${name} as it was`;
  },
});

/** The names of the fields that are set; those of the rule and of the plan, and each question, by themselves: `plan.owner`. */
export const fieldsSet = (fields: PageChanges): string[] =>
  PAGE_FIELD_NAMES.flatMap((name) => {
    const change = fields[name];
    if (change === undefined) return [];
    return (
      pageField(name)
        .partsOf?.(change)
        .map((part) => `${name}.${part}`) ?? [name]
    );
  });

/** The fields of which `isWanted` holds, by the names that `fieldsSet` gives. */
export const fieldsAmong = (fields: PageChanges, isWanted: (field: string) => boolean): PageChanges =>
  Object.fromEntries(
    PAGE_FIELD_NAMES.flatMap((name) => {
      const change = fields[name];
      const { partsAmong } = pageField(name);
      if (change === undefined) return [];
      if (!partsAmong) return isWanted(name) ? [[name, change]] : [];
      const wanted = partsAmong(change, (part) => isWanted(`${name}.${part}`));
      return wanted === undefined ? [] : [[name, wanted]];
    }),
  );

function withFields(node: SiteNode, fields: PageChanges): SiteNode {
  const next = withChanges(node, fields);
  const { type } = next;
  return {
    ...node,
    ...next,
    slug: nextSlugs(node, type, next.title, fields),
    inAddress: type === 'heading' ? (fields.inAddress ?? (node.type === 'heading' && node.inAddress)) : type === 'page',
    target: type === 'link' ? next.target : (fields.target ?? null),
  };
}

function nextSlugs(node: SiteNode, type: SiteNode['type'], title: SiteNode['title'], fields: PageChanges): Slugs {
  if (type === 'link') return NO_SLUGS;
  if (title === node.title && !fields.slug && type === node.type) return node.slug;
  const given: Slugs = { ...node.slug, ...fields.slug };
  const fromTitle = slugsFromTitle({ type, title, slug: given });
  const slugs: Record<string, Slugs[string]> = {};
  for (const [language, slug] of Object.entries(fromTitle)) {
    const asked = fields.slug?.[language];
    const unchanged = title[language] === node.title[language] && !asked && node.slug[language];
    slugs[language] = unchanged || (asked && asked.text !== '' ? asked : slug);
  }
  return sameSlugs(slugs, node.slug) ? node.slug : slugs;
}

/** The fields that make `node` of `next`: those that were set, and those that followed from them. */
function fieldsBefore(node: SiteNode, next: SiteNode, set: PageChanges): PageChanges {
  const before = changesBetween(next, node);
  if (set.type !== undefined) Object.assign(before, { type: node.type, inAddress: node.inAddress });
  if (Object.keys(node.slug).length === 0) delete before.slug;
  return before;
}
