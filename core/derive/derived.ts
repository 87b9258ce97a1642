import type { PageId } from '../model/ids.ts';
import { type Site, homeOf } from '../model/site.ts';
import { knownBefore } from '../model/steps.ts';
import { type Outline, outlineOf } from './outline.ts';
import { carriedValues, rowThrough } from './row-runs.ts';
import type { State } from './state.ts';
import { statesOf } from './states.ts';

/** All that follows from a site's tree, row by row of its outline. */
export interface Derived {
  readonly outline: Outline;
  readonly home: PageId | null;
  /** The page's address, beginning with `/`; for a heading or a link null. */
  readonly addresses: readonly (string | null)[];
  /** The row of the page whose being hidden keeps this one from being reached, or -1. The topmost one decides. */
  readonly hiddenBy: Int32Array;
  /** Whether the entries of a row in menus are for other visitors than the one whom this was derived for. */
  readonly isForOthers: (row: number) => boolean;
  readonly states: readonly State[];
  /** The row with that address. */
  readonly rowAt: ReadonlyMap<string, number>;
}

const known = new WeakMap<Site, Derived>();
const never = () => false;

/** All that follows from the site; the same object again for the same site. */
export function derivedOf(site: Site): Derived {
  let derived = known.get(site);
  if (!derived) {
    const outline = outlineOf(site);
    const limits = { mostSteps: MAX_STEPS, mostTouched: MAX_TOUCHED };
    const found = knownBefore(site, (before) => known.get(before), limits);
    derived = derive(site, outline, found && placedAfter(found.known, site, outline, found.touched));
    known.set(site, derived);
  }
  return derived;
}

/** So many edits back addresses are looked for that can be gone on from, as long as not more nodes than these differ. */
const MAX_STEPS = 64;
const MAX_TOUCHED = 500;

/** One pass over the outline. @param carried the addresses, where they were made of those before */
export function derive(site: Site, outline: Outline, carried: Placed | null = null): Derived {
  const home = homeOf(site);
  const placed = carried ?? addressesOf(outline, home === null ? -1 : outline.rowOf.get(home)!);
  const hiddenBy = hiddenByOf(outline);
  let states: readonly State[] | undefined;
  return {
    outline,
    home,
    addresses: placed.addresses,
    hiddenBy,
    isForOthers: never,
    get states() {
      return (states ??= statesOf(site));
    },
    get rowAt() {
      return (placed.rowAt ??= makeRowAt(placed.addresses));
    },
  };
}

interface Placed {
  readonly parent: Int32Array;
  readonly isPage: Uint8Array;
  readonly homeRow: number;
  readonly addresses: readonly (string | null)[];
  rowAt: ReadonlyMap<string, number> | undefined;
}
/** By the columns of slugs: an edit that changes none of what addresses follow from leaves them as they were. */
const knownAddresses = new WeakMap<Outline['slugs'], Placed>();

function addressesOf({ parent, slugs, isPage }: Outline, homeRow: number): Placed {
  const known = knownAddresses.get(slugs);
  if (known?.parent === parent && known.isPage === isPage && known.homeRow === homeRow) return known;
  const addresses = new Array<string | null>(slugs.length);
  setAddresses(addresses, { parent, slugs, isPage }, homeRow, 0, slugs.length);
  const placed = placedWith({ parent, isPage, homeRow }, addresses);
  knownAddresses.set(slugs, placed);
  return placed;
}

type Steps = Pick<Outline, 'parent' | 'slugs' | 'isPage'>;

/** Sets the addresses of the rows from one to before another, which stand below each other or at the top. */
function setAddresses(
  addresses: (string | null)[],
  { parent, slugs, isPage }: Steps,
  homeRow: number,
  from: number,
  to: number,
): void {
  const paths = new Array<string>(to - from);
  const outside = from < to ? pathAt({ parent, slugs }, homeRow, parent[from]!) : '';
  for (let row = from; row < to; row++) {
    const above = parent[row]!;
    let path = above < from ? outside : paths[above - from]!;
    let address: string | null = null;
    const slug = slugs[row]!;
    if (row === homeRow) {
      path = '';
      address = '/';
    } else if (slug !== null) {
      path = `${path}/${slug}`;
      if (isPage[row] === 1) address = path;
    }
    paths[row - from] = path;
    addresses[row] = address;
  }
}

/** What the addresses below a row begin with. */
function pathAt({ parent, slugs }: Pick<Outline, 'parent' | 'slugs'>, homeRow: number, row: number): string {
  let path = '';
  for (let at = row; at !== -1 && at !== homeRow; at = parent[at]!)
    if (slugs[at] !== null) path = `/${slugs[at]}${path}`;
  return path;
}

