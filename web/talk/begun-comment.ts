import { useSyncExternalStore } from 'react';
import type { PageId } from '#core/model/ids.ts';
import type { About } from '#core/talk/thread.ts';

/** What somebody begins to say something about, or wants to see; `turn` tells two of the same apart. */
export interface Begun {
  readonly page: PageId;
  readonly about: About;
  /** The thread to be shown; null where a new one is begun. */
  readonly thread: string | null;
  readonly turn: number;
}

let begun: Begun | null = null;
let turn = 0;
const listeners = new Set<() => void>();

function set(next: Begun | null): void {
  begun = next;
  listeners.forEach((listener) => listener());
}

/** Begins a comment: the field for it takes the keyboard, wherever it stands. */
export const beginComment = (page: PageId, about: About): void => set({ page, about, thread: null, turn: ++turn });

/** Brings a thread into sight, wherever it stands. */
export const showThread = (page: PageId, thread: string): void => set({ page, about: null, thread, turn: ++turn });

export const endBegun = (): void => set(null);

/** What was begun on a page; null for nothing. */
export function useBegun(page: PageId): Begun | null {
  const now = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => begun,
  );
  return now?.page === page ? now : null;
}
