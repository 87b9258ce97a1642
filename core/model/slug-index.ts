import type { PageId } from './ids.ts';
import { LayeredMap } from './layered-map.ts';
import type { SiteNode } from './node.ts';
import { type Site, childrenOf, nodeAt } from './site.ts';
import type { Slugs } from './slug.ts';

/**
 * Which slugs the nodes right below a node have. It is gathered when it is first asked for, and goes along from site to
 * site with each change, so that to add a page costs the same however many stand beside it.
 */
interface Below {
  /** How many of these nodes have a slug, by its text. Those that add no step, wherever home is, are not counted. */
  readonly counts: LayeredMap<string, number>;
  /** The headings that add no step: what stands below them is in the same scope. */
  readonly passages: readonly PageId[];
}
const NOTHING: Below = { counts: new LayeredMap(), passages: [] };

type Nodes = Site['nodes'];
const known = new WeakMap<Nodes, LayeredMap<PageId | null, Below>>();

const stands = (node: SiteNode | undefined): node is SiteNode => node !== undefined && node.removedWith === null;
const isCounted = ({ type, inAddress }: SiteNode): boolean => type !== 'link' && inAddress;
const textsOf = (slugs: Slugs): ReadonlySet<string> => new Set(Object.values(slugs).map(({ text }) => text));

function hasSlug({ slug }: SiteNode, text: string): boolean {
  for (const language in slug) if (slug[language]!.text === text) return true;
  return false;
}

function withNode({ counts, passages }: Below, node: SiteNode, by: 1 | -1): Below {
  if (isCounted(node)) {
    let next = counts;
    for (const text of textsOf(node.slug)) {
      const count = (next.get(text) ?? 0) + by;
      next = count > 0 ? next.set(text, count) : next.delete(text);
    }
    return { counts: next, passages };
  }
  if (node.type !== 'heading') return { counts, passages };
  return { counts, passages: by === 1 ? [...passages, node.id] : passages.filter((id) => id !== node.id) };
}

/** Whether two states of a node are the same as far as slugs below a node go. */
const isAlike = (a: SiteNode, b: SiteNode): boolean =>
  a.slug === b.slug &&
  a.parent === b.parent &&
  a.type === b.type &&
  a.inAddress === b.inAddress &&
  a.removedWith === b.removedWith;

/** Tells that one set of nodes was made of another one by changing these. */
export function carrySlugs(before: Nodes, after: Nodes, changed: Iterable<PageId>): void {
  let all = known.get(before);
  if (all === undefined || before === after) return;
  for (const id of changed) {
    const [was, is] = [before.get(id), after.get(id)];
    if (was === is || (was && is && isAlike(was, is))) continue;
    for (const [node, by] of [
      [was, -1],
      [is, 1],
    ] as const) {
      const below = stands(node) ? all.get(node.parent) : undefined;
      if (stands(node) && below !== undefined) all = all.set(node.parent, withNode(below, node, by));
    }
  }
  known.set(after, all);
}

function belowOf(site: Site, parent: PageId | null): Below {
  const all = known.get(site.nodes) ?? new LayeredMap<PageId | null, Below>();
  let below = all.get(parent);
  if (below === undefined) {
    const nodes = childrenOf(site, parent).map((id) => nodeAt(site, id));
    const counts = new Map<string, number>();
    for (const node of nodes)
      if (isCounted(node)) for (const text of textsOf(node.slug)) counts.set(text, (counts.get(text) ?? 0) + 1);
    const passages = nodes.filter((node) => node.type === 'heading' && !isCounted(node)).map(({ id }) => id);
    below = nodes.length === 0 ? NOTHING : { counts: new LayeredMap(counts), passages };
    known.set(site.nodes, all.set(parent, below));
  }
  return below;
}

/**
 * The nodes right below which those of an address scope stand: see `address-scope.ts`. At the root they stand below the
 * home page too, wherever it is.
 */
export function parentsInScope(site: Site, scope: PageId | null, home: PageId | null): ReadonlySet<PageId | null> {
  const parents = new Set<PageId | null>();
  const waiting: (PageId | null)[] = scope === null && home !== null ? [home, null] : [scope];
  for (let parent = waiting.pop(); parent !== undefined; parent = waiting.pop()) {
    if (parents.has(parent)) continue;
    parents.add(parent);
    waiting.push(...belowOf(site, parent).passages);
  }
  return parents;
}

/** Whether another node of the scope than `id`, which stands in it, has the slug. */
export function isSlugOfAnother(
  site: Site,
  parents: ReadonlySet<PageId | null>,
  home: PageId | null,
  id: PageId,
  text: string,
): boolean {
  let count = 0;
  for (const parent of parents) count += belowOf(site, parent).counts.get(text) ?? 0;
  if (count === 0) return false;
  // The home page adds no step: its slug is nobody's.
  for (const one of home === null || home === id ? [id] : [id, home]) {
    const node = nodeAt(site, one);
    if (parents.has(node.parent) && isCounted(node) && hasSlug(node, text)) count -= 1;
  }
  return count > 0;
}
