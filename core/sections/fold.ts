import { EMPTY_PARAGRAPH, type SectionType } from './section-type.ts';

/** A question whose answer opens. */
export const FOLD: SectionType = {
  type: 'fold',
  group: 'section',
  content: 'foldQuestion block+',
  attributes: {},
  html: () => ['details', {}, 0],
  listed: {
    name: 'Fold',
    says: 'A question that opens',
    also: ['accordion', 'details', 'faq', 'question', 'answer'],
    make: () => ({ type: 'fold', content: [{ type: 'foldQuestion' }, EMPTY_PARAGRAPH] }),
  },
};

export const FOLD_QUESTION: SectionType = {
  type: 'foldQuestion',
  group: 'part',
  content: 'inline*',
  attributes: {},
  html: () => ['summary', {}, 0],
};
