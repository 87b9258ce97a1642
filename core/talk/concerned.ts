import type { PageId } from '../model/ids.ts';
import { type Site, branchOf } from '../model/site.ts';
import type { ConcernKind } from './thread.ts';

/** A page that somebody follows, with all below it. */
export interface Follow {
  readonly account: string;
  readonly page: PageId;
}

interface Said {
  readonly page: PageId;
  /** Who said it: it does not concern them. */
  readonly by: string;
  readonly mentioned: readonly string[];
  /** Who has said something there before. */
  readonly earlier: readonly string[];
  readonly follows: readonly Follow[];
  /** Those whom it can concern: who may read the page. */
  readonly readers: readonly { readonly id: string; readonly name: string }[];
}

/** Whom it concerns that something was said of a page, each with the strongest reason. Who may not read the page is never told. */
export function concernedBy(
  site: Site,
  { page, by, mentioned, earlier, follows, readers }: Said,
): Map<string, ConcernKind> {
  const above = pageAndAbove(site, page);
  const owner = ownerOf(site, page);
  const followers = new Set(follows.filter((one) => above.has(one.page)).map(({ account }) => account));
  const [named, spoke] = [new Set(mentioned), new Set(earlier)];
  const concerned = new Map<string, ConcernKind>();
  for (const { id, name } of readers) {
    if (id === by) continue;
    if (named.has(id)) concerned.set(id, 'mention');
    else if (spoke.has(id)) concerned.set(id, 'answer');
    else if (followers.has(id) || (owner !== '' && sameName(name, owner))) concerned.set(id, 'comment');
  }
  return concerned;
}

/**
 * The pages that are somebody's, each with the moment from which on it is (ISO 8601), none of them before `earliest`: those that name them
 * as owner, and those of the branches that they follow, from when they began to.
 */
export function pagesOf(
  site: Site,
  name: string,
  follows: readonly { readonly page: PageId; readonly since: string }[],
  earliest: string,
): Map<PageId, string> {
  const own = new Map<PageId, string>();
  for (const page of branchOf(site, null)) if (sameName(ownerOf(site, page), name)) own.set(page, earliest);
  for (const { page, since } of follows) {
    if (site.nodes.get(page)?.removedWith !== null) continue;
    const from = since > earliest ? since : earliest;
    for (const one of branchOf(site, page)) if (from < (own.get(one) ?? '~')) own.set(one, from);
  }
  return own;
}

/** A page and all above it, whether it stands in the tree or was removed. */
function pageAndAbove(site: Site, page: PageId): Set<PageId> {
  const above = new Set<PageId>();
  for (let at: PageId | null = page; at !== null && !above.has(at); at = site.nodes.get(at)?.parent ?? null)
    above.add(at);
  return above;
}

const ownerOf = (site: Site, page: PageId): string => site.nodes.get(page)?.plan?.owner ?? '';

/** Owners of pages are typed, so capitals and spaces at the ends do not tell two people apart. */
export const sameName = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();
