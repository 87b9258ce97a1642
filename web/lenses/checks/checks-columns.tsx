import { PAGE_CHECKS } from '#core/checks/page-checks.ts';
import { type Column, address, stateColumn } from '../../tree/columns.tsx';
import { FAULT_WORDS } from '../../tree/words.ts';

/** The columns of the Checks lens. */
export const CHECKS_COLUMNS: readonly Column[] = [
  {
    key: 'links',
    name: 'Links',
    width: 190,
    values: ({ derived, findings }, row) => {
      const found = findings.ofLinks?.get(derived.outline.nodes[row]!.id) ?? [];
      return [found.length === 0 ? '' : FAULT_WORDS[found[0]!.fault], found.length];
    },
    cell: ([words, count]) => (
      <span className="truncate text-attention">
        {words}
        {Number(count) > 1 && `, and ${Number(count) - 1} more`}
      </span>
    ),
  },
  {
    key: 'lacks',
    name: 'The page',
    width: 190,
    isMinor: true,
    values: ({ derived, findings }, row) => {
      const found = findings.ofPages?.get(derived.outline.nodes[row]!.id) ?? [];
      return [
        found
          .map(({ fault }, at) => (at === 0 ? PAGE_CHECKS[fault].called : PAGE_CHECKS[fault].called.toLowerCase()))
          .join(', '),
      ];
    },
    cell: ([words]) => (
      <span title={String(words)} className="truncate text-attention">
        {words}
      </span>
    ),
  },
  stateColumn(96),
  address,
];
