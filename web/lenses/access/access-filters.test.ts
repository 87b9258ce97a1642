import { describe, expect, it } from 'vitest';
import { type FilterFacts, filterRows } from '#core/derive/filters.ts';
import { derivedOf } from '#core/derive/derived.ts';
import type { AudienceId } from '#core/model/audience.ts';
import type { LabelId } from '#core/model/access.ts';
import { toPageId } from '#core/model/ids.ts';
import type { Operation } from '#core/operations/operation.ts';
import { siteAfter } from '#core/testing/random-site.ts';
import { siteOf } from '../../testing/workbench-for-keys.ts';
import { ACCESS_FILTERS } from './access-filters.ts';

const staff = 'staff' as AudienceId;
const [shop, course] = ['shop', 'course'] as LabelId[] as [LabelId, LabelId];
const rule = (page: string, access: object): Operation => ({
  name: 'page.set',
  page: toPageId(page),
  fields: { access },
});
const SITE = siteAfter(
  [
    { name: 'audience.add', audience: staff, title: 'Staff' },
    { name: 'label.add', label: shop, title: 'Shop floor', rule: { only: [staff] } },
    { name: 'label.add', label: course, title: 'Course', about: 'course' },
    rule('Staffroom', { only: [staff] }),
    rule('Locked', { only: [staff], closedLook: 'locked' }),
    rule('Open', { standsAlone: true }),
    rule('Term', { from: '2027-01-08T08:00:00.000Z' }),
    rule('Thanks', { engines: 'page', search: 'page' }),
    rule('Sign', { standsIn: 'sign-in' }),
    rule('Saws', { labels: [shop] }),
    rule('Long', { labels: [course] }),
  ],
  siteOf(['Home', 'Staffroom', '  Rota', '  Open', 'Locked', 'Term', 'Thanks', 'Sign', 'Saws', 'Long']),
);
const facts = (moment: string | null): FilterFacts => ({
  site: SITE,
  derived: derivedOf(SITE),
  changes: null,
  texts: null,
  feedback: null,
  faults: null,
  moment: moment === null ? null : Date.parse(moment),
});
/** The pages that a filter leaves, at a moment. */
const left = (key: string, value: string, moment: string | null = '2026-11-26T12:00:00Z') => {
  const { matches } = filterRows(facts(moment), ACCESS_FILTERS, { query: '', filter: { [key]: [value] } });
  return [...matches].map((row) => derivedOf(SITE).outline.nodes[row]!.id as string);
};

describe('the filters of the Access lens', () => {
  it('find what opens to an audience and what does not, at the moment that is looked at', () => {
    expect(left('closed-to', 'everyone')).toEqual(['Staffroom', 'Rota', 'Locked', 'Term', 'Saws']);
    expect(left('closed-to', staff)).toEqual(['Term']);
    expect(left('closed-to', staff, '2027-01-09T12:00:00Z')).toEqual([]);
    expect(left('opens-to', staff, '2027-01-09T12:00:00Z')).toHaveLength(10);
    expect(left('opens-to', 'former')).toEqual([]);
  });

  it('find the kinds of rules', () => {
    expect(left('rule', 'own')).toEqual(['Staffroom', 'Open', 'Locked', 'Saws']);
    expect(left('rule', 'alone')).toEqual(['Open']);
    expect(left('rule', 'locked')).toEqual(['Locked']);
    expect(left('rule', 'window')).toEqual(['Term']);
    expect(left('rule', 'stands-in')).toEqual(['Sign']);
    expect(left('rule', 'search')).toEqual(['Thanks']);
    expect(left('rule', 'engines')).toEqual(['Thanks']);
    expect(left('rule', 'passphrase')).toEqual([]);
  });

  it('find labels, and leave kinds to the Write lens', () => {
    expect(left('labelled', shop)).toEqual(['Saws']);
    const labelled = ACCESS_FILTERS.find(({ key }) => key === 'labelled')!;
    expect(labelled.valuesOf!(facts(null))).toEqual([{ value: shop, words: 'Shop floor' }]);
  });

  it('offer the audiences that the site has, everyone first', () => {
    const opens = ACCESS_FILTERS.find(({ key }) => key === 'opens-to')!;
    expect(opens.valuesOf!(facts(null)).map(({ words }) => words)).toEqual(['Everyone', 'Staff']);
  });
});
