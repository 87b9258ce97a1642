import type { LucideIcon } from 'lucide-react';
import type { ComponentType } from 'react';
import type { Derived } from '#core/derive/derived.ts';
import type { Touched } from '#core/derive/touched.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import type { Edit } from '../api/site-store.ts';

/** One of the settings as a list shows it. */
export interface Listed {
  readonly id: string;
  readonly name: string;
  /** What it touches, and whatever else tells it from the others: "9 pages". */
  readonly says: string;
  /** What waits for somebody. */
  readonly waits?: string;
}

/** What names touch cannot be told from the tree alone for some kinds. */
export interface Asked {
  /** The pages whose text names the fact that is open; undefined until it is known, and where none is open. */
  readonly factUses: readonly PageId[] | undefined;
}

/** What every sheet has that stands beside the tree. */
interface Titled {
  readonly title: string;
  readonly Sign: LucideIcon;
  readonly description: string;
  /** What somebody must be allowed to, to see it at all; left out where everybody may who sees the tree. */
  readonly needs?: 'edit' | 'publish';
}

/** A sheet that is no list of settings, such as the releases. */
export interface WholeKind extends Titled {
  readonly Whole: ComponentType;
}

/**
 * A kind of settings: all that the settings sheet, the tree and the list of commands need to know of it. The sheet goes through
 * these and knows none by name.
 */
export interface ListKind extends Titled {
  /** One of them, as in "Add the label". */
  readonly one: string;
  /** What stands in the field for a new one. */
  readonly placeholder: string;
  readonly longest: number;
  readonly nameLabel?: string;
  readonly listed: (site: Site, derived: Derived) => readonly Listed[];
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

export type SettingsKind = ListKind | WholeKind;
