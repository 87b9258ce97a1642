import { describe, expect, it, vi } from 'vitest';
import { type FilterFacts, filterRows, readFilter } from '#core/derive/filters.ts';
import { pageFindings } from '#core/checks/page-checks.ts';
import { derivedOf } from '#core/derive/derived.ts';
import type { LabelId } from '#core/model/access.ts';
import { toPageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import type { Operation } from '#core/operations/operation.ts';
import { siteAfter } from '#core/testing/random-site.ts';
import { siteOf } from '../testing/workbench-for-keys.ts';
import { ALL_FILTERS, LENS_FILTERS } from './lens-filters.ts';

vi.mock('../tree/columns.tsx', () => ({}));
const course = 'course' as LabelId;
const set = (page: string, fields: object): Operation => ({ name: 'page.set', page: toPageId(page), fields });
const SITE = siteAfter(
  [
    { name: 'label.add', label: course, title: 'Course', about: 'course' },
    set('Long', { access: { labels: [course] }, content: 'text0001' }),
    set('Short', { label: { en: 'Brief' } }),
    set('Visit', { inMenus: false }),
    { name: 'release.make', pages: ['Home', 'Courses', 'Visit'].map(toPageId), retire: [] },
    set('Visit', { title: { en: 'Come' } }),
  ],
  siteOf(['Home', 'Courses', '  Long', '  Short', 'Visit']),
);
/** The pages that a filter of any lens leaves. */
const left = (key: string, value: string, site: Site = SITE) => {
  const derived = derivedOf(site);
  const faults = new Map<ReturnType<typeof toPageId>, { fault: string }[]>();
  for (const { page, fault } of pageFindings(site, 0, [])) faults.set(page, [...(faults.get(page) ?? []), { fault }]);
  const facts: FilterFacts = { site, derived, changes: null, texts: null, feedback: null, faults, moment: 0 };
  const { matches } = filterRows(facts, ALL_FILTERS, { query: '', filter: { [key]: [value] } });
  return [...matches].map((row) => derived.outline.nodes[row]!.id as string);
};

describe('the filters that lenses bring', () => {
  it('have names of their own in the address bar', () => {
    const keys = ALL_FILTERS.map(({ key }) => key);
    expect(new Set(keys).size).toBe(keys.length);
    expect(
      Object.values(LENS_FILTERS)
        .flat()
        .every((field) => ALL_FILTERS.includes(field)),
    ).toBe(true);
  });

  it('of Write find texts and kinds', () => {
    expect(left('text', 'written')).toEqual(['Long']);
    expect(left('text', 'none')).toEqual(['Home', 'Courses', 'Short', 'Visit']);
    expect(left('kind', course)).toEqual(['Long']);
    expect(left('kind', 'none')).toEqual(['Home', 'Courses', 'Short', 'Visit']);
  });

  it('of Publish find what differs from what visitors have', () => {
    expect(left('live', 'differs')).toEqual(['Long', 'Short', 'Visit']);
    expect(left('live', 'same')).toEqual(['Home', 'Courses']);
  });

  it('of Menus find what is in one, why others are not, and labels', () => {
    expect(left('menu', 'in')).toEqual(['Home', 'Courses', 'Long', 'Short']);
    expect(left('menu', 'off menus')).toEqual(['Visit']);
    expect(left('label', 'own')).toEqual(['Short']);
  });

  it('of Checks find what pages lack', () => {
    expect(left('lacks', 'no way')).toEqual(['Visit']);
    expect(left('lacks', 'no text')).toEqual(['Home', 'Short', 'Visit']);
  });

  it('are read from an address as far as they are known', () => {
    const asked: Record<string, string> = { live: 'differs,never', menu: 'in', nonsense: 'x', lacks: 'no way' };
    expect(readFilter((key) => asked[key] ?? null, ALL_FILTERS)).toEqual({
      live: ['differs'],
      menu: ['in'],
      lacks: ['no way'],
    });
  });
});
