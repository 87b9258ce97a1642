import { formIdSchema } from '../model/site-form.ts';
import type { SectionType } from './section-type.ts';

/** In the HTML of a place for a form: which one stands there, by its id. */
export const FORM_DATA = 'data-form';

/** A place for a form of the site. What it asks for is filled in when a page is answered. */
export const FORM: SectionType = {
  type: 'form',
  group: 'section',
  content: '',
  attributes: { of: { schema: formIdSchema.nullable(), initial: null } },
  html: ({ of }) => ['div', { [FORM_DATA]: typeof of === 'string' ? of : '' }],
  listed: {
    name: 'Form',
    says: 'Fields that visitors fill in and send',
    also: ['contact', 'application', 'survey', 'registration', 'booking', 'questionnaire', 'feedback'],
    make: () => ({ type: 'form', attrs: { of: null } }),
  },
};
