import type { FilterField } from '#core/derive/filters.ts';
import { ruleOf } from '#core/model/access.ts';
import { isKind, kindAmong } from '#core/model/page-label.ts';

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
  {
    key: 'kind',
    name: 'Kind',
    kind: 'some',
    valuesOf: ({ site }) => [
      ...site.settings.labels.filter(isKind).map(({ id, name }) => ({ value: id, words: name })),
      { value: 'none', words: 'Without a kind' },
    ],
    matches: ({ site, derived }, row, value) => {
      const node = derived.outline.nodes[row]!;
      return node.type === 'page' && (kindAmong(ruleOf(node).labels, site.settings.labels)?.id ?? 'none') === value;
    },
  },
];
