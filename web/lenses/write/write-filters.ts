import type { FilterField } from '#core/derive/filters.ts';

/** What the Write lens adds to the filters. */
export const WRITE_FILTERS: readonly FilterField[] = [
  {
    key: 'text',
    name: 'Text',
    kind: 'one-of',
    values: [
      { value: 'written', words: 'Written' },
      { value: 'none', words: 'None yet' },
    ],
    matches: ({ derived }, row, value) => {
      const node = derived.outline.nodes[row]!;
      return node.type === 'page' && (node.content !== null) === (value === 'written');
    },
  },
];
