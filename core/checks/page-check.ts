import type { Derived } from '../derive/derived.ts';
import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';

/** What checks of pages look at. */
export interface PageFacts {
  readonly site: Site;
  readonly derived: Derived;
  /** The rows of pages that somebody can read, other than those that stand in for signing in and the like. */
  readonly read: readonly number[];
  /** Whether everyone can read the page of a row. */
  readonly isPublic: (row: number) => boolean;
  /** The links that texts have to pages. */
  readonly textLinks: readonly { readonly page: PageId; readonly to: PageId }[];
}

/** One thing that a page can lack. Gives the rows of the pages that do, and another page that it is about, if there is one. */
export type PageCheck = (facts: PageFacts) => readonly { readonly row: number; readonly other?: PageId }[];
