import { createContext, useContext } from 'react';
import type { Derived } from '#core/derive/derived.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Place } from '#core/model/place.ts';
import type { Site } from '#core/model/site.ts';
import type { Edit, Shown, SiteStore } from '../api/site-store.ts';
import type { CommandName } from './keys.ts';

export const LENSES = ['write', 'menus', 'publish'] as const;
export type Lens = (typeof LENSES)[number];

/** What is being typed in the tree: a new title of a row, or the title of a new page. */
export type Editing =
  | { readonly kind: 'rename'; readonly page: PageId }
  | { readonly kind: 'add'; readonly parent: Place['parent']; readonly after: PageId | null };

export type DialogName =
  'move' | 'remove' | 'live' | 'retire' | 'history' | 'removed' | 'keys' | 'commands' | 'renameSite';

export interface Selection {
  /** The row that the keys act on. */
  readonly active: PageId | null;
  /** All selected nodes; the active one is among them unless it was taken out. */
  readonly chosen: ReadonlySet<PageId>;
  /** Where a range begins. */
  readonly anchor: PageId | null;
}

export interface Workbench {
  readonly store: SiteStore;
  readonly shown: Shown;
  readonly site: Site;
  readonly derived: Derived;
  readonly mayEdit: boolean;
  readonly mayPublish: boolean;
  readonly liveOrigin: string;
  readonly lens: Lens;
  readonly setLens: (lens: Lens) => void;
  readonly selection: Selection;
  readonly select: (selection: Selection) => void;
  readonly open: ReadonlySet<PageId>;
  readonly setOpen: (page: PageId, isOpen: boolean) => void;
  readonly query: string;
  readonly setQuery: (query: string) => void;
  /** Whether only what differs from what is live shows, with what stands above it. */
  readonly onlyDiffering: boolean;
  readonly setOnlyDiffering: (only: boolean) => void;
  readonly editing: Editing | null;
  readonly setEditing: (editing: Editing | null) => void;
  /** Changes that are being considered: the trail strip shows what they would do. */
  readonly preview: readonly Edit[] | null;
  readonly setPreview: (operations: readonly Edit[] | null) => void;
  readonly dialog: DialogName | null;
  readonly setDialog: (dialog: DialogName | null) => void;
  /** The selected nodes that stand in the tree, in tree order. */
  readonly chosen: readonly PageId[];
  readonly run: (command: CommandName) => void;
  /** Puts the keyboard back into the tree. */
  readonly focusTree: () => void;
}

const Context = createContext<Workbench | null>(null);
export const WorkbenchProvider = Context.Provider;

/** @throws where a component stands outside of the workbench. */
export function useWorkbench(): Workbench {
  const workbench = useContext(Context);
  if (!workbench) throw new Error('useWorkbench is for components inside the workbench.');
  return workbench;
}
