import type { PageId } from '../model/ids.ts';
import { type Site, homeOf } from '../model/site.ts';
import { type Outline, outlineOf } from './outline.ts';
import type { State } from './state.ts';

/** Why a node is not in the main menu; `in` where it is. The order of the list is the order in which rules decide. */
export const MENU_ANSWERS = [
  'in',
  'hidden',
  'closed',
  'for others',
  'off menus',
  'too deep',
  'above not in menu',
  'leads nowhere',
] as const;
export type MenuAnswer = (typeof MENU_ANSWERS)[number];

/** The main menu shows so many levels. */
export const MAIN_MENU_DEPTH = 2;

/** All that follows from a site's tree, row by row of its outline. */
export interface Derived {
  readonly outline: Outline;
  readonly home: PageId | null;
  /** The page's address, beginning with `/`; for a heading or a link null. */
  readonly addresses: readonly (string | null)[];
  /** The row of the page whose being hidden keeps this one from being reached, or -1. The topmost one decides. */
  readonly hiddenBy: Int32Array;
  readonly menu: readonly MenuAnswer[];
  /** The place among its siblings in the main menu, from 1; 0 where the node is not in it. */
  readonly menuPlace: Int32Array;
  readonly states: readonly State[];
  /** The row with that address. */
  readonly rowAt: ReadonlyMap<string, number>;
}

const known = new WeakMap<Site, Derived>();

/** All that follows from the site; the same object again for the same site. */
export function derivedOf(site: Site): Derived {
  let derived = known.get(site);
  if (!derived) {
    derived = derive(site, outlineOf(site));
    known.set(site, derived);
  }
  return derived;
}

/**
 * One pass over the outline. `isShut` names rows that are closed to the visitor whom it is made for: such a page is as one
 * that is hidden by itself. `isForOthers` names those whose menu entries are for other visitors.
 */
export function derive(
  site: Site,
  outline: Outline,
  isShut: (row: number) => boolean = () => false,
  isForOthers: (row: number) => boolean = () => false,
): Derived {
  const { parent, depth, slugs, isPage, inMenus, hidden, states } = outline;
  const count = outline.nodes.length;
  const home = homeOf(site);
  const homeRow = home === null ? -1 : outline.rowOf.get(home)!;
  const paths: string[] = new Array<string>(count);
  const addresses: (string | null)[] = new Array<string | null>(count);
  const hiddenBy = new Int32Array(count);
  /** The row of the topmost ancestor, or the node itself, that hides its whole branch. */
  const branchHiddenBy = new Int32Array(count);
  const menu: MenuAnswer[] = new Array<MenuAnswer>(count);
  const menuPlace = new Int32Array(count);
  const placesUsed = new Int32Array(count + 1);
  for (let row = 0; row < count; row++) {
    const above = parent[row]!;

    let path = above === -1 ? '' : paths[above]!;
    let address: string | null = null;
    const slug = slugs[row]!;
    if (row === homeRow) {
      path = '';
      address = '/';
    } else if (slug !== null) {
      path = `${path}/${slug}`;
      if (isPage[row] === 1) address = path;
    }
    paths[row] = path;
    addresses[row] = address;

    const inherited = above === -1 ? -1 : branchHiddenBy[above]!;
    const own = hidden[row]!;
    branchHiddenBy[row] = inherited !== -1 ? inherited : own === 2 ? row : -1;
    const by = inherited !== -1 ? inherited : own === 0 ? -1 : row;
    const shut = by === -1 && isShut(row);
    hiddenBy[row] = shut ? row : by;

    let answer: MenuAnswer = 'in';
    if (by !== -1) answer = 'hidden';
    else if (shut) answer = 'closed';
    else if (isForOthers(row)) answer = 'for others';
    else if (inMenus[row] === 0) answer = 'off menus';
    else if (depth[row]! >= MAIN_MENU_DEPTH) answer = 'too deep';
    else if (above !== -1 && menu[above] !== 'in') answer = 'above not in menu';
    else menuPlace[row] = ++placesUsed[above + 1]!;
    menu[row] = answer;
  }
  dropDeadAliases(outline, hiddenBy, menu, menuPlace);
  let rowAt: Map<string, number> | undefined;
  return {
    outline,
    home,
    addresses,
    hiddenBy,
    menu,
    menuPlace,
    states,
    get rowAt() {
      return (rowAt ??= makeRowAt(addresses));
    },
  };
}

/** An alias of a page that cannot be reached leaves the menu, and those after it move up. */
function dropDeadAliases(outline: Outline, hiddenBy: Int32Array, menu: MenuAnswer[], menuPlace: Int32Array): void {
  for (const row of outline.aliases) {
    if (menu[row] !== 'in') continue;
    const target = outline.nodes[row]!.target;
    if (!target || !('page' in target)) continue;
    const at = outline.rowOf.get(target.page);
    if (at !== undefined && hiddenBy[at] === -1) continue;
    menu[row] = 'leads nowhere';
    menuPlace[row] = 0;
    const above = outline.parent[row]!;
    const last = above === -1 ? outline.nodes.length : outline.end[above]!;
    for (let next = outline.end[row]!; next < last; next = outline.end[next]!)
      if (menuPlace[next]! > 0) menuPlace[next]! -= 1;
  }
}

function makeRowAt(addresses: readonly (string | null)[]): Map<string, number> {
  const rows = new Map<string, number>();
  addresses.forEach((address, row) => {
    if (address !== null) rows.set(address, row);
  });
  return rows;
}

/** Whether visitors can reach the page, as far as hiding decides. */
export const isReachable = (derived: Derived, row: number): boolean => derived.hiddenBy[row] === -1;

/** "2.3" for the third entry below the second one, or null where the node is not in the main menu. */
export function menuNumber(derived: Derived, row: number): string | null {
  if (derived.menuPlace[row] === 0) return null;
  const above = derived.outline.parent[row]!;
  return above === -1 ? `${derived.menuPlace[row]}` : `${menuNumber(derived, above)}.${derived.menuPlace[row]}`;
}
