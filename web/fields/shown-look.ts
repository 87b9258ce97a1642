import { useSyncExternalStore } from 'react';
import type { Look } from '#core/model/look.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';

let tried: Look | null = null;
const listeners = new Set<() => void>();

/** Shows pages in a look that is not set yet, such as while a colour is being chosen; null shows the site's own again. */
export function tryLook(look: Look | null): void {
  tried = look;
  for (const listener of listeners) listener();
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

/** The look in which pages are shown here: the one that is tried, or that of the site. */
export function useShownLook(): Look {
  const { site } = useWorkbench();
  return useSyncExternalStore(subscribe, () => tried) ?? site.settings.look;
}
