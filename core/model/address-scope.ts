import type { PageId } from './ids.ts';
import type { SiteNode } from './node.ts';
import type { SiteChange } from './site-change.ts';
import { isSlugOfAnother, parentsInScope } from './slug-index.ts';
import { type Site, addsStep, childrenOf, homeOf, maybeNodeAt, nodeAt } from './site.ts';
import { NO_SLUGS, type Slug, type Slugs, freeSlug, isReservedSlug, sameSlugs, slugFromTitle } from './slug.ts';

/**
 * Two nodes share an *address scope* when their slugs follow the same step: siblings do, and so do the children of
 * a heading that adds no step, or of the home page, with the nodes around it. A slug is unique in its scope, whatever
 * the language: a node that has none in the language of the site is found by one of another language.
 */

/** The node whose step precedes the slugs of `parent`'s children, or null for the root. */
export function scopeBelow(site: Site, parent: PageId | null, home: PageId | null): PageId | null {
  for (let at = parent; at !== null;) {
    if (at === home) return null;
    const node = nodeAt(site, at);
    if (addsStep(node, home)) return at;
    at = node.parent;
  }
  return null;
}

/** The nodes whose own step is the first one at or below `id`: the node itself if it adds a step. */
export const frontierOf = (site: Site, id: PageId, home: PageId | null): PageId[] =>
  frontier(site, [id], home, true).map((node) => node.id);

/** `throughHome`: what stands below the home page too. Its addresses begin at the root, wherever it stands. */
function frontier(
  site: Site,
  ids: readonly PageId[],
  home: PageId | null,
  throughHome: boolean,
  found: SiteNode[] = [],
): SiteNode[] {
  for (const id of ids) {
    const node = nodeAt(site, id);
    if (addsStep(node, home)) found.push(node);
    else if (throughHome || id !== home) frontier(site, childrenOf(site, id), home, throughHome, found);
  }
  return found;
}

/** The nodes of a scope, each once. */
export function scopeMembers(site: Site, scope: PageId | null, home: PageId | null): SiteNode[] {
  const members = frontier(site, childrenOf(site, scope), home, scope === null);
  if (scope !== null || home === null) return members;
  return [...new Set(frontier(site, [home], home, true, members))];
}

const stepOf = ({ slug }: SiteNode, language: string): string | undefined =>
  (slug[language] ?? Object.values(slug)[0])?.text;

/** The page of the tree that has an address, or null. */
export function pageWithAddress(site: Site, address: string): PageId | null {
  const home = homeOf(site);
  if (address === '/') return home;
  const { language } = site.settings;
  let at: PageId | null = null;
  for (const step of address.slice(1).split('/')) {
    const next: SiteNode | undefined = scopeMembers(site, at, home).find((node) => stepOf(node, language) === step);
    if (!next) return null;
    at = next.id;
  }
  return at !== null && nodeAt(site, at).type === 'page' ? at : null;
}

/** The slugs of a node of that title, following it, before they are held against the neighbours'. */
export function slugsFromTitle(node: Pick<SiteNode, 'type' | 'title' | 'slug'>): Slugs {
  if (node.type === 'link') return NO_SLUGS;
  const slugs: Record<string, Slug> = {};
  for (const [language, title] of Object.entries(node.title)) {
    const own = node.slug[language];
    slugs[language] = own?.own ? own : { text: slugFromTitle(title), own: false };
  }
  return slugs;
}

/**
 * Makes the slugs of these nodes unique in their scopes, each settled in turn with `-2`, `-3` …
 * `anew`: those that follow their title are made from it again first.
 */
export function settleSlugs(change: SiteChange, ids: readonly PageId[], anew: boolean): void {
  const home = homeOf(change.site);
  const scopes = new Map<PageId | null, ReadonlySet<PageId | null>>();
  for (const id of ids) {
    const node = maybeNodeAt(change.site, id);
    if (!node || node.type === 'link') continue;
    const wanted = anew ? slugsFromTitle(node) : node.slug;
    if (!addsStep(node, home)) {
      if (!sameSlugs(wanted, node.slug)) change.put({ ...node, slug: wanted });
      continue;
    }
    const scope = scopeBelow(change.site, node.parent, home);
    const parents = scopes.get(scope) ?? parentsInScope(change.site, scope, home);
    scopes.set(scope, parents);
    let next = wanted;
    const isTaken = (candidate: string) =>
      isReservedSlug(candidate, scope === null) || isSlugOfAnother(change.site, parents, home, id, candidate);
    for (const [language, slug] of Object.entries(wanted)) {
      const text = freeSlug(slug.text, isTaken);
      if (text !== slug.text) next = { ...next, [language]: { text, own: slug.own } };
    }
    if (sameSlugs(next, node.slug)) continue;
    change.put({ ...node, slug: next });
  }
}

/**
 * What a change of the tree asks of the slugs: `moved` are the nodes that may stand in another scope now (their slugs
 * are made anew where they follow the title); where the home page became another one, the pages around it are settled.
 */
export function settleAfter(change: SiteChange, moved: readonly PageId[]): void {
  const home = homeOf(change.site);
  const homeBefore = homeOf(change.before);
  const around = (id: PageId | null) =>
    id !== null && maybeNodeAt(change.site, id) ? frontierOf(change.site, id, home) : [];
  settleSlugs(change, moved.flatMap(around), true);
  if (home !== homeBefore) settleSlugs(change, [homeBefore, home].flatMap(around), false);
}

/** The slugs that the nodes touched so far had before, where they have others now. */
export function slugsBefore(change: SiteChange): Record<PageId, Slugs> {
  // A dictionary from the beginning: an ordinary object would get a shape of its own for each page, kept for ever.
  const found = Object.create(null) as Record<PageId, Slugs>;
  for (const id of change.touched) {
    const was = change.before.nodes.get(id);
    const is = change.site.nodes.get(id);
    if (was && is && !sameSlugs(was.slug, is.slug)) found[id] = was.slug;
  }
  return found;
}

/**
 * Gives nodes the slugs that they had, all together, and settles again only where somebody has taken one of them
 * since. For inverses.
 */
export function restoreSlugs(change: SiteChange, slugs: Readonly<Record<PageId, Slugs>> | undefined): void {
  if (!slugs) return;
  const entries = Object.entries(slugs) as [PageId, Slugs][];
  for (const [id, slug] of entries) {
    const node = change.site.nodes.get(id);
    if (node && node.type !== 'link' && !sameSlugs(node.slug, slug)) change.put({ ...node, slug });
  }
  settleSlugs(
    change,
    entries.map(([id]) => id),
    false,
  );
}
