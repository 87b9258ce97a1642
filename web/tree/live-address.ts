import { livePlaceOf } from '#core/derive/live-place.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';

/** The address that visitors have for a node now, or null. */
export const liveAddress = (site: Site, id: PageId): string | null => livePlaceOf(site, id)?.address ?? null;

/** The address at which visitors can open a page now, or null where nobody can. */
export function openLiveAddress(site: Site, id: PageId): string | null {
  const place = livePlaceOf(site, id);
  return place?.isReachable ? place.address : null;
}
