import { createContext, useContext } from 'react';
import type { DropPlace } from '#core/arrange/landing.ts';
import type { Edit } from '../api/site-store.ts';
import type { PageId } from '#core/model/ids.ts';

/** Where what is dragged would land, as one view of the tree shows it. */
export interface Landing {
  readonly view: 'sheet' | 'map';
  readonly place: DropPlace;
  /** For the sheet: the gap between rows (so many stand above it), or the row that it would go inside. */
  readonly gap: number;
  readonly isInside: boolean;
}

/** Where a drag began: the view, the point of the window, and the page that was taken there. */
export interface Grab {
  readonly view: Landing['view'];
  readonly x: number;
  readonly y: number;
  readonly page: PageId;
}

/** A list of settings on which pages can be dropped, to give them one. */
export interface GiveTarget {
  /** The setting under a point of the window; null where there is none. */
  readonly at: (x: number, y: number) => string | null;
  readonly edits: (pages: readonly PageId[], setting: string) => Edit[];
}

/** A view of the tree on which things can be dropped. */
export interface DropTarget {
  /** Where what is moved would land under a point of the window; null where the point is outside or nothing can land. */
  readonly landingAt: (x: number, y: number, moved: readonly PageId[], grab: Grab) => Landing | null;
}

export interface Drag {
  readonly moved: readonly PageId[];
  readonly grab: Grab;
  readonly landing: Landing | null;
  /** The setting that it would be given to, where it is over one. */
  readonly giving: string | null;
}

export interface DragContext {
  readonly drag: Drag | null;
  /** Whether pages, or one of the settings, are carried at this moment. */
  readonly isCarrying: boolean;
  /** Takes a view in; gives the function that takes it out again. */
  readonly register: (target: DropTarget) => () => void;
  /** The same for a list of settings. */
  readonly registerGive: (target: GiveTarget) => () => void;
}

const Context = createContext<DragContext | null>(null);
export const DragProvider = Context.Provider;

/** @throws where a component stands outside of the drag layer. */
export function useDrag(): DragContext {
  const context = useContext(Context);
  if (!context) throw new Error('useDrag is for components inside the drag layer.');
  return context;
}
