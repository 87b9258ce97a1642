import { derivedOf, haveSameAddresses } from '../derive/derived.ts';
import { liveSiteOf } from '../derive/live-site.ts';
import { differencesOf } from '../derive/state.ts';
import type { PageId } from '../model/ids.ts';
import type { LeadsTo } from '../model/redirect.ts';
import { SETTINGS_PARTS, type SettingsPart } from '../model/settings-parts.ts';
import { isPractice } from '../model/practice.ts';
import { withLive } from '../model/site-edit.ts';
import type { LiveNode, Site } from '../model/site.ts';
import { branchOf, homeOf, maybeNodeAt } from '../model/site.ts';
import { applyOperation } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { type PartAlong, type TextNeeds, partsAlong } from './settings-along.ts';

/** Why a page comes along in a release that was not asked for it. */
export const ALONG_REASONS = ['above', 'address', 'below'] as const;
export type AlongReason = (typeof ALONG_REASONS)[number];

/** A page that comes along, because of another one. */
export interface PageAlong {
  readonly page: PageId;
  readonly because: AlongReason;
  readonly of: PageId;
}

export interface AskedRelease {
  readonly pages: readonly PageId[];
  readonly retire: readonly PageId[];
  /** Which parts of the settings go along; all that differ where this is left out. */
  readonly settings?: readonly SettingsPart[];
  /** Where the addresses of pages lead that are taken down, by page; to the page above where one is not named. */
  readonly leadsTo?: Readonly<Record<PageId, NonNullable<LeadsTo>>>;
  /** What texts show that visitors do not have yet, as far as it is known. */
  readonly needs?: TextNeeds;
}

export interface ReleasePlan {
  /** The operation that makes the release. */
  readonly operation: Extract<Operation, { name: 'release.make' }>;
  /** The pages that come along, with what needs them. */
  readonly along: readonly PageAlong[];
  /** The parts of the settings that come along, with what names them. */
  readonly parts: readonly PartAlong[];
  /** The addresses that visitors have now and those that they will have, where they differ. */
  readonly addresses: readonly AddressChange[];
  /** The site as it is with the release made; the site itself where the release is refused. */
  readonly after: Site;
}

export interface AddressChange {
  readonly page: PageId;
  readonly before: string | null;
  readonly after: string | null;
}

/** Every node whose draft differs from what visitors have, without the practice branch; those that were removed but are still live among them. */
export function waitingPages(site: Site): PageId[] {
  const waiting: PageId[] = [];
  for (const id of branchOf(site, null))
    if (differencesOf(site, id).length > 0 && !isPractice(site, id)) waiting.push(id);
  site.live.forEach((entry, id) => {
    if (!entry.retired && !maybeNodeAt(site, id)) waiting.push(id);
  });
  return waiting;
}

/**
 * What a release of these pages is, with all that must come along: a page needs its ancestors live at their drafted
 * places; an address that somebody else still has is freed by releasing that page too; a page that is taken down takes
 * the live pages below it along; what is for practice stays out; what its pages name of the settings has to be there for visitors.
 */
