import { useEffect } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { HERE_EVERY_MS } from '#contract/presence.ts';
import type { SiteStore } from '../api/site-store.ts';

/** Somebody who only passes a row with the keys is not there. */
const SETTLES_MS = 1200;

/** Tells the others which page is selected here: when that has settled, and again and again while the page is seen. */
export function useTellHere(store: SiteStore, page: PageId | null): void {
  useEffect(() => {
    const tell = () => document.visibilityState === 'visible' && store.tellHere(page);
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
