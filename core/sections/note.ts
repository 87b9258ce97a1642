import { z } from 'zod';
import { EMPTY_PARAGRAPH, type SectionType } from './section-type.ts';

/** A box that stands out from the text: something to know, or to beware of. */
export const NOTE: SectionType = {
  type: 'note',
  group: 'section',
  content: 'block+',
  attributes: { tone: { schema: z.enum(['note', 'warning']), initial: 'note' } },
  html: ({ tone }) => ['div', { class: tone === 'warning' ? 'note warning' : 'note', role: 'note' }, 0],
  listed: {
    name: 'Note',
    says: 'A box that stands out',
    also: ['callout', 'box', 'info', 'warning', 'hint'],
    make: () => ({ type: 'note', attrs: { tone: 'note' }, content: [EMPTY_PARAGRAPH] }),
  },
};