/** The addresses made of those before: where a node that was touched takes another step, or stands elsewhere, those of its branch anew. */
function placedAfter(before: Derived, site: Site, outline: Outline, touched: ReadonlySet<PageId>): Placed | null {
  const { outline: was } = before;
  const home = homeOf(site);
  const runs = outline.rowOf.runsFrom(was.rowOf);
  if (home !== before.home || runs === null) return null;
  const homeRow = home === null ? -1 : outline.rowOf.get(home)!;
  const anew: number[] = [];
  for (const id of touched) {
    const [row, old] = [outline.rowOf.get(id), was.rowOf.get(id)];
    if (row === undefined) continue;
    // A branch that was taken out and put back stands in no run of rows, though nothing of it differs.
    const isAsBefore =
      old !== undefined &&
      rowThrough(runs, old) === row &&
      outline.slugs[row] === was.slugs[old] &&
      outline.isPage[row] === was.isPage[old] &&
      outline.nodes[row]!.parent === was.nodes[old]!.parent;
    if (!isAsBefore) anew.push(row);
  }
  const { parent, isPage } = outline;
  if (outline.rowOf === was.rowOf && anew.length === 0)
    return placedWith({ parent, isPage, homeRow }, before.addresses);
  const addresses = carriedValues(before.addresses, runs, outline.nodes.length);
  let done = 0;
  for (const row of anew.sort((a, b) => a - b)) {
    if (row < done) continue;
    done = outline.end[row]!;
    setAddresses(addresses, outline, homeRow, row, done);
  }
  const placed = placedWith({ parent, isPage, homeRow }, addresses);
  knownAddresses.set(outline.slugs, placed);
  return placed;
}

const placedOf = new WeakMap<Derived['addresses'], Placed>();

/** The same object for the same addresses, which may have been looked up by row. */
function placedWith(columns: Pick<Placed, 'parent' | 'isPage' | 'homeRow'>, addresses: Placed['addresses']): Placed {
  let placed = placedOf.get(addresses);
  if (!placed) placedOf.set(addresses, (placed = { ...columns, addresses, rowAt: undefined }));
  return placed;
}

const knownHiding = new WeakMap<Outline['hidden'], { readonly parent: Int32Array; readonly hiddenBy: Int32Array }>();

function hiddenByOf({ parent, hidden }: Outline): Int32Array {
  const known = knownHiding.get(hidden);
  if (known?.parent === parent) return known.hiddenBy;
  const count = hidden.length;
  const hiddenBy = new Int32Array(count);
  /** The row of the topmost ancestor, or the node itself, that hides its whole branch. */
  const branchHiddenBy = new Int32Array(count);
  for (let row = 0; row < count; row++) {
    const above = parent[row]!;
    const inherited = above === -1 ? -1 : branchHiddenBy[above]!;
    const own = hidden[row]!;
    branchHiddenBy[row] = inherited !== -1 ? inherited : own === 2 ? row : -1;
    hiddenBy[row] = inherited !== -1 ? inherited : own === 0 ? -1 : row;
  }
  knownHiding.set(hidden, { parent, hiddenBy });
  return hiddenBy;
}

/**
 * What is derived, for one visitor: a page that is closed to them is as one that is hidden by itself. `hiddenBy` is as that of `plain`,
 * with such rows hidden by themselves; `isForOthers` names rows whose menu entries are for other visitors.
 */
export function derivedFor(
  plain: Derived,
  hiddenBy: Int32Array,
  isForOthers: (row: number) => boolean = never,
): Derived {
  const { outline, home, addresses } = plain;
  return {
    outline,
    home,
    addresses,
    hiddenBy,
    isForOthers,
    get states() {
      return plain.states;
    },
    get rowAt() {
      return plain.rowAt;
    },
  };
}

/** `hiddenBy` of a visitor, of whose answers bit `bit` of `passes` is set where they get a row, open or with a lock. */
export function hiddenFor({ hiddenBy }: Derived, passes: Uint32Array, bit: number): Int32Array {
  const hidden = new Int32Array(hiddenBy.length);
  for (let row = 0; row < hidden.length; row++)
    hidden[row] = hiddenBy[row] === -1 && ((passes[row]! >>> bit) & 1) === 0 ? row : hiddenBy[row]!;
  return hidden;
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

/** Whether it is known at once that all nodes of two trees, and their addresses, are the same. */
export const haveSameAddresses = (was: Derived, is: Derived): boolean =>
  was.addresses === is.addresses && was.outline.rowOf === is.outline.rowOf;
