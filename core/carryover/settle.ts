import type { PageId } from '../model/ids.ts';
import { UNDECIDED } from '../model/old-page.ts';
import { keptOrReworked } from './kept-or-reworked.ts';
import { type Origin, planOf } from '../model/plan.ts';
import { type Site, branchOf, maybeNodeAt, nodeAt } from '../model/site.ts';
import type { Operation } from '../operations/operation.ts';
import type { OldPage } from './inventory.ts';

export interface Settled {
  /** The planned pages that have taken over each old address. */
  readonly placesOf: ReadonlyMap<string, readonly PageId[]>;
  readonly oldPages: number;
  readonly settledOldPages: number;
  /** Null where no visits are known. */
  readonly visits: { readonly all: number; readonly settled: number } | null;
  /** Planned pages that are neither new nor have a source. */
  readonly withoutSource: readonly PageId[];
  /** Old addresses that have no place and were not let go. */
  readonly withoutPlace: readonly string[];
}

/** How much of the carry-over is settled, by pages and by visits, and what is left over on either side. */
export function settledOf(site: Site, oldPages: readonly Pick<OldPage, 'address' | 'visits'>[]): Settled {
  const placesOf = new Map<string, PageId[]>();
  const withoutSource: PageId[] = [];
  for (const id of branchOf(site, null)) {
    const node = nodeAt(site, id);
    if (node.type !== 'page') continue;
    const plan = planOf(node);
    for (const address of plan.oldAddresses) placesOf.set(address, [...(placesOf.get(address) ?? []), id]);
    if (plan.oldAddresses.length === 0 && plan.origin !== 'new') withoutSource.push(id);
  }
  const isSettled = (address: string) => placesOf.has(address) || (site.oldPages.get(address)?.letGo ?? null) !== null;
  const withoutPlace: string[] = [];
  let all = 0;
  let settled = 0;
  for (const { address, visits } of oldPages) {
    all += visits ?? 0;
    if (isSettled(address)) settled += visits ?? 0;
    else withoutPlace.push(address);
  }
  return {
    placesOf,
    oldPages: oldPages.length,
    settledOldPages: oldPages.length - withoutPlace.length,
    visits: oldPages.some(({ visits }) => visits !== null) ? { all, settled } : null,
    withoutSource,
    withoutPlace,
  };
}

export interface AcceptedPair {
  readonly old: string;
  readonly planned: PageId;
  /** How many words the old page has; null where that is not known. */
  readonly oldWords: number | null;
}

/**
 * What it takes to accept pairs: each page gets the old addresses and, as far as the plan tells it, its origin; pages that
 * now share an old page become parts of it. An old page that was let go has a place again.
 */
export function acceptPairs(site: Site, pairs: readonly AcceptedPair[]): Operation[] {
  const there = pairs.filter(({ planned }) => maybeNodeAt(site, planned)?.type === 'page');
  const addresses = new Map<PageId, Set<string>>();
  const addressesOf = (page: PageId) => {
    let known = addresses.get(page);
    if (!known) addresses.set(page, (known = new Set(planOf(nodeAt(site, page)).oldAddresses)));
    return known;
  };
  for (const { old, planned } of there) addressesOf(planned).add(old);
  return [...withOrigins(site, addresses, there), ...takenUp(site, new Set(there.map(({ old }) => old)))];
}

/** What it takes to give an old page to one planned page alone, or to none: other pages let go of it. */
export function moveOldPage(site: Site, old: string, to: AcceptedPair | null): Operation[] {
  const addresses = new Map<PageId, Set<string>>();
  for (const id of branchOf(site, null)) {
    const node = nodeAt(site, id);
    const known = planOf(node).oldAddresses;
    if (node.type === 'page' && known.includes(old)) addresses.set(id, new Set(known.filter((one) => one !== old)));
  }
  if (to !== null) {
    const known = addresses.get(to.planned) ?? new Set(planOf(nodeAt(site, to.planned)).oldAddresses);
    addresses.set(to.planned, new Set([...known, old]));
  }
  return [
    ...withOrigins(site, addresses, to === null ? [] : [to]),
    ...(to === null ? [] : takenUp(site, new Set([old]))),
  ];
}

/** Where an old page leads that no planned page takes over. Pages that had taken it over let go of it. */
export const letGoOf = (site: Site, old: string, letGo: { page: PageId } | 'gone' | null): Operation[] => [
  ...(letGo === null ? [] : moveOldPage(site, old, null)),
  { name: 'oldPage.decide', address: old, fields: { letGo } },
];

/** Says that an old page does not belong to a planned one: the pair is not proposed again. */
export const declinePair = (site: Site, old: string, planned: PageId): Operation[] => [
  {
    name: 'oldPage.decide',
    address: old,
    fields: { declined: [...(site.oldPages.get(old) ?? UNDECIDED).declined, planned] },
  },
];

const takenUp = (site: Site, old: ReadonlySet<string>): Operation[] =>
  [...old]
    .filter((address) => (site.oldPages.get(address)?.letGo ?? null) !== null)
    .map((address) => ({ name: 'oldPage.decide', address, fields: { letGo: null } }));

/** The old addresses of these pages with the origins that follow, and the origins of pages that share an old page. */
function withOrigins(
  site: Site,
  changed: ReadonlyMap<PageId, ReadonlySet<string>>,
  accepted: readonly AcceptedPair[],
): Operation[] {
  const after = new Map<PageId, ReadonlySet<string>>();
  const holders = new Map<string, number>();
  for (const id of branchOf(site, null)) {
    const node = nodeAt(site, id);
    if (node.type !== 'page') continue;
    const addresses = changed.get(id) ?? new Set(planOf(node).oldAddresses);
    after.set(id, addresses);
    for (const address of addresses) holders.set(address, (holders.get(address) ?? 0) + 1);
  }
  const oldWordsOf = new Map(accepted.map(({ planned, oldWords }) => [planned, oldWords]));
  const operations: Operation[] = [];
  for (const [id, addresses] of after) {
    const plan = planOf(nodeAt(site, id));
    const told = keptOrReworked(oldWordsOf.get(id) ?? null, plan.words);
    const origin = originFor(addresses, holders, plan.origin, told);
    const isTouched = changed.has(id);
    if (!isTouched && (origin === plan.origin || (origin !== 'split' && plan.origin !== 'split'))) continue;
    operations.push({
      name: 'page.set',
      page: id,
      fields: { plan: { origin, ...(isTouched && { oldAddresses: [...addresses] }) } },
    });
  }
  return operations;
}

function originFor(
  addresses: ReadonlySet<string>,
  holders: ReadonlyMap<string, number>,
  was: Origin | null,
  told: 'keep' | 'rework' | null,
): Origin | null {
  if (addresses.size === 0) return was === 'new' ? was : null;
  if (addresses.size > 1) return 'gather';
  if ([...addresses].some((address) => holders.get(address)! > 1)) return 'split';
  return told ?? (was === 'keep' || was === 'rework' ? was : null);
}
