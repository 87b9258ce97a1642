import { distance } from 'fastest-levenshtein';

/** Why a page is near an address that leads nowhere. */
export const NEARNESSES = ['same name', 'like name', 'above'] as const;
export type Nearness = (typeof NEARNESSES)[number];

export interface NearPage {
  readonly row: number;
  readonly because: Nearness;
}

/** Of the longer name at most this share of letters may differ. */
const MAX_DIFFERENT = 0.4;
/** So many names are compared letter by letter. */
const MAX_COMPARED = 60;

/**
 * The pages nearest to an address that none has, the nearest first: pages of the same name elsewhere, then pages whose name
 * is nearly the same, then the nearest page above. Those in the same place come before others.
 * @param addresses by row; `isOffered` leaves out what the visitor may not know of.
 */
export function nearestPages(
  addresses: readonly (string | null)[],
  path: string,
  isOffered: (row: number) => boolean,
  most = 3,
): NearPage[] {
  const index = indexOf(addresses);
  const steps = stepsOf(path);
  const name = steps.at(-1);
  if (name === undefined) return [];
  const found = new Map<number, { because: Nearness; score: number }>();
  const place = (row: number) => sharedSteps(steps, index.steps[row]!);
  for (const row of index.byName.get(name) ?? [])
    if (isOffered(row)) found.set(row, { because: 'same name', score: 3 + place(row) / 100 });
  for (const [other, shared] of likeNames(index, name)) {
    const longest = Math.max(name.length, other.length);
    const share = other.startsWith(`${name}-`) || name.startsWith(`${other}-`) ? 0.2 : distance(name, other) / longest;
    if (shared === 0 || share > MAX_DIFFERENT || other === name) continue;
    for (const row of index.byName.get(other)!)
      if (isOffered(row)) found.set(row, { because: 'like name', score: 2 - share + place(row) / 100 });
  }
  for (let length = steps.length - 1; length > 0; length--) {
    const row = index.byAddress.get(`/${steps.slice(0, length).join('/')}`);
    if (row === undefined || !isOffered(row)) continue;
    if (!found.has(row)) found.set(row, { because: 'above', score: length / 100 });
    break;
  }
  return [...found]
    .sort(([a, one], [b, other]) => other.score - one.score || a - b)
    .slice(0, most)
    .map(([row, { because }]) => ({ row, because }));
}

interface NameIndex {
  readonly steps: readonly (readonly string[])[];
  readonly byName: ReadonlyMap<string, readonly number[]>;
  readonly byAddress: ReadonlyMap<string, number>;
  /** The names that have two letters side by side. */
  readonly byPair: ReadonlyMap<string, readonly string[]>;
}
const known = new WeakMap<readonly (string | null)[], NameIndex>();

function indexOf(addresses: readonly (string | null)[]): NameIndex {
  const before = known.get(addresses);
  if (before) return before;
  const byName = new Map<string, number[]>();
  const byAddress = new Map<string, number>();
  const byPair = new Map<string, string[]>();
  const steps = addresses.map((address, row) => {
    const own = stepsOf(address ?? '/');
    const name = own.at(-1);
    if (address !== null) byAddress.set(address, row);
    if (name === undefined) return own;
    const rows = byName.get(name);
    if (rows) rows.push(row);
    else {
      byName.set(name, [row]);
      for (const pair of pairsOf(name)) {
        const names = byPair.get(pair);
        if (names) names.push(name);
        else byPair.set(pair, [name]);
      }
    }
    return own;
  });
  const index = { steps, byName, byAddress, byPair };
  known.set(addresses, index);
  return index;
}

/** The names that share most pairs of letters with one. */
function likeNames({ byPair }: NameIndex, name: string): [name: string, shared: number][] {
  const shared = new Map<string, number>();
  for (const pair of pairsOf(name))
    for (const other of byPair.get(pair) ?? []) shared.set(other, (shared.get(other) ?? 0) + 1);
  return [...shared]
    .map(([other, count]): [string, number] => [other, (2 * count) / (name.length + other.length)])
    .sort(([a, one], [b, other]) => other - one || (a < b ? -1 : 1))
    .slice(0, MAX_COMPARED);
}

const stepsOf = (path: string): string[] =>
  path
    .toLowerCase()
    .replace(/\.(html?|php|aspx?)$/, '')
    .split('/')
    .filter(Boolean);

function pairsOf(name: string): Set<string> {
  const pairs = new Set<string>();
  for (let at = 0; at + 2 <= name.length; at++) pairs.add(name.slice(at, at + 2));
  return pairs;
}

/** How many steps two addresses have in common from the top. */
function sharedSteps(a: readonly string[], b: readonly string[]): number {
  let count = 0;
  while (count < a.length - 1 && count < b.length - 1 && a[count] === b[count]) count++;
  return count;
}
