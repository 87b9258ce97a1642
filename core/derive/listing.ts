import { type Listing, PLAIN_LISTING } from '../model/frame.ts';
import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import type { Derived } from './derived.ts';
import { answerOfRow, inOrder } from './menu-range.ts';

/** What a page lists, as rows of the outline. */
export interface Listed {
  readonly row: number;
  readonly below: readonly Listed[];
}

const NO_LISTING: Listing = { ...PLAIN_LISTING, look: 'none' };

/**
 * How the page of a row lists what stands below it. The home page lists it only where it is told to: most have the whole
 * tree in the menu.
 */
export function listingOf({ outline, home }: Pick<Derived, 'outline' | 'home'>, row: number): Listing {
  const { id, frame } = outline.nodes[row]!;
  return frame?.listing ?? (id === home ? NO_LISTING : PLAIN_LISTING);
}

/** The nodes that a page lists for a visitor: those below it, or the whole tree, that are in menus and can be reached. */
export const listedBelow = (site: Site, page: PageId, derived: Derived): readonly Listed[] =>
  listedAs(site, page, derived, listingOf(derived, derived.outline.rowOf.get(page)!));

/** The same where it is said how it lists. Headings count for no level. */
export function listedAs(
  site: Site,
  page: PageId,
  derived: Derived,
  { look, levels, order }: Listing,
): readonly Listed[] {
  const { outline } = derived;
  const own = outline.rowOf.get(page)!;
  if (look === 'none') return [];
  const sorted = inOrder(site, { order }, derived);
  const below = (row: number, left: number): Listed[] => {
    const rows: number[] = [];
    const last = row === -1 ? outline.nodes.length : outline.end[row]!;
    for (let at = row + 1; at < last; at = outline.end[at]!) if (answerOfRow(derived, at) === 'in') rows.push(at);
    return sorted(rows).flatMap((at): Listed[] => {
      const isHeading = outline.nodes[at]!.type === 'heading';
      const under = isHeading ? below(at, left) : left > 1 ? below(at, left - 1) : [];
      return isHeading && under.length === 0 ? [] : [{ row: at, below: under }];
    });
  };
  return look === 'sitemap' ? below(-1, levels) : below(own, levels);
}

/** Tells the rows that a page lists, as `listedBelow` has them, in tree order; of headings those with nothing below them too. */
export function forEachListed(row: number, derived: Derived, tell: (listed: number) => void): void {
  const { outline } = derived;
  const { look, levels } = listingOf(derived, row);
  if (look === 'none') return;
  const tellBelow = (above: number, left: number): void => {
    const last = above === -1 ? outline.nodes.length : outline.end[above]!;
    for (let at = above + 1; at < last; at = outline.end[at]!) {
      if (answerOfRow(derived, at) !== 'in') continue;
      tell(at);
      if (outline.nodes[at]!.type === 'heading') tellBelow(at, left);
      else if (left > 1) tellBelow(at, left - 1);
    }
  };
  tellBelow(look === 'sitemap' ? -1 : row, levels);
}

/**
 * The pages before and after one as the section is read, the section's own page first: those in menus that can be reached.
 * `isShut` names rows that show a lock to the visitor: nobody is led on to these.
 */
export function turnsOfPage(
  page: PageId,
  derived: Derived,
  isShut: (row: number) => boolean = () => false,
): { readonly before: number | null; readonly after: number | null } {
  const { outline, addresses } = derived;
  const row = outline.rowOf.get(page);
  if (row === undefined) return { before: null, after: null };
  let top = row;
  while (outline.parent[top]! !== -1) top = outline.parent[top]!;
  const isTurn = (at: number) =>
    addresses[at] !== null && !isShut(at) && answerOfRow(derived, at) === 'in' && isOffered(at);
  const isOffered = (at: number): boolean => {
    for (let up = outline.parent[at]!; up !== -1; up = outline.parent[up]!) if (outline.inMenus[up] === 0) return false;
    return true;
  };
  let before: number | null = null;
  for (let at = row - 1; at >= top && before === null; at--) if (isTurn(at)) before = at;
  let after: number | null = null;
  for (let at = row + 1; at < outline.end[top]! && after === null; at++) if (isTurn(at)) after = at;
  return { before, after };
}
