import { EMPTY_PARAGRAPH, type SectionType } from './section-type.ts';

/** A text in the column beside the main one; on a telephone it follows where it stands. */
export const BESIDE: SectionType = {
  type: 'beside',
  group: 'section',
  content: 'block+',
  attributes: {},
  // A note and no landmark of the page: a text can have several.
  html: () => ['aside', { class: 'beside-text', role: 'note' }, 0],
  listed: {
    name: 'Beside the text',
    says: 'A text in the side column',
    also: ['sidebar', 'aside', 'margin'],
    make: () => ({ type: 'beside', content: [EMPTY_PARAGRAPH] }),
  },
};
