import { ruleOf } from '../model/access.ts';
import { isKind, kindAmong } from '../model/page-label.ts';
import { layoutIdOf } from './layouts.ts';
import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import type { Derived } from './derived.ts';
import type { FeedbackTotals } from './feedback-totals.ts';
import { STATES } from './state.ts';
import { foldedNamesOf } from './folded-titles.ts';
import { type Found, typedWords, withContext, withSlips } from './visible-rows.ts';

/** What filters look at besides the tree. */
export interface FilterFacts {
  readonly site: Site;
  readonly derived: Derived;
  /** Who changed each page last, and when (ISO 8601); null while it is not known yet. */
  readonly changes: ReadonlyMap<PageId, { readonly by: string; readonly at: string }> | null;
  /** The pages whose text holds the words asked for; null where texts are not looked at. */
  readonly texts: ReadonlySet<PageId> | null;
  /** What was said of the plan; null while it is not known. */
  readonly feedback: FeedbackTotals | null;
  /** What is wrong with links of each page; null while it is not known. */
  readonly faults: ReadonlyMap<PageId, readonly { readonly fault: string }[]> | null;
  /** The moment that access is asked for, in milliseconds since 1970; null for now. */
  readonly moment: number | null;
}

/** One thing that the tree can be filtered by. Each lens brings its own beside those that all have. */
export interface FilterField {
  /** Its name in the address bar and in saved filters. */
  readonly key: string;
  /** How the person sees it. */
  readonly name: string;
  readonly kind: 'one-of' | 'person' | 'day' | 'some';
  /** For `one-of`: the values, with their words. */
  readonly values?: readonly { readonly value: string; readonly words: string }[];
  /** For `some`: the values that the site at hand has, with their words. */
  readonly valuesOf?: (
    facts: Pick<FilterFacts, 'site' | 'derived'>,
  ) => readonly { readonly value: string; readonly words: string }[];
  /** Whether a row matches one value. Values that are not known match nothing. */
  readonly matches: (facts: FilterFacts, row: number, value: string) => boolean;
}

/** A filter: values by the key of their field. A row matches if it matches one value of every field. */
export type Filter = Readonly<Record<string, readonly string[]>>;

const yesNo = (yes: string, no: string) => [
  { value: 'yes', words: yes },
  { value: 'no', words: no },
];

/** The filters that every lens has. */
export const COMMON_FILTERS: readonly FilterField[] = [
  {
    key: 'state',
    name: 'State',
    kind: 'one-of',
    values: STATES.map((value) => ({
      value,
      words: { draft: 'Draft', live: 'Live', edited: 'Live, edited', retired: 'Retired' }[value],
    })),
    matches: ({ derived }, row, value) => derived.states[row] === value,
  },
  {
    key: 'menus',
    name: 'In menus',
    kind: 'one-of',
    values: yesNo('In menus', 'Off menus'),
    matches: ({ derived }, row, value) => (derived.outline.inMenus[row] === 1) === (value === 'yes'),
  },
  {
    key: 'hidden',
    name: 'Hidden',
    kind: 'one-of',
    values: yesNo('Hidden', 'Not hidden'),
    matches: ({ derived }, row, value) => (derived.hiddenBy[row] !== -1) === (value === 'yes'),
  },
  {
    key: 'type',
    name: 'Type',
    kind: 'one-of',
    values: [
      { value: 'page', words: 'Pages' },
      { value: 'heading', words: 'Headings' },
      { value: 'link', words: 'Links' },
    ],
    matches: ({ derived }, row, value) => derived.outline.nodes[row]!.type === value,
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
  {
    key: 'layout',
    name: 'Layout',
    kind: 'some',
    valuesOf: ({ site }) => site.settings.layouts.map(({ id, name }) => ({ value: id, words: name })),
    matches: ({ site, derived }, row, value) => {
      const node = derived.outline.nodes[row]!;
      return node.type === 'page' && layoutIdOf(site, node.id) === value;
    },
  },
  {
    key: 'by',
    name: 'Changed last by',
    kind: 'person',
    matches: ({ derived, changes }, row, value) => changes?.get(derived.outline.nodes[row]!.id)?.by === value,
  },
  {
    key: 'since',
    name: 'Changed since',
    kind: 'day',
    matches: ({ derived, changes }, row, value) => {
      const change = changes?.get(derived.outline.nodes[row]!.id);
      return change !== undefined && change.at >= value;
    },
  },
];

export interface Asked {
  /** Words to find in titles, menu labels, addresses and (where `facts.texts` is given) texts. */
  readonly query: string;
  readonly filter: Filter;
}

export const isAsking = ({ query, filter }: Asked): boolean => query.trim() !== '' || Object.keys(filter).length > 0;

/** The rows that match, with those above them as context. */
export function filterRows(facts: FilterFacts, fields: readonly FilterField[], { query, filter }: Asked): Found {
  const words = typedWords(query);
  const active = fields.filter((field) => (filter[field.key]?.length ?? 0) > 0);
  const { outline, addresses } = facts.derived;
  const titles = foldedNamesOf(facts.site);
  const passes = (row: number) =>
    active.every((field) => filter[field.key]!.some((value) => field.matches(facts, row, value)));
  const found = withContext(outline, (row) => {
    if (active.length > 0 && !passes(row)) return false;
    if (words.length === 0 || facts.texts?.has(outline.nodes[row]!.id)) return true;
    const address = addresses[row] ?? '';
    return words.every((word) => titles.at(row).includes(word) || address.includes(word));
  });
  return withSlips(outline, words, found, (row) => (passes(row) ? titles.at(row) : null));
}

/** Makes finding in these rows quick from the first letter on. Gives the row to go on from, or null where all is done. */
export function prepareFind(site: Site, { outline }: Derived, from: number, isTimeUp: () => boolean): number | null {
  const titles = foldedNamesOf(site);
  for (let row = from; row < outline.nodes.length; row++) {
    if (row % 64 === 0 && row > from && isTimeUp()) return row;
    titles.at(row);
  }
  return null;
}

/** A filter from the parameters of an address, with the fields and values that are known; anything else is left out. */
export function readFilter(parameter: (key: string) => string | null, fields: readonly FilterField[]): Filter {
  const filter: Record<string, string[]> = {};
  for (const field of fields) {
    const values = (parameter(field.key) ?? '').split(',').filter((value) => value !== '');
    const known = field.values ? values.filter((value) => field.values!.some((one) => one.value === value)) : values;
    if (known.length > 0) filter[field.key] = known;
  }
  return filter;
}
