import type { z } from 'zod';
import type { TextPart } from '../model/content.ts';

/** An element of HTML: its name, its attributes, and what is in it; `0` is where the content of the section stands. */
export type Element = readonly [tag: string, attributes: Readonly<Record<string, string>>, ...inner: Inner[]];
type Inner = Element | string | 0;

/** In the HTML of a section: the file of the library that an element shows, by its id. */
export const SHOWN_FILE = 'data-file';

export interface SectionAttribute {
  readonly schema: z.ZodType;
  /** What it is until somebody says otherwise. */
  readonly initial: unknown;
}

/**
 * A type of section, or of a part that stands only within one: all that the check on the way in, the rendering, the desk and the list
 * of what can be inserted know of it. One file has one type; `all-sections.ts` lists them.
 */
export interface SectionType {
  /** The name of its nodes in documents. It never changes: texts that were written keep it. */
  readonly type: string;
  /** Where it may stand: wherever a paragraph may, at the top of a text (or of a section for some audiences) alone, or in a section only. */
  readonly group: 'block' | 'section' | 'part';
  /** What it holds, as an expression of ProseMirror's content language; '' where it holds nothing that is written. */
  readonly content: string;
  readonly attributes: Readonly<Record<string, SectionAttribute>>;
  /** The one rendering of it, for visitors, for the desk and for exports. */
  readonly html: (attributes: Readonly<Record<string, unknown>>) => Element;
  /** The files of the library that it shows, by their ids; left out where it never does. */
  readonly files?: (attributes: Readonly<Record<string, unknown>>) => readonly unknown[];
  /** How it is listed; left out for parts. */
  readonly listed?: {
    readonly name: string;
    /** What it is for. */
    readonly says: string;
    /** Other words by which somebody may look for it. */
    readonly also: readonly string[];
    /** What is inserted: the section as it is at first. */
    readonly make: () => TextPart;
  };
}

/** A paragraph without words, where writing begins. */
export const EMPTY_PARAGRAPH: TextPart = { type: 'paragraph' };
