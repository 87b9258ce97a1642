import { z } from 'zod';
import { pageIdSchema } from '../model/ids.ts';
import { type SiteNode, nodeOf } from '../model/node.ts';
import { fromKeptValues, keptValuesShape, toKeptValues } from '../model/page-fields.ts';
import { orderKeySchema } from '../model/place.ts';
import { refuse } from '../model/refusal.ts';
import { SiteChange } from '../model/site-change.ts';
import { andBelow, defineOperation, quoted } from './definition.ts';
import { removedWith } from './page-put-back.ts';

export const pageEraseSchema = z.strictObject({ name: z.literal('page.erase'), page: pageIdSchema });

/**
 * Deletes for good what was removed with a node: nothing of it is left in the site. Refused while visitors still have
 * any of it. What was removed before, from below it, is kept; it now hangs where the erased branch did.
 */
export const pageErase = defineOperation({
  schema: pageEraseSchema,

  apply(site, { page }) {
    const node = site.nodes.get(page);
    if (!node) return refuse('page-unknown', { page });
    if (node.removedWith !== page) return refuse('page-not-removed', { page });
    const gone = new Set(removedWith(site, page));
    for (const id of gone) if (site.live.get(id)?.retired === false) return refuse('still-live', { page: id });
    const orphans: SiteNode[] = [];
    site.nodes.forEach((one) => {
      if (one.parent !== null && gone.has(one.parent) && !gone.has(one.id)) orphans.push(one);
    });
    const before = [...[...gone].map((id) => site.nodes.get(id)!), ...orphans].map(toRemoved);
    const change = new SiteChange(site);
    for (const orphan of orphans) change.put({ ...orphan, parent: node.parent });
    for (const id of gone) change.takeOut(id);
    return {
      ok: true,
      site: change.site,
      inverse: [{ name: 'page.recall', nodes: before }],
      touched: [...change.touched],
    };
  },

  cells: ({ page }) => [`${page}.there`],

  words: ({ page }, site) => `deleted ${quoted(site, page)}${andBelow(removedWith(site, page).length - 1)} for good`,
});

const removedNodeSchema = z.strictObject({
  id: pageIdSchema,
  parent: pageIdSchema.nullable(),
  order: orderKeySchema,
  ...keptValuesShape,
  removedWith: pageIdSchema,
});
type RemovedNode = z.output<typeof removedNodeSchema>;

const toRemoved = ({ id, parent, order, removedWith: top, ...values }: SiteNode): RemovedNode => ({
  id,
  parent,
  order,
  ...toKeptValues(values),
  removedWith: top!,
});

export const pageRecallSchema = z.strictObject({
  name: z.literal('page.recall'),
  nodes: z.array(removedNodeSchema).min(1),
});

/** In inverses of erasing only: the removed nodes as they were, removed still. */
export const pageRecall = defineOperation({
  schema: pageRecallSchema,

  apply(site, { nodes }) {
    const gone = nodes.filter((node) => !site.nodes.has(node.id));
    const standing = nodes.find((node) => site.nodes.get(node.id)?.removedWith === null);
    if (standing) return refuse('page-not-removed', { page: standing.id });
    const [top] = gone;
    if (!top) return refuse('page-exists', { page: nodes[0]!.id });
    const change = new SiteChange(site);
    for (const node of nodes) {
      const now = site.nodes.get(node.id);
      change.put(now ? { ...now, parent: node.parent } : nodeOf(node, fromKeptValues(node), node.removedWith));
    }
    return {
      ok: true,
      site: change.site,
      inverse: [{ name: 'page.erase', page: top.removedWith }],
      touched: [...change.touched],
    };
  },

  cells: ({ nodes }) => nodes.map((node) => `${node.id}.there`),

  words: ({ nodes }) => `kept ${nodes.length === 1 ? '1 removed page' : `${nodes.length} removed pages`} after all`,
});
