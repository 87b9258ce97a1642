import { EMPTY_PARAGRAPH, type SectionType } from './section-type.ts';

const column = () => ({ type: 'column', content: [EMPTY_PARAGRAPH] });

/** Two or three texts beside each other; below each other on a telephone. */
export const COLUMNS: SectionType = {
  type: 'columns',
  group: 'section',
  content: 'column{2,3}',
  attributes: {},
  html: () => ['div', { class: 'columns' }, 0],
  listed: {
    name: 'Columns',
    says: 'Two texts beside each other',
    also: ['grid', 'side by side', 'layout'],
    make: () => ({ type: 'columns', content: [column(), column()] }),
  },
};

export const COLUMN: SectionType = {
  type: 'column',
  group: 'part',
  content: 'block+',
  attributes: {},
  html: () => ['div', {}, 0],
};
