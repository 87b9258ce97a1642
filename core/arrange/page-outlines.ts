import type { ContentId, PageId } from '../model/ids.ts';
import type { PageKind } from '../model/page-label.ts';
import type { Site } from '../model/site.ts';
import type { Operation } from '../operations/operation.ts';

/** The pages of a kind in the tree by where their text comes from: the outline, themselves, or nowhere. */
export function pagesOfKind(
  site: Site,
  kind: PageKind,
): {
  readonly following: readonly PageId[];
  readonly differing: readonly PageId[];
  readonly without: readonly PageId[];
} {
  const following: PageId[] = [];
  const differing: PageId[] = [];
  const without: PageId[] = [];
  site.nodes.forEach(({ id, type, access, content, removedWith }) => {
    if (type !== 'page' || removedWith !== null || access?.labels.includes(kind.id) !== true) return;
    (content === null ? without : content === kind.pageOutline ? following : differing).push(id);
  });
  return { following, differing, without };
}

/**
 * What sets the outline of a kind: pages that have the one before follow, and where there was none, those without a text begin with it.
 * Pages that differ keep what they have. @param outline null takes it away, from pages that follow it too
 */
export function outlineOperations(site: Site, kind: PageKind, outline: ContentId | null): Operation[] {
  if ((kind.pageOutline ?? null) === outline) return [];
  const { following, without } = pagesOfKind(site, kind);
  const pages = kind.pageOutline === undefined ? without : following;
  return [
    { name: 'label.set', label: kind.id, fields: { pageOutline: outline } },
    ...pages.map((page): Operation => ({ name: 'page.set', page, fields: { content: outline } })),
  ];
}

/** What gives pages of a kind its outline in place of what they say. */
export const followAgain = (kind: PageKind, pages: readonly PageId[]): Operation[] =>
  pages.map((page) => ({ name: 'page.set', page, fields: { content: kind.pageOutline ?? null } }));
