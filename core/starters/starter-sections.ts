import { z } from 'zod';
import { type TextDocument, plainTextOf } from '../model/content.ts';
import type { FormId } from '../model/site-form.ts';
import { FORM } from '../sections/form.ts';
import { PAGE_FIELDS_HERE } from '../sections/page-fields.ts';

const LONGEST_HEADING = 200;
const MOST_SECTIONS = 100;

/** The sections of a page to be, by their headings. */
export const starterSectionsSchema = z.array(z.string().trim().min(1).max(LONGEST_HEADING)).max(MOST_SECTIONS);

/** The headings of a text, which a starter has as the sections of a page. */
export const sectionsOf = (document: TextDocument): string[] =>
  (document.content ?? [])
    .filter((part) => part.type === 'heading')
    .map((part) => plainTextOf(part).slice(0, LONGEST_HEADING))
    .filter((text) => text !== '')
    .slice(0, MOST_SECTIONS);

/** A text with these headings, and a form below them; null where it would have neither. */
export function sectionsDocument(sections: readonly string[], form: FormId | null): TextDocument | null {
  if (sections.length === 0 && form === null) return null;
  const headed = sections.flatMap((text) => [
    { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text }] },
    { type: 'paragraph' },
  ]);
  return { type: 'doc', content: [...headed, ...(form === null ? [] : [{ type: FORM.type, attrs: { of: form } }])] };
}

/** What the pages of a kind begin with: their fields, and sections with these headings. */
export const outlineDocument = (sections: readonly string[]): TextDocument => ({
  type: 'doc',
  content: [{ type: PAGE_FIELDS_HERE.type }, ...(sectionsDocument(sections, null)?.content ?? [])],
});
