import { z } from 'zod';
import { SCHEME_NAMES } from '../model/look.ts';
import { EMPTY_PARAGRAPH, type SectionType } from './section-type.ts';

export const BAND_WIDTHS = ['text', 'page'] as const;

/** A part of a text in the colours of one of the look's schemes, as wide as the text or from edge to edge. */
export const BAND: SectionType = {
  type: 'band',
  group: 'section',
  content: 'block+',
  attributes: {
    scheme: { schema: z.enum(SCHEME_NAMES), initial: 'tinted' },
    width: { schema: z.enum(BAND_WIDTHS), initial: 'page' },
  },
  html: ({ scheme, width }) => ['div', { class: `band in-${String(scheme)}${width === 'page' ? ' is-wide' : ''}` }, 0],
  listed: {
    name: 'Band',
    says: 'A part with a ground of its own, in the colours of the look',
    also: ['background', 'colour', 'scheme', 'strip', 'hero', 'full width'],
    make: () => ({ type: 'band', attrs: { scheme: 'tinted', width: 'page' }, content: [EMPTY_PARAGRAPH] }),
  },
};
