import type { LineFault } from '../carryover/inventory.ts';
import type { AccessChange } from '../model/access.ts';
import type { ContentId, PageId } from '../model/ids.ts';
import type { Hidden, NodeType } from '../model/node.ts';
import type { Target } from '../model/target.ts';
import type { PlanChange } from '../model/plan.ts';

/** What a file says of a node; what it does not say is left out. */
export interface BroughtFields {
  readonly type?: NodeType;
  readonly title?: string;
  readonly label?: string;
  /** Empty: it follows the title. */
  readonly slug?: string;
  readonly inMenus?: boolean;
  readonly hidden?: Hidden;
  readonly description?: string;
  readonly target?: Target;
  readonly inAddress?: boolean;
  readonly content?: ContentId | null;
  readonly access?: AccessChange;
  readonly plan?: PlanChange;
}

/** One node of a file, of whatever format. They stand in tree order: each after the node that it stands below. */
export interface BroughtPage {
  /** Where it stands in the file: a line, or the number of the entry, from 1. */
  readonly line: number;
  /** The id that the file gives it, or null. */
  readonly id: PageId | null;
  /** The place in the list of the node that it stands below; null at the top; or a page of the site. */
  readonly parent: number | null | { readonly page: PageId };
  readonly fields: BroughtFields;
  /** Whether the title was made for want of one: it renames no page that is there. */
  readonly isTitleMade?: boolean;
}

/** A file as it was read: its nodes, and what of it was left out. Or why it is refused, with lines: then nothing is taken. */
export type BroughtTree =
  | { readonly ok: true; readonly pages: readonly BroughtPage[]; readonly notes: readonly LineFault[] }
  | { readonly ok: false; readonly faults: readonly LineFault[] };

export const MAX_BROUGHT = 5000;
