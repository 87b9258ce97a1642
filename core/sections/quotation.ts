import { z } from 'zod';
import { EMPTY_PARAGRAPH, type SectionType } from './section-type.ts';

/** What somebody said, with who said it. */
export const QUOTATION: SectionType = {
  type: 'quotation',
  group: 'section',
  content: 'paragraph+',
  attributes: { source: { schema: z.string().max(300), initial: '' } },
  html: ({ source }) => [
    'figure',
    { class: 'quotation' },
    ['blockquote', {}, 0],
    ...(source === '' ? [] : ([['figcaption', {}, String(source)]] as const)),
  ],
  listed: {
    name: 'Quotation with its source',
    says: 'What somebody said, and who',
    also: ['testimonial', 'quote', 'citation'],
    make: () => ({ type: 'quotation', attrs: { source: '' }, content: [EMPTY_PARAGRAPH] }),
  },
};
