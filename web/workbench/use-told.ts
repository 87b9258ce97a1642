import { useEffect } from 'react';
import { toast } from 'sonner';
import type { SiteStore } from '../api/site-store.ts';

/** Says what the store has to tell: what was refused, and what others did. */
export function useTold(store: SiteStore): void {
  useEffect(
    () =>
      store.onTold((told) => {
        if (told.kind === 'fault') toast.error(told.words);
        else toast(`${told.by} ${told.words}`, { duration: 3500 });
      }),
    [store],
  );
}
