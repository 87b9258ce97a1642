import { derivedOf } from '../derive/derived.ts';
import { liveSiteOf } from '../derive/live-site.ts';
import type { PageId } from '../model/ids.ts';
import { type SettingsPart, withParts } from '../model/settings-parts.ts';
import { isPractice } from '../model/practice.ts';
import { withLive } from '../model/site-edit.ts';
import type { LiveNode, Settings, Site } from '../model/site.ts';
import type { Operation } from '../operations/operation.ts';
import { type AddressChange, addressChanges } from './release-plan.ts';
import { lackingFor } from './settings-along.ts';
import { settingsDifferences } from './waiting-settings.ts';

/** What a release did: the live states that its pages had before it, and the settings before and after it. */
export interface ReleaseDone {
  readonly before: Readonly<Record<PageId, LiveNode | null>>;
  readonly settingsBefore: Settings | null;
  readonly settingsAfter: Settings | null;
}

/** A release after the one that is taken back. */
export interface LaterRelease extends ReleaseDone {
  readonly number: number;
}

/** Why a page stays as it is when a release is taken back. */
export type InTheWay =
  /** A later release changed it. */
  | { readonly because: 'changed since'; readonly release: number }
  /** It would stand live under a page that is not. */
  | { readonly because: 'parent'; readonly of: PageId }
  /** It names an audience, a label or a layout that visitors no longer have. */
  | { readonly because: 'setting'; readonly part: SettingsPart }
  /** It stands in the practice branch by now. */
  | { readonly because: 'practice' }
  /** It is the home page of what stays live. */
  | { readonly because: 'home' }
  /** Another live page has the address by now that it would have again. */
  | { readonly because: 'address'; readonly of: PageId };

/** A part of the settings that stays as it is, or which page is home. */
export interface LeftSetting {
  readonly part: SettingsPart | 'home';
  /** The last release that changed it since; null where the former home page would be none. */
  readonly release: number | null;
}

export interface TakeBackPlan {
  /** The operation of the new release; null where nothing of the old one can be taken back. */
  readonly operation: Extract<Operation, { name: 'release.takeBack' }> | null;
  /** The pages that get another live state, and the parts of the settings. */
  readonly pages: readonly PageId[];
  readonly settings: readonly SettingsPart[];
  /** What of the release stays as it is, with what stands in the way. */
  readonly left: readonly ({ readonly page: PageId } & InTheWay)[];
  readonly leftSettings: readonly LeftSetting[];
  readonly addresses: readonly AddressChange[];
  /** How many pages are live again, or as they were, and how many are taken down. */
  readonly madeLive: number;
  readonly takenDown: number;
}

/**
 * What it is to take back a release, whatever went live since: its pages get the live states that they had before it. Those
 * that had none are taken down, so that their addresses lead somewhere. What stands in the way is left as it is, and named.
 * @param later the releases since, the earliest first: what they changed is left, also where it is again what it was
 */
export function planTakeBack(site: Site, done: ReleaseDone, later: readonly LaterRelease[]): TakeBackPlan {
  const since = new Map(
    later.flatMap(({ number, before }) =>
      Object.keys(before).map((page): [PageId, number] => [page as PageId, number]),
    ),
  );
  const left = new Map<PageId, InTheWay>();
  const changed = new Map<PageId, LiveNode>();
  for (const [id, was] of Object.entries(done.before) as [PageId, LiveNode | null][]) {
    const release = since.get(id);
    const now = site.live.get(id);
    if (release !== undefined) left.set(id, { because: 'changed since', release });
    else if (was?.retired === false && isPractice(site, id)) left.set(id, { because: 'practice' });
    else if (was !== null) changed.set(id, was);
    else if (now && !now.retired) changed.set(id, { node: now.node, retired: true });
  }
  const taken = settingsTakenBack(site, done, later);
  const { parts } = taken;
  const leftSettings = [...taken.leftSettings];
  const leaveBlocked = (settings: Settings | null) => {
    for (let blocked = true; blocked;) {
      blocked = false;
      for (const [page, why] of blockedIn(site, changed, settings)) {
        if (!changed.delete(page)) continue;
        left.set(page, why);
        blocked = true;
      }
    }
    return settings;
  };
  const former = leaveBlocked(taken.settings);
  // Visitors keep the home page that they have where the former one would be none, or would take an address from a page.
  const isHome = canBeHome(site, changed, former) && !(later.length > 0 && losesHome(site, changed, former));
  if (!isHome) leftSettings.push({ part: 'home', release: null });
  const settings = isHome ? former : leaveBlocked({ ...former!, home: site.liveSettings!.home });
  if (later.length > 0 && leaveHome(site, changed, settings, left)) leaveBlocked(settings);
  const pages = [...changed.keys()];
  const isNothing = pages.length === 0 && parts.length === 0;
  const operation = isNothing
    ? null
    : { name: 'release.takeBack' as const, before: Object.fromEntries(changed) as Record<PageId, LiveNode>, settings };
  const entries = [...changed.values()];
  return {
    operation,
    pages,
    settings: parts,
    left: [...left].map(([page, why]) => ({ page, ...why })),
    leftSettings,
    addresses: isNothing ? [] : addressChanges(liveSiteOf(site), liveSiteOf(withLive(site, changed, settings))),
    madeLive: entries.filter(({ retired }) => !retired).length,
    takenDown: entries.filter(({ retired }) => retired).length,
  };
}

