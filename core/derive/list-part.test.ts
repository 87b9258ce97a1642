import { describe, expect, it } from 'vitest';
import { fieldContextOf } from '../fields/context.ts';
import { toPageId, toSiteKey } from '../model/ids.ts';
import type { FieldId, FieldSettings } from '../model/kind-field.ts';
import { makeSite, newSettings } from '../model/site.ts';
import type { Operation } from '../operations/operation.ts';
import { type PageListSetting, PLAIN_PAGE_LIST } from '../sections/page-list.ts';
import { Draw } from '../testing/draw.ts';
import { siteAfter } from '../testing/random-site.ts';
import { derivedOf } from './derived.ts';
import { type ListState, WHOLE_LIST, hasStates, partOfList } from './list-part.ts';
import { listedPages } from './page-list.ts';

const id = (name: string) => name as FieldId;
const draw = new Draw(7);
const LEVELS = ['first', 'some', 'much'];
const field = (name: string, settings: Partial<FieldSettings>): Operation =>
  ({ name: 'field.add', label: 'course', field: name, title: name, settings }) as Operation;
/** Forty courses; what each says is drawn. */
const site = siteAfter(
  [
    { name: 'label.add', label: 'course', title: 'Course', about: 'course' } as Operation,
    field('level', { type: 'choice', isSeveral: true, choices: LEVELS.map((one) => ({ id: one, name: one })) }),
    field('day', { type: 'day' }),
    field('full', { type: 'yesNo' }),
    field('teacher', { type: 'pages' }),
    field('note', { type: 'text', isForVisitors: false }),
    ...['Marek', 'Ada', 'Ines'].map((title): Operation => ({
      name: 'page.add',
      page: toPageId(title),
      place: { parent: null },
      title: { en: title },
    })),
    ...Array.from({ length: 40 }, (_, n): Operation => {
      const levels = draw.some(LEVELS, 0, 2);
      return {
        name: 'page.add',
        page: toPageId(`c${n}`),
        place: { parent: null },
        title: { en: `Course ${n}` },
        access: { labels: ['course'] },
        details: {
          ...(levels.length > 0 && { level: LEVELS.filter((one) => levels.includes(one)).join(' ') }),
          ...(draw.chance(0.8) && { day: draw.of(['2027-03-05', '2027-03-20', '2027-05-01']) }),
          ...(draw.chance(0.5) && { full: draw.of(['yes', 'no']) }),
          ...(draw.chance(0.7) && { teacher: draw.of(['Marek', 'Ada']) }),
          note: 'x',
        },
      } as unknown as Operation;
    }),
  ],
  makeSite(toSiteKey('quay'), newSettings('Quay', 'en' as never), []),
);
const derived = derivedOf(site);
const context = fieldContextOf(site, '2026-11-30', () => undefined);
const setting: PageListSetting = {
  ...PLAIN_PAGE_LIST,
  from: 'site',
  kind: 'course' as never,
  group: id('day'),
  filters: ['level', 'day', 'full', 'teacher'].map(id),
  atOnce: 7,
};
const groups = listedPages(site, derived, toPageId('Marek'), setting, context);
const all = groups.flatMap(({ rows }) => rows);
const stateOf = (chosen: Record<string, string>, part = 1): ListState => ({
  chosen: new Map(Object.entries(chosen) as [FieldId, string][]),
  part,
  month: null,
});
const partOf = (state: ListState, of: PageListSetting = setting) =>
  partOfList(site, derived, groups, of, context, state);
const rowsOf = (state: ListState): number[] => {
  const rows: number[] = [];
  for (let part = 1; part <= partOf(state).parts; part++)
    rows.push(...partOf({ ...state, part }).groups.flatMap((group) => group.rows));
  return rows;
};
/** What a page says, in words of its own for what is filtered by months. */
const saysAt = (row: number, field: string): string[] => {
  const value = derived.outline.nodes[row]!.details?.[id(field)];
  return value === undefined ? [] : field === 'day' ? [value.slice(0, 7)] : value.split(' ');
};

/** What can be chosen. */
const OF: Readonly<Record<string, readonly string[]>> = {
  level: LEVELS,
  day: ['2027-03', '2027-05'],
  full: ['yes', 'no'],
  teacher: ['Marek', 'Ada', 'Ines'],
};

describe('a list that visitors filter', () => {
  it('has in its parts, one after the other, exactly the pages that say what was chosen', () => {
    let filtered = 0;
    for (let n = 0; n < 300; n++) {
      const one = new Draw(n);
      const chosen = Object.fromEntries(
        one.some(Object.keys(OF), 0, 2).map((field) => [field, one.chance(0.1) ? 'gone' : one.of(OF[field]!)]),
      );
      const wanted = all.filter((row) =>
        Object.entries(chosen).every(([field, value]) => saysAt(row, field).includes(value)),
      );
      expect(rowsOf(stateOf(chosen))).toEqual(wanted);
      expect(partOf(stateOf(chosen)).count).toBe(wanted.length);
      if (wanted.length > 0 && wanted.length < all.length) filtered++;
    }
    expect(filtered).toBeGreaterThan(60);
  });

  it('offers the values that its pages have, in the order of each field', () => {
    expect(partOf(WHOLE_LIST).filters.map(({ found, values }) => [found.field.name, values])).toEqual([
      ['level', LEVELS],
      ['day', ['2027-03', '2027-05']],
      ['full', ['yes', 'no']],
      ['teacher', ['Ada', 'Marek']],
    ]);
    // They stay while something is chosen, so that another one can be.
    expect(partOf(stateOf({ level: 'first' })).filters).toEqual(partOf(WHOLE_LIST).filters);
  });

  it('offers nothing that is not for visitors, and no page that the visitor does not know of', () => {
    expect(partOf(WHOLE_LIST, { ...setting, filters: [id('note'), id('gone')] }).filters).toEqual([]);
    const hidden = { ...context, titleOf: (page: string) => (page === 'Marek' ? undefined : page) };
    const { filters } = partOfList(site, derived, groups, setting, hidden, WHOLE_LIST);
    expect(filters.at(-1)!.values).toEqual(['Ada']);
  });

  it('shows its last part where one is asked for that there is not, and keeps its groups', () => {
    const last = partOf(stateOf({}, 999));
    expect([last.part, last.parts]).toEqual([6, 6]);
    expect(partOf(stateOf({}, 1)).groups.every(({ rows }) => rows.length > 0)).toBe(true);
    expect(new Set(groups.map(({ value }) => value))).toEqual(
      new Set([1, 2, 3, 4, 5, 6].flatMap((part) => partOf(stateOf({}, part)).groups.map(({ value }) => value))),
    );
  });

  it('is whole where nothing was set', () => {
    const plain = { ...setting, filters: [], atOnce: 0 };
    expect([hasStates(plain), hasStates(setting), hasStates({ ...plain, atOnce: 1 })]).toEqual([false, true, true]);
    expect(partOf(WHOLE_LIST, plain).groups).toEqual(groups);
  });
});
