import type { FilterField } from '#core/derive/filters.ts';
import { isAsItsKind } from '#core/model/kind-outline.ts';

/** What the Write lens adds to the filters. */
export const WRITE_FILTERS: readonly FilterField[] = [
  {
    key: 'text',
    name: 'Text',
    kind: 'one-of',
    values: [
      { value: 'written', words: 'Written' },
      { value: 'outline', words: 'Outline of its kind' },
      { value: 'none', words: 'None yet' },
    ],
    matches: ({ site, derived }, row, value) => {
      const node = derived.outline.nodes[row]!;
      if (node.type !== 'page') return false;
      if (value === 'none') return node.content === null;
      return node.content !== null && isAsItsKind(node, site.settings.labels) === (value === 'outline');
    },
  },
];
