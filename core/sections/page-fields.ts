import type { SectionType } from './section-type.ts';

/** In the HTML of a place for the fields of the page that the text stands on. */
export const PAGE_FIELDS_DATA = 'data-page-fields';

/** A place for what the page says in the fields of its kind, which otherwise stands below its title. It is filled in when a page is answered. */
export const PAGE_FIELDS_HERE: SectionType = {
  type: 'pageFields',
  group: 'section',
  content: '',
  attributes: {},
  html: () => ['div', { [PAGE_FIELDS_DATA]: '' }],
  listed: {
    name: 'Fields of the page',
    says: 'What it says in its fields, here and not below the title',
    also: ['details', 'facts', 'values', 'kind', 'outline'],
    make: () => ({ type: 'pageFields' }),
  },
};