export function planRelease(site: Site, asked: AskedRelease): ReleasePlan {
  const along = new Map<PageId, Omit<PageAlong, 'page'>>();
  const make = new Set<PageId>();
  const down = new Set<PageId>();
  const isLive = (id: PageId) => site.live.get(id)?.retired === false;

  const takeDown = (id: PageId, of: PageId | null, because: AlongReason) => {
    if (down.has(id) || !isLive(id)) return;
    down.add(id);
    if (of !== null) along.set(id, { because, of });
  };
  const take = (id: PageId, of: PageId | null, because: AlongReason) => {
    const node = maybeNodeAt(site, id);
    if (!node) return takeDown(id, of, because);
    if (isPractice(site, id)) return;
    if (make.has(id)) return;
    make.add(id);
    down.delete(id);
    if (of !== null) along.set(id, { because, of });
    for (let above = node.parent; above !== null;) {
      const parent = maybeNodeAt(site, above)!;
      const entry = site.live.get(above);
      const stands = entry && !entry.retired && entry.node.parent === parent.parent && !down.has(above);
      if (!stands) take(above, id, 'above');
      above = parent.parent;
    }
  };
  for (const id of asked.retire) takeDown(id, null, 'below');
  for (const id of asked.pages) take(id, null, 'above');

  for (;;) {
    const before = make.size + down.size;
    takeDownBelow(site, make, down, (id, of) => takeDown(id, of, 'below'));
    const after = applyUnchecked(site, make, down);
    for (const [a, b] of addressClashes(site, after)) {
      const settle = make.has(a) ? b : a;
      take(settle, settle === a ? b : a, 'address');
      if (differencesOf(site, a).length > 0 && !make.has(a)) take(a, b, 'address');
    }
    if (make.size + down.size === before) break;
  }
  const parts = partsAlong(site, make, asked.settings ?? SETTINGS_PARTS, asked.needs);
  for (const id of asked.pages) along.delete(id);
  for (const id of asked.retire) along.delete(id);
  const operation = {
    name: 'release.make' as const,
    pages: [...make],
    retire: [...down].filter((id) => !make.has(id)),
    ...(asked.settings && { settings: [...asked.settings, ...parts.map(({ part }) => part)] }),
    ...(asked.leadsTo && Object.keys(asked.leadsTo).length > 0 && { leadsTo: { ...asked.leadsTo } }),
  };
  const outcome = applyOperation(site, operation);
  return {
    operation,
    along: [...along].filter(([id]) => make.has(id) || down.has(id)).map(([page, why]) => ({ page, ...why })),
    parts,
    addresses: outcome.ok ? addressChanges(liveSiteOf(site), liveSiteOf(outcome.site)) : [],
    after: outcome.ok ? outcome.site : site,
  };
}

/** A page that would stand live under one that is not is taken down with it. */
function takeDownBelow(
  site: Site,
  make: ReadonlySet<PageId>,
  down: ReadonlySet<PageId>,
  takeDown: (id: PageId, of: PageId) => void,
): void {
  if (down.size === 0) return;
  for (let found = true; found;) {
    found = false;
    site.live.forEach((entry, id) => {
      const { parent } = entry.node;
      if (entry.retired || down.has(id) || make.has(id) || parent === null || !down.has(parent) || make.has(parent))
        return;
      takeDown(id, parent);
      found = true;
    });
  }
}

function applyUnchecked(site: Site, make: ReadonlySet<PageId>, down: ReadonlySet<PageId>): Site {
  const changed = new Map<PageId, LiveNode>();
  for (const id of down) changed.set(id, { node: site.live.get(id)!.node, retired: true });
  for (const id of make) changed.set(id, { node: site.nodes.get(id)!, retired: false });
  return withLive(site, changed, { ...site.settings, home: homeOf(site) });
}

/** Pairs of live pages that would have one address after a release: one of each pair gets it with the release. */
function addressClashes(before: Site, after: Site): [PageId, PageId][] {
  const was = derivedOf(liveSiteOf(before));
  const { outline, addresses, rowAt } = derivedOf(liveSiteOf(after));
  if (addresses === was.addresses) return [];
  const clashes: [PageId, PageId][] = [];
  addresses.forEach((address, row) => {
    // Of several rows with one address the last is found by it.
    const holder = address === null ? row : rowAt.get(address)!;
    if (holder !== row) clashes.push([outline.nodes[row]!.id, outline.nodes[holder]!.id]);
  });
  return clashes;
}

/** The addresses that differ between two states of the live site. */
export function addressChanges(before: Site, after: Site): AddressChange[] {
  const was = derivedOf(before);
  const is = derivedOf(after);
  const changes: AddressChange[] = [];
  if (haveSameAddresses(was, is)) return changes;
  is.outline.nodes.forEach((node, row) => {
    const old = was.outline.rowOf.get(node.id);
    const oldAddress = old === undefined ? null : was.addresses[old]!;
    if (oldAddress !== is.addresses[row])
      changes.push({ page: node.id, before: oldAddress, after: is.addresses[row]! });
  });
  was.outline.nodes.forEach((node, row) => {
    if (!is.outline.rowOf.has(node.id) && was.addresses[row] !== null)
      changes.push({ page: node.id, before: was.addresses[row]!, after: null });
  });
  return changes;
}
