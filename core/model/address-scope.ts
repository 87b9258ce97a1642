import type { PageId } from './ids.ts';
import type { SiteNode } from './node.ts';
import type { SiteChange } from './site-change.ts';
import { type Site, addsStep, childrenOf, homeOf, maybeNodeAt, nodeAt } from './site.ts';
import { NO_SLUGS, RESERVED_AT_ROOT, type Slug, type Slugs, freeSlug, sameSlugs, slugFromTitle } from './slug.ts';

/**
 * Two nodes share an *address scope* when their slugs follow the same step: siblings do, and so do the children of
 * a heading that adds no step, or of the home page, with the nodes around it. Slugs are unique in a scope.
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
export function frontierOf(site: Site, id: PageId, home: PageId | null): PageId[] {
  return addsStep(nodeAt(site, id), home)
    ? [id]
    : childrenOf(site, id).flatMap((child) => frontierOf(site, child, home));
}

/** The nodes of a scope. */
export function scopeMembers(site: Site, scope: PageId | null, home: PageId | null): Set<PageId> {
  const members = new Set(childrenOf(site, scope).flatMap((child) => frontierOf(site, child, home)));
  if (scope === null && home !== null) for (const id of frontierOf(site, home, home)) members.add(id);
  return members;
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
    const next: PageId | undefined = [...scopeMembers(site, at, home)].find(
      (id) => stepOf(nodeAt(site, id), language) === step,
    );
    if (next === undefined) return null;
    at = next;
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
export function settleSlugs(change: SiteChange, ids: Iterable<PageId>, anew: boolean): void {
  const home = homeOf(change.site);
  const takenIn = new Map<PageId | null, Map<string, Set<PageId>>>();
  for (const id of ids) {
    const node = maybeNodeAt(change.site, id);
    if (!node || node.type === 'link') continue;
    let next = anew ? slugsFromTitle(node) : node.slug;
    if (addsStep(node, home)) {
      const scope = scopeBelow(change.site, node.parent, home);
      let taken = takenIn.get(scope);
      if (!taken) takenIn.set(scope, (taken = slugsTaken(change.site, scopeMembers(change.site, scope, home))));
      for (const [language, slug] of Object.entries(next)) {
        const text = freeSlug(slug.text, (candidate) => {
          if (scope === null && RESERVED_AT_ROOT.has(candidate)) return true;
          const holders = taken.get(`${language}/${candidate}`);
          return holders !== undefined && (holders.size > 1 || !holders.has(id));
        });
        if (text !== slug.text) next = { ...next, [language]: { text, own: slug.own } };
      }
      for (const [language, slug] of Object.entries(node.slug)) taken.get(`${language}/${slug.text}`)?.delete(id);
      for (const [language, slug] of Object.entries(next)) addTaken(taken, `${language}/${slug.text}`, id);
    }
    if (!sameSlugs(next, node.slug)) change.put({ ...node, slug: next });
  }
}

function slugsTaken(site: Site, members: Iterable<PageId>): Map<string, Set<PageId>> {
  const taken = new Map<string, Set<PageId>>();
  for (const id of members) {
    for (const [language, slug] of Object.entries(nodeAt(site, id).slug))
      addTaken(taken, `${language}/${slug.text}`, id);
  }
  return taken;
}

function addTaken(taken: Map<string, Set<PageId>>, key: string, id: PageId): void {
  const holders = taken.get(key);
  if (holders) holders.add(id);
  else taken.set(key, new Set([id]));
}

/**
 * What a change of the tree asks of the slugs: `moved` are the nodes that may stand in another scope now (their slugs
 * are made anew where they follow the title); where the home page became another one, the pages around it are settled.
 */
export function settleAfter(change: SiteChange, moved: readonly PageId[]): void {
  const home = homeOf(change.site);
  const homeBefore = homeOf(change.before);
  const frontier = (id: PageId | null) =>
    id !== null && maybeNodeAt(change.site, id) ? frontierOf(change.site, id, home) : [];
  settleSlugs(change, moved.flatMap(frontier), true);
  if (home !== homeBefore) settleSlugs(change, [homeBefore, home].flatMap(frontier), false);
}

/** The slugs that the nodes touched so far had before, where they have others now. */
export function slugsBefore(change: SiteChange): Record<PageId, Slugs> {
  const found: Record<PageId, Slugs> = {};
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
