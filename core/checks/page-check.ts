import type { Derived } from '../derive/derived.ts';
import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import type { TextFault } from '../sections/text-faults.ts';

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
  /** What was found in texts, by page. */
  readonly textFaults: readonly OfText[];
}

export interface OfText {
  readonly page: PageId;
  readonly fault: TextFault;
}

/** One thing that a page can lack: how it is found, and all words about it. */
export interface PageCheck {
  /** In the few words of a cell. */
  readonly called: string;
  /** What is lacking and what can be done, as a sentence. `other`: the title of the other page that it is about. */
  words(other: string | null): string;
  /**
   * The rows of the pages that lack it, in tree order, and another page that it is about, if there is one. A check that looks at all pages
   * gives null now and then: there others can have their turn.
   */
  find(facts: PageFacts): Iterable<{ readonly row: number; readonly other?: PageId } | null>;
}

/** So many pages are looked at in one go. */
const AT_ONCE = 1000;

/** The rows of pages that somebody can read and that lack something, with a breath after every so many. */
export function* rowsThatLack(read: readonly number[], isLacking: (row: number) => boolean) {
  for (let at = 0; at < read.length; at++) {
    if (at % AT_ONCE === AT_ONCE - 1) yield null;
    if (isLacking(read[at]!)) yield { row: read[at]! };
  }
}
