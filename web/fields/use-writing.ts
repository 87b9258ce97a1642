import { useCallback, useEffect, useRef, useSyncExternalStore } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { TOLD_EVERY_MS } from '#contract/writing.ts';
import type { SiteStore } from '../api/site-store.ts';

/** Who else writes in the text of a page now; '' for nobody. */
export const useWriter = (store: SiteStore, page: PageId): string =>
  useSyncExternalStore(store.presence.onWriting, () => store.presence.writerAt(page));

/** Says to the others that somebody writes in the text of a page, as long as they do; the function is called at each change. */
export function useTellWriting(store: SiteStore, page: PageId): { onWrite: () => void; onLeave: () => void } {
  const toldAt = useRef(0);
  const onWrite = useCallback(() => {
    if (Date.now() - toldAt.current < TOLD_EVERY_MS) return;
    toldAt.current = Date.now();
    store.presence.tellWriting(page, true);
  }, [store, page]);
  const onLeave = useCallback(() => {
    if (toldAt.current === 0) return;
    toldAt.current = 0;
    store.presence.tellWriting(page, false);
  }, [store, page]);
  useEffect(() => onLeave, [onLeave]);
  return { onWrite, onLeave };
}
