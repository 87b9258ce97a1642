/** One address of the old site, with what is known of it. */
export interface OldPage {
  readonly address: string;
  readonly title: string;
  readonly description: string;
  readonly headings: readonly string[];
  /** How many words its text has, or null where it was not read. */
  readonly words: number | null;
  /** How many other pages of the old site link to it, and how many it links to; null where it was not read. */
  readonly linksIn: number | null;
  readonly linksOut: number | null;
  /** The HTTP status, or null where it was not asked for. */
  readonly status: number | null;
  /** How many visits it has, in whatever time the person counted; null where that is not known. */
  readonly visits: number | null;
  /** The beginning of its text, for comparing. */
  readonly text: string;
}

/** An old page of which the address alone is known. */
export const unreadPage = (address: string): OldPage => ({
  address,
  title: '',
  description: '',
  headings: [],
  words: null,
  linksIn: null,
  linksOut: null,
  status: null,
  visits: null,
  text: '',
});

/** So much of a page's text is kept for comparing, in characters. */
export const KEPT_TEXT = 4000;
export const MAX_OLD_PAGES = 50_000;

/** What was wrong with a line of what was brought. */
export interface LineFault {
  readonly line: number;
  readonly detail: string;
}

/** The pages that were read, and the lines that were not understood. */
export interface ReadPages {
  readonly pages: readonly OldPage[];
  readonly faults: readonly LineFault[];
}
