import type { FilterField } from '#core/derive/filters.ts';

/** What the Publish lens adds to the filters. */
export const PUBLISH_FILTERS: readonly FilterField[] = [
  {
    key: 'live',
    name: 'Compared with live',
    kind: 'one-of',
    values: [
      { value: 'differs', words: 'Differs' },
      { value: 'same', words: 'The same' },
    ],
    matches: ({ derived }, row, value) =>
      (derived.states[row] === 'draft' || derived.states[row] === 'edited') === (value === 'differs'),
  },
];
