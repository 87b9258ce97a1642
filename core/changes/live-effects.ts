import { derivedOf } from '../derive/derived.ts';
import { liveSiteOf } from '../derive/live-site.ts';
import { addressesLeft, standInFor } from '../derive/redirects.ts';
import type { PageId } from '../model/ids.ts';
import type { SettingsPart } from '../model/settings-parts.ts';
import type { Site } from '../model/site.ts';
import { type AudienceChange, audienceChanges } from './audience-changes.ts';
import { type AddressChange, addressChanges } from './release-plan.ts';
import { settingsDifferences } from './waiting-settings.ts';
import { type AudienceEntries, type EntryChange, menusForAudiences, whatChanges } from './what-changes.ts';

/** An address that leads elsewhere from now on: to the address of a page, or nowhere (null). */
export interface NewRedirect {
  readonly from: string;
  readonly to: string | null;
}

/** What visitors notice between two states of the live site. */
export interface LiveEffects {
  /** Pages that are live and were not, and the other way round. */
  readonly came: readonly PageId[];
  readonly went: readonly PageId[];
  readonly addresses: readonly AddressChange[];
  readonly redirects: readonly NewRedirect[];
  /** Addresses that a page has again: what led elsewhere from them ends. */
  readonly backInUse: readonly string[];
  readonly menus: readonly EntryChange[];
  /** Who gains and loses pages pages that stay live, and what their menus gain and lose. */
  readonly audiences: readonly AudienceChange[];
  readonly menusOf: readonly AudienceEntries[];
  readonly settings: readonly SettingsPart[];
}

/**
 * What a release does, or what differs between two.
 * @param before @param after the site as a whole @param at the moment at which access is looked at, in milliseconds since 1970
 * @param former addresses that lead elsewhere before
 */
export function liveEffects(before: Site, after: Site, at: number, former: ReadonlySet<string>): LiveEffects {
  const [was, is] = [liveSiteOf(before), liveSiteOf(after)];
  const changes = whatChanges(was, is);
  const audiences = before.liveSettings === null ? [] : audienceChanges(was, is, at);
  const { outline, addresses } = derivedOf(is);
  const addressOf = (page: PageId): string | null => addresses[outline.rowOf.get(page)!] ?? null;
  const redirects = [...addressesLeft(before, after)].flatMap(([from, page]): NewRedirect[] => {
    if (derivedOf(is).rowAt.has(from)) return [];
    const to = standInFor(after, page);
    return [{ from, to: to === 'gone' ? null : addressOf(to) }];
  });
  const changed = before.liveSettings === null ? [] : addressChanges(was, is);
  return {
    came: changes.added,
    went: changes.removed,
    addresses: changed,
    redirects,
    backInUse: addressChanges(was, is).flatMap(({ after: now }) => (now !== null && former.has(now) ? [now] : [])),
    menus: before.liveSettings === null ? [] : changes.menus,
    audiences,
    menusOf: audiences.length === 0 ? [] : menusForAudiences(was, is, at),
    settings:
      before.liveSettings === null || after.liveSettings === null
        ? []
        : settingsDifferences(before.liveSettings, after.liveSettings),
  };
}
