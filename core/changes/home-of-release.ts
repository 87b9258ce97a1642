import { liveSiteOf } from '../derive/live-site.ts';
import type { PageId } from '../model/ids.ts';
import { type Site, childrenOf, homeOf, maybeNodeAt } from '../model/site.ts';

/** What a release leaves open about the home page. */
export type HomeOfRelease =
  /** No page of the draft can be it. */
  | { readonly kind: 'none' }
  /** The drafted one would not be live: visitors find nothing at `/`. */
  | { readonly kind: 'not-live'; readonly page: PageId }
  /** Nobody has chosen one: the first page would take `/`. With pages below it that is hardly meant. */
  | { readonly kind: 'not-chosen'; readonly page: PageId; readonly isParent: boolean };

/** What is to be said of the home page before a release; null where visitors get one that was chosen, or had before. @param after the site with the release */
export function homeOfRelease(site: Site, after: Site): HomeOfRelease | null {
  const page = homeOf(site);
  if (page === null) return { kind: 'none' };
  if (!maybeNodeAt(liveSiteOf(after), page)) return { kind: 'not-live', page };
  if (site.settings.home !== null || site.liveSettings?.home === page) return null;
  return { kind: 'not-chosen', page, isParent: childrenOf(site, page).length > 0 };
}
