import { sharedIdSchema } from '../model/shared-section.ts';
import type { SectionType } from './section-type.ts';

/** In the HTML of a place for a shared section: which one stands there, by its id. */
export const SHARED_DATA = 'data-shared';

/** A place for a text that is kept once for many pages. What it says is filled in when a page is answered. */
export const SHARED: SectionType = {
  type: 'shared',
  group: 'section',
  content: '',
  attributes: { of: { schema: sharedIdSchema.nullable(), initial: null } },
  html: ({ of }) => ['div', { [SHARED_DATA]: typeof of === 'string' ? of : '' }],
  listed: {
    name: 'Shared section',
    says: 'A text kept once and shown on many pages',
    also: ['reuse', 'repeat', 'snippet', 'same'],
    make: () => ({ type: 'shared', attrs: { of: null } }),
  },
};
