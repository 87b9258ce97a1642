import type { PageId } from '../model/ids.ts';
import { type Site } from '../model/site.ts';
import { folded } from './folded.ts';
import { foldedNamesOf } from './folded-titles.ts';
import { isNearText } from './near-words.ts';
import type { Outline } from './outline.ts';

/** The rows that show while these nodes are open, in tree order. */
export function visibleRows(outline: Outline, open: ReadonlySet<PageId>): number[] {
  const rows: number[] = [];
  for (let row = 0; row < outline.nodes.length;) {
    rows.push(row);
    row = open.has(outline.nodes[row]!.id) ? row + 1 : outline.end[row]!;
  }
  return rows;
}

export interface Found {
  /** The rows that match, and those above them as context, in tree order. */
  readonly rows: readonly number[];
  readonly matches: ReadonlySet<number>;
  /** Whether none match as the words are typed, and these do but for a slip or two in typing. */
  readonly isNear: boolean;
}

/** What is typed to be found, as folded words. */
export const typedWords = (query: string): string[] =>
  folded(query)
    .split(/\s+/)
    .filter((word) => word !== '');

/**
 * The rows whose title or menu label holds every word of the query, upper and lower case and accents apart; where there are none, those
 * for which the words may be meant.
 */
export function findRows(
  site: Site,
  outline: Outline,
  query: string,
  isOffered: (row: number, page: PageId) => boolean = () => true,
): Found {
  const words = typedWords(query);
  const titles = foldedNamesOf(site);
  const titleOf = (row: number) => (isOffered(row, outline.nodes[row]!.id) ? titles.at(row) : null);
  const found = withContext(outline, (row) => {
    const title = titleOf(row);
    return title !== null && words.every((word) => title.includes(word));
  });
  return withSlips(outline, words, found, titleOf);
}

/** What was found; where nothing was, the rows that are nearly called so. @param titleOf is folded; null for a row that is not asked for */
export function withSlips(
  outline: Outline,
  words: readonly string[],
  found: Found,
  titleOf: (row: number) => string | null,
): Found {
  if (words.length === 0 || found.matches.size > 0) return found;
  const near = withContext(outline, (row) => {
    const title = titleOf(row);
    return title !== null && isNearText(words, title);
  });
  return { ...near, isNear: near.matches.size > 0 };
}

/** The rows that match, with those above them. */
export function withContext(outline: Outline, isMatch: (row: number) => boolean): Found {
  const matches = new Set<number>();
  const isShown = new Uint8Array(outline.nodes.length);
  for (let row = 0; row < outline.nodes.length; row++) {
    if (!isMatch(row)) continue;
    matches.add(row);
    for (let at = row; at !== -1 && isShown[at] === 0; at = outline.parent[at]!) isShown[at] = 1;
  }
  const rows: number[] = [];
  for (let row = 0; row < isShown.length; row++) if (isShown[row] === 1) rows.push(row);
  return { rows, matches, isNear: false };
}
