import type { LucideIcon } from 'lucide-react';
import type { ComponentType } from 'react';
import type { Derived } from '#core/derive/derived.ts';
import type { Touched } from '#core/derive/touched.ts';
import type { Permission } from '#core/model/permission.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import type { Edit } from '../api/site-store.ts';

/** One of the settings. */
export interface Named {
  readonly id: string;
  readonly name: string;
}

/** What a list says of one of them besides its name. */
export interface Said {
  /** What it touches, and whatever else tells it from the others: "9 pages". */
  readonly says: string;
  /** What waits for somebody. */
  readonly waits?: string;
}

/** What names touch cannot be told from the tree alone for some kinds. */
export interface Asked {
  /** The pages whose text names what is open, a fact or a shared section; undefined until it is known, and where none is open. */
  readonly textUses: readonly PageId[] | undefined;
  /** The moment at which access is looked at, in milliseconds since 1970. */
  readonly at: number;
}

/** What every sheet has that stands beside the tree. */
interface Titled {
  readonly title: string;
  readonly Sign: LucideIcon;
  readonly description: string;
  /** What somebody must be allowed to, on the whole site, to see it at all; left out where everybody may who sees the tree. */
  readonly needs?: Permission;
  /** What it takes to change something there; left out where nothing is changed, or the sheet itself decides. */
  readonly edits?: Permission;
  /** Whether it is enough to hold these on some branch. */
  readonly isForBranches?: true;
}

/** A sheet that is no list of settings, such as *Make live*. */
export interface WholeKind extends Titled {
  readonly Whole: ComponentType;
}

/** A list whose items the server keeps apart from the tree, such as the releases: all of them, then one. */
export interface AskedKind extends Titled {
  /** One of them, as in "The next release". */
  readonly one: string;
  /** A hook: all of them in the order of the list; undefined until they are known. */
  readonly useItems: () => readonly Named[] | undefined;
  readonly List: ComponentType;
  readonly One: ComponentType<{ readonly id: string; readonly onGone: () => void }>;
}

/**
 * A kind of settings that stand in the site itself: all that the settings sheet, the tree and the list of commands need to know of it.
 * The sheet goes through these and knows none by name.
 */
export interface ListKind extends Titled {
  /** One of them, as in "Add the label". */
  readonly one: string;
  /** What stands in the field for a new one. */
  readonly placeholder: string;
  readonly longest: number;
  readonly nameLabel?: string;
  /** All of them by their names, in order. */
  readonly items: (site: Site) => readonly Named[];
  /** What the list says of each, made for all of them at once. */
  readonly says: (site: Site, derived: Derived, at: number) => (id: string) => Said;
  /** Whether the clock changes what they touch. */
  readonly followsClock?: true;
  /** The pages that one of them touches; null where that is not known yet. */
  readonly touched: (site: Site, derived: Derived, id: string, asked: Asked) => Touched | null;
  /** The operation that makes one. */
  readonly add: (name: string) => { readonly id: string; readonly edit: Edit };
  readonly rename: (id: string, name: string) => Edit;
  readonly remove: (id: string) => Edit;
  /** What gives it to pages; left out where it cannot be given. */
  readonly give?: (site: Site, pages: readonly PageId[], id: string) => Edit[];
  /** Its fields, below its name. */
  readonly Fields: ComponentType<{ readonly id: string }>;
  /** What holds for all of them, below the list. */
  readonly ForAll?: ComponentType;
}

export type SettingsKind = ListKind | AskedKind | WholeKind;
