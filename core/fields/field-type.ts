import type { FileId } from '../files/file.ts';
import { wordOrder } from '../model/formatters.ts';
import type { PageId } from '../model/ids.ts';
import type { FieldTypeName, KindField } from '../model/kind-field.ts';

/** What reading and saying a value needs to know besides its field. */
export interface FieldContext {
  /** The site's language, as a BCP 47 tag. */
  readonly language: string;
  /** The day of now by the site's clock, as ISO 8601 has it: a day that is typed without a year is of this one. */
  readonly today: string;
  /** The title of a page of the site; undefined where there is none. */
  readonly titleOf: (page: PageId) => string | undefined;
  /** The pages with that title, whatever its capitals. */
  readonly pagesTitled: (title: string) => readonly PageId[];
  /** The name of a file of the library; undefined where there is none. */
  readonly fileName: (file: FileId) => string | undefined;
}

/**
 * A type of field: how what is typed becomes a value, and how a value is said. A value is a text in one form, so that equal values are
 * equal texts. These hold for every type, and are tested: `isValue(read(typed))`; `read(written(value)) === value`.
 */
export interface FieldType {
  readonly type: FieldTypeName;
  readonly name: string;
  /** What it is for. */
  readonly says: string;
  /** What is expected, after "Type": "a number, such as 12.5". */
  readonly expects: (field: KindField) => string;
  /** The value that a typed text means, or a cell of a file; undefined where it means none. Blank text is asked of no type. */
  readonly read: (typed: string, field: KindField, context: FieldContext) => string | undefined;
  /** Whether a text is a value in its one form. */
  readonly isValue: (value: string, field: KindField) => boolean;
  /** As it is typed, and as cells of files have it. */
  readonly written: (value: string, field: KindField, context: FieldContext) => string;
  /** As visitors read it. */
  readonly words: (value: string, field: KindField, context: FieldContext) => string;
  /** Negative where the first comes before the second. */
  readonly compare: (a: string, b: string, language: string) => number;
  /** Where it leads, such as `tel:`; null where nowhere. Left out where it never does. */
  readonly leadsTo?: (value: string) => string | null;
  /** The pages, and the files, that a value names; left out where it never does. */
  readonly pages?: (value: string) => readonly PageId[];
  readonly files?: (value: string) => readonly FileId[];
  /** Its settings besides those that all have. */
  readonly settings: readonly ('unit' | 'currency' | 'choices' | 'isSeveral' | 'of')[];
}

/** By code unit: for values whose form is in order, such as days. */
export const inFormOrder = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

/** As a dictionary of the language has them, numbers within by size. */
export const inWordOrder = (a: string, b: string, language: string): number => wordOrder(language).compare(a, b);
