import { useCallback, useSyncExternalStore } from 'react';

const media = new Map<string, MediaQueryList>();

/** Asking the browser anew is dear; each question is asked once and kept. */
function mediaOf(query: string): MediaQueryList {
  const known = media.get(query) ?? window.matchMedia(query);
  media.set(query, known);
  return known;
}

/** Whether a media query holds now. */
export function useMedia(query: string): boolean {
  const subscribe = useCallback(
    (changed: () => void) => {
      const asked = mediaOf(query);
      asked.addEventListener('change', changed);
      return () => asked.removeEventListener('change', changed);
    },
    [query],
  );
  return useSyncExternalStore(subscribe, () => mediaOf(query).matches);
}
