import { derivedOf } from '#core/derive/derived.ts';
import { liveSiteOf } from '#core/derive/live-site.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';

/** The address that visitors have for a node now, or null. */
export function liveAddress(site: Site, id: PageId): string | null {
  const live = derivedOf(liveSiteOf(site));
  const row = live.outline.rowOf.get(id);
  return row === undefined ? null : live.addresses[row]!;
}

/** The address at which visitors can open a page now, or null where nobody can. */
export function openLiveAddress(site: Site, id: PageId): string | null {
  const live = derivedOf(liveSiteOf(site));
  const row = live.outline.rowOf.get(id);
  return row === undefined || live.hiddenBy[row] !== -1 ? null : live.addresses[row]!;
}
