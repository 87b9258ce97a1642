import { z } from 'zod';
import { settleAfter, settleSlugs, slugsBefore, slugsFromTitle } from '../model/address-scope.ts';
import { type PageId, pageIdSchema } from '../model/ids.ts';
import type { SiteNode } from '../model/node.ts';
import type { Target } from '../model/target.ts';
import { checkParent, orderKeyFor, placeSchema } from '../model/place.ts';
import { NO_PLAN, type PagePlan, withPlan } from '../model/plan.ts';
import { refuse } from '../model/refusal.ts';
import { SiteChange } from '../model/site-change.ts';
import { type Site, branchOf, homeOf, nodeAt } from '../model/site.ts';
import { type Slugs, sameSlugs } from '../model/slug.ts';
import { checkStands } from './checks.ts';
import { andBelow, defineOperation, quoted } from './definition.ts';

export const pageCopySchema = z.strictObject({
  name: z.literal('page.copy'),
  page: pageIdSchema,
  place: placeSchema,
  /** The ids of the copies, by the ids of the nodes that are copied: the node itself, and those below that come along. */
  ids: z.record(pageIdSchema, pageIdSchema),
});

/**
 * Copies a node, and of those below it the ones that have an id for their copy and whose parent is copied too. The
 * copies are drafts with the same texts; a link to a copied page leads to the copy; slugs that are taken get `-2`.
 */
export const pageCopy = defineOperation({
  schema: pageCopySchema,

  apply(site, { page, place, ids }) {
    const forbidden = checkStands(site, page);
    if (forbidden) return forbidden;
    const ofCopy = ids as Readonly<Record<PageId, PageId>>;
    if (ofCopy[page] === undefined) return refuse('copy-without-id', { page });
    const copied = copiedFrom(site, page, ofCopy);
    const taken = copied.find((id) => site.nodes.has(ofCopy[id]!)) ?? repeated(copied.map((id) => ofCopy[id]!));
    if (taken !== undefined) return refuse('page-exists', { page: ofCopy[taken] ?? taken });
    const misplaced = checkParent(site, place.parent, null, heightAmong(site, page, new Set(copied)));
    if (misplaced) return misplaced;

    const change = new SiteChange(site);
    for (const id of copied) {
      const node = nodeAt(site, id);
      change.put({
        ...node,
        id: ofCopy[id]!,
        parent: id === page ? place.parent : ofCopy[node.parent!]!,
        order: id === page ? orderKeyFor(site, place, null) : node.order,
        slug: slugsFromTitle(node),
        target: targetOfCopy(node, ofCopy),
        plan: planOfCopy(node.plan),
      });
    }
    const made = copied.map((id) => ofCopy[id]!);
    settleSlugs(change, made, false);
    settleAfter(change, []);
    const lastFirst = made.toReversed();
    return {
      ok: true,
      site: change.site,
      inverse: lastFirst.map((id) => ({
        name: 'page.remove',
        page: id,
        forGood: true,
        restores: id === ofCopy[page] ? slugsLost(site, change, lastFirst) : undefined,
      })),
      touched: [...change.touched],
    };
  },

  cells: ({ ids }) => Object.values(ids).map((id) => `${id}.there`),

  words({ page, place, ids }, site) {
    const below = andBelow(copiedFrom(site, page, ids as Record<PageId, PageId>).length - 1);
    const where = place.parent === null ? 'to the top level' : `into ${quoted(site, place.parent)}`;
    return `copied ${quoted(site, page)}${below} ${where}`;
  },
});

/**
 * The slugs that others had before, where they have other ones after the copy, or after its removal piece by piece: while
 * a copy is home, the pages around it are settled anew with each piece that goes.
 */
function slugsLost(site: Site, change: SiteChange, lastFirst: readonly PageId[]): Record<PageId, Slugs> {
  const before = slugsBefore(change);
  if (homeOf(change.site) === homeOf(site)) return before;
  const back = new SiteChange(change.site);
  for (const id of lastFirst) {
    const piece = new SiteChange(back.site);
    piece.takeOut(id);
    settleAfter(piece, []);
    back.become(piece.site);
  }
  site.nodes.forEach(({ id, slug }) => {
    const left = back.site.nodes.get(id);
    if (left && !sameSlugs(left.slug, slug)) before[id] = slug;
  });
  return before;
}

/** The nodes of the branch that are copied: each has an id for its copy, and its parent is among them. In tree order. */
function copiedFrom(site: Site, page: PageId, ids: Readonly<Record<PageId, PageId>>): PageId[] {
  const found = new Set<PageId>();
  for (const id of site.nodes.has(page) ? branchOf(site, page) : [])
    if (ids[id] !== undefined && (id === page || found.has(nodeAt(site, id).parent!))) found.add(id);
  return [...found];
}

function targetOfCopy({ target }: SiteNode, ids: Readonly<Record<PageId, PageId>>): Target | null {
  if (target === null || !('page' in target)) return target;
  return { page: ids[target.page] ?? target.page };
}

/** A copy is to be written anew: it takes over what it is for and who writes it, and neither old addresses nor questions. */
function planOfCopy(plan: PagePlan | null): PagePlan | null {
  if (plan === null) return null;
  const { origin, readiness, oldAddresses, questions } = NO_PLAN;
  const open = Object.fromEntries(Object.keys(plan.questions).map((id) => [id, null]));
  return withPlan(plan, { origin, readiness, oldAddresses: [...oldAddresses], questions: { ...questions, ...open } });
}

const repeated = (ids: readonly PageId[]): PageId | undefined => ids.find((id, index) => ids.indexOf(id) !== index);

function heightAmong(site: Site, page: PageId, among: ReadonlySet<PageId>): number {
  let height = 0;
  for (const id of among) {
    let depth = 0;
    for (let at = id; at !== page; at = nodeAt(site, at).parent!) depth++;
    height = Math.max(height, depth);
  }
  return height;
}
