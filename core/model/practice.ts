import type { PageId } from './ids.ts';
import { type Site, branchOf, isWithin, maybeNodeAt } from './site.ts';

/** Whether a page is the practice page or stands below it, in the tree or removed: there everybody who writes may do anything, and nothing goes live. */
export const isPractice = (site: Site, page: PageId): boolean =>
  site.practice !== null && isWithin(site, page, site.practice);

/** The practice page with all that stands below it; empty where there is none. */
export const practiceBranch = (site: Site): PageId[] =>
  site.practice !== null && maybeNodeAt(site, site.practice) ? branchOf(site, site.practice) : [];

/** A live page that stands in the practice branch, where none may; undefined in a sound site. */
export const liveInPractice = (site: Site): PageId | undefined =>
  practiceBranch(site).find((page) => site.live.get(page)?.retired === false);
