import { useEffect, useMemo, useSyncExternalStore } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { HERE_EVERY_MS } from '#contract/presence.ts';
import type { FieldsPlace } from '../api/presence.ts';
import type { SiteStore } from '../api/site-store.ts';
import type { FieldsInUse } from '../ui/being-changed.tsx';

/** Somebody who only passes a row with the keys is not there. */
const SETTLES_MS = 1200;

/** Tells the others which page is selected here: when that has settled, and again and again while the page is seen. */
export function useTellHere(store: SiteStore, page: PageId | null): void {
  useEffect(() => {
    const tell = () => document.visibilityState === 'visible' && store.presence.tellHere(page);
    const first = window.setTimeout(tell, SETTLES_MS);
    const again = window.setInterval(tell, HERE_EVERY_MS);
    document.addEventListener('visibilitychange', tell);
    return () => {
      window.clearTimeout(first);
      window.clearInterval(again);
      document.removeEventListener('visibilitychange', tell);
    };
  }, [store, page]);
}

/** Tells the others that the title of a page is being changed in the tree, under the label that its field has in the side sheet. */
export function useTellRename(store: SiteStore, renamed: PageId | null): void {
  useEffect(() => {
    if (renamed === null) return;
    store.presence.tellField({ page: renamed }, 'Title');
    return () => store.presence.tellField({ page: renamed }, null);
  }, [store, renamed]);
}

const NOBODY: ReadonlyMap<string, string> = new Map();

/** The fields of a page, or of what is open in the settings, that others are changing, and the way to tell them of one's own. */
export function useFieldsOf({ presence }: SiteStore, page: PageId | null, setting: string | null): FieldsInUse {
  const place = useMemo(
    (): FieldsPlace | null => (setting !== null ? { setting } : page !== null ? { page } : null),
    [page, setting],
  );
  // A field that goes with its place may not say that it was left.
  useEffect(() => () => void (place && presence.leaveFields(place)), [presence, place]);
  const others = useSyncExternalStore(presence.onHere, () => (place ? presence.changersAt(place) : NOBODY));
  return useMemo(
    () => ({ others, tell: (label) => void (place && presence.tellField(place, label)) }),
    [presence, place, others],
  );
}
