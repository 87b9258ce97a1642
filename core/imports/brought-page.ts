import type { LineFault } from '../carryover/inventory.ts';
import type { PageId } from '../model/ids.ts';
import { type InFileOf, PAGE_FIELD_NAMES, type PageFieldName } from '../model/page-fields.ts';

/** The fields that pages of files have. What they say of their frame is read once there are the layouts that it names. */
export type BroughtFieldName = Exclude<PageFieldName, 'frame'>;
export const BROUGHT_FIELDS = PAGE_FIELD_NAMES.filter((name): name is BroughtFieldName => name !== 'frame');
/** What a file says of a node; what it does not say is left out. An empty slug follows the title. */
export type BroughtFields = { readonly [Name in BroughtFieldName]?: InFileOf<Name> | null | undefined };

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
