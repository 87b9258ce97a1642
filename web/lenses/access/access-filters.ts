import type { FilterFacts, FilterField } from '#core/derive/filters.ts';
import { type LabelId, ruleOf } from '#core/model/access.ts';
import { isKind } from '#core/model/page-label.ts';
import { saysWho } from '#core/model/narrowing.ts';
import { accessOf, answerAt, audiencesOf } from '../../tree/access-of.ts';

/** What the Access lens adds to the filters. */
export const ACCESS_FILTERS: readonly FilterField[] = [
  {
    key: 'opens-to',
    name: 'Opens to',
    kind: 'some',
    valuesOf: ({ site }) => audiencesOf(site).map(({ id, name }) => ({ value: id, words: name })),
    matches: (facts, row, value) => opens(facts, row, value) === true,
  },
  {
    key: 'closed-to',
    name: 'Closed to',
    kind: 'some',
    valuesOf: ({ site }) => audiencesOf(site).map(({ id, name }) => ({ value: id, words: name })),
    matches: (facts, row, value) => opens(facts, row, value) === false,
  },
  {
    key: 'rule',
    name: 'Has a rule',
    kind: 'one-of',
    values: [
      { value: 'own', words: 'Of its own' },
      { value: 'alone', words: 'Stands alone' },
      { value: 'locked', words: 'Shows a lock' },
      { value: 'passphrase', words: 'Asks for a passphrase' },
      { value: 'window', words: 'Opens or closes by the clock' },
      { value: 'stands-in', words: 'Stands in, as the sign-in page does' },
      { value: 'search', words: 'Left out of site search' },
      { value: 'engines', words: 'Left out of search engines' },
    ],
    matches: ({ site, derived, moment }, row, value) => {
      const node = derived.outline.nodes[row]!;
      const rule = ruleOf(node);
      const { standsAlone, from, until, standsIn } = rule;
      switch (value) {
        case 'own':
          return saysWho(rule, site.settings.labels);
        case 'alone':
          return standsAlone;
        case 'locked':
          return accessOf(site, moment).table.locked[row] !== 0;
        case 'passphrase':
          return accessOf(site, moment).table.asks[row] !== 0;
        case 'window':
          return from !== null || until !== null;
        case 'stands-in':
          return standsIn !== null;
        case 'search':
          return accessOf(site).heldBack.search[row] !== -1;
        default:
          return accessOf(site).heldBack.engines[row] !== -1;
      }
    },
  },
  {
    key: 'labelled',
    name: 'Labelled',
    kind: 'some',
    valuesOf: ({ site }) =>
      site.settings.labels.filter((one) => !isKind(one)).map(({ id, name }) => ({ value: id, words: name })),
    matches: ({ derived }, row, value) => ruleOf(derived.outline.nodes[row]!).labels.includes(value as LabelId),
  },
];

/** Undefined for an audience that the site does not have. */
function opens({ site, moment }: FilterFacts, row: number, audience: string): boolean | undefined {
  const bit = audiencesOf(site).findIndex(({ id }) => id === audience);
  return bit === -1 ? undefined : answerAt(accessOf(site, moment).table, row, bit) === 'open';
}
