import type { RefObject } from 'react';
import type { PageId } from '#core/model/ids.ts';
import type { Workbench } from '../workbench/workbench-context.tsx';
import type { Landing } from './drag-context.ts';

/** A closed branch opens when something is held over it for so long. */
const OPENS_AFTER_MS = 650;

/** The closed branch over which something is held, and since when. */
export type Held = { page: PageId; since: number } | null;

/** Opens the branch that something is held over. It is asked on every frame of a drag. */
export function openHeld(
  { open, setOpen, found }: Pick<Workbench, 'open' | 'setOpen' | 'found'>,
  held: RefObject<Held>,
  landing: Landing | null,
): void {
  const page = landing?.isInside && found === null ? landing.place.parent : null;
  if (page === null || open.has(page)) held.current = null;
  else if (held.current?.page !== page) held.current = { page, since: performance.now() };
  else if (performance.now() - held.current.since > OPENS_AFTER_MS) {
    held.current = null;
    setOpen(page, true);
  }
}