/** Whether the home page that the settings name is live then, and still a page, if it is another one than now, and no two pages share an address. */
function canBeHome(site: Site, changed: ReadonlyMap<PageId, LiveNode>, settings: Settings | null): boolean {
  const home = settings?.home ?? null;
  if (settings === null || home === (site.liveSettings?.home ?? null)) return true;
  const live = liveSiteOf(withLive(site, changed, settings));
  const addresses = derivedOf(live).addresses.filter((address) => address !== null);
  return (home === null || live.nodes.get(home)?.type === 'page') && new Set(addresses).size === addresses.length;
}

/** Whether pages stay live without a home page, where there is one now. */
const losesHome = (site: Site, changed: ReadonlyMap<PageId, LiveNode>, settings: Settings | null): boolean =>
  settings !== null &&
  settings.home === null &&
  (site.liveSettings?.home ?? null) !== null &&
  liveSiteOf(withLive(site, changed, settings)).nodes.size > 0;

/** Leaves the home page live while other pages stay so: else nothing would be at the site's address. Gives whether it did. */
function leaveHome(
  site: Site,
  changed: Map<PageId, LiveNode>,
  settings: Settings | null,
  left: Map<PageId, InTheWay>,
): boolean {
  const home = settings?.home ?? null;
  const then = home === null ? undefined : changed.get(home);
  // A page that was a heading before it was made a page cannot be home as that.
  if (home === null || then === undefined || (!then.retired && then.node.type === 'page')) return false;
  if (liveSiteOf(withLive(site, changed, settings)).nodes.size === 0) return false;
  changed.delete(home);
  left.set(home, { because: 'home' });
  return true;
}

/** The settings with the parts as they were before the release, but for those that a later one has changed. */
function settingsTakenBack(
  site: Site,
  { settingsBefore, settingsAfter }: ReleaseDone,
  later: readonly LaterRelease[],
): { settings: Settings | null; parts: readonly SettingsPart[]; leftSettings: readonly LeftSetting[] } {
  const now = site.liveSettings;
  if (now === null || settingsBefore === null || settingsAfter === null)
    return { settings: now, parts: [], leftSettings: [] };
  const changedSince = new Map<LeftSetting['part'], number>();
  for (const { number, settingsBefore: was, settingsAfter: is } of later) {
    if (was === null || is === null) continue;
    for (const part of settingsDifferences(was, is)) changedSince.set(part, number);
    if (was.home !== is.home) changedSince.set('home', number);
  }
  const made: LeftSetting['part'][] = [...settingsDifferences(settingsBefore, settingsAfter)];
  if (settingsBefore.home !== settingsAfter.home) made.push('home');
  const parts = made.filter((part) => part !== 'home' && !changedSince.has(part)) as SettingsPart[];
  const settings = withParts(now, parts, settingsBefore);
  const { home } = settingsBefore;
  return {
    settings: changedSince.has('home') || home === settingsAfter.home ? settings : { ...settings, home },
    parts,
    leftSettings: made.flatMap((part) => {
      const release = changedSince.get(part);
      return release === undefined ? [] : [{ part, release }];
    }),
  };
}

/** The pages of `changed` that cannot have the states that they are to have. */
function* blockedIn(
  site: Site,
  changed: ReadonlyMap<PageId, LiveNode>,
  settings: Settings | null,
): Generator<[PageId, InTheWay]> {
  const isLive = (id: PageId) => (changed.get(id) ?? site.live.get(id))?.retired === false;
  // A label that is gone would leave the page open to more visitors than it was.
  for (const [id, { node, retired }] of changed) {
    const part = retired || settings === null ? null : lackingFor(node, settings);
    if (part !== null) yield [id, { because: 'setting', part }];
  }
  for (const [id, { node, retired }] of changed)
    if (!retired && node.parent !== null && !isLive(node.parent)) yield [id, { because: 'parent', of: node.parent }];
  for (const [id, { node, retired }] of site.live) {
    const { parent } = node;
    if (!retired && !changed.has(id) && parent !== null && !isLive(parent))
      yield [parent, { because: 'parent', of: id }];
  }
  const { outline, addresses } = derivedOf(liveSiteOf(withLive(site, changed, settings)));
  const holders = new Map<string, PageId>();
  for (const [row, address] of addresses.entries()) {
    if (address === null) continue;
    const { id } = outline.nodes[row]!;
    const holder = holders.get(address);
    holders.set(address, id);
    if (holder === undefined) continue;
    if (changed.has(id)) yield [id, { because: 'address', of: holder }];
    else if (changed.has(holder)) yield [holder, { because: 'address', of: id }];
    else yield* changedAbove(site, changed, [id, holder]);
  }
}

/** Where neither of two pages with one address is changed itself, a page above one of them is. */
function* changedAbove(
  site: Site,
  changed: ReadonlyMap<PageId, LiveNode>,
  [id, holder]: readonly [PageId, PageId],
): Generator<[PageId, InTheWay]> {
  for (const one of [id, holder]) {
    for (let at: PageId | null = one; at !== null; at = (changed.get(at) ?? site.live.get(at))?.node.parent ?? null)
      if (changed.has(at)) return yield [at, { because: 'address', of: one === id ? holder : id }];
  }
}
