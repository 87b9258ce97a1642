import type { ContentId, PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import { type Powers, mayAt } from './powers.ts';

/** Those of some pages whose texts somebody may read. */
export const readableOf = (site: Site, powers: Powers, pages: readonly PageId[]): PageId[] =>
  mayAt(site, powers, 'read', null) && powers.onBranches.size === 0
    ? [...pages]
    : pages.filter((page) => mayAt(site, powers, 'read', page));

/**
 * Whether somebody may read a text: one of a page where they read, now, or one of the texts that many pages show. Who reads on the whole
 * site reads the texts that pages had before as well.
 */
export function mayReadText(site: Site, powers: Powers, content: ContentId): boolean {
  if (mayAt(site, powers, 'read', null)) return true;
  return (
    site.settings.shared.some((one) => one.content === content) ||
    site.settings.labels.some(({ pageOutline }) => pageOutline === content) ||
    site.nodes.some(
      (node, page) => (node.content === content || node.plan?.notes === content) && mayAt(site, powers, 'read', page),
    )
  );
}
