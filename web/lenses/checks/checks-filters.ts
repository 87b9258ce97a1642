import { LINK_FAULTS } from '#core/checks/link-findings.ts';
import type { FilterField } from '#core/derive/filters.ts';
import { PAGE_CHECKS, PAGE_FAULTS } from '#core/checks/page-checks.ts';
import { FAULT_WORDS } from '../../tree/words.ts';

/** Links and pages have faults of different names, so that one look finds either. */
const hasFault: FilterField['matches'] = ({ derived, faults }, row, value) =>
  faults?.get(derived.outline.nodes[row]!.id)?.some(({ fault }) => fault === value) ?? false;

/** What the Checks lens adds to the filters. */
export const CHECKS_FILTERS: readonly FilterField[] = [
  {
    key: 'link',
    name: 'Links',
    kind: 'one-of',
    values: LINK_FAULTS.map((value) => ({ value, words: FAULT_WORDS[value] })),
    matches: hasFault,
  },
  {
    key: 'lacks',
    name: 'The page',
    kind: 'one-of',
    values: PAGE_FAULTS.map((value) => ({ value, words: PAGE_CHECKS[value].called })),
    matches: hasFault,
  },
];
