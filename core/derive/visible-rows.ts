import type { PageId } from '../model/ids.ts';
import { type Site } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
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
}

/** The rows whose title or menu label holds every word of the query, upper and lower case and accents apart. */
export function findRows(site: Site, outline: Outline, query: string): Found {
  const words = folded(query)
    .split(/\s+/)
    .filter((word) => word !== '');
  const { language } = site.settings;
  return withContext(outline, (row) => {
    const node = outline.nodes[row]!;
    const text = folded(`${textIn(node.title, language)} ${textIn(node.label, language)}`);
    return words.every((word) => text.includes(word));
  });
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
  return { rows, matches };
}

/** Text without upper case and accents, for finding. */
export const folded = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
