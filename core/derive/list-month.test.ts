import { describe, expect, it } from 'vitest';
import { fieldContextOf } from '../fields/context.ts';
import { maybeUsedField } from '../fields/values.ts';
import { toPageId, toSiteKey } from '../model/ids.ts';
import type { FieldId, FieldTypeName } from '../model/kind-field.ts';
import { makeSite, newSettings } from '../model/site.ts';
import type { Operation } from '../operations/operation.ts';
import { PLAIN_PAGE_LIST } from '../sections/page-list.ts';
import { siteAfter } from '../testing/random-site.ts';
import { derivedOf } from './derived.ts';
import { monthAfter, monthField, monthOfList, weeksOf } from './list-month.ts';

/** A site in which pages say when they are, each by its title. */
function monthsOf(type: FieldTypeName, said: Readonly<Record<string, string>>, today = '2027-03-10') {
  const site = siteAfter(
    [
      { name: 'label.add', label: 'event', title: 'Event', about: 'event' } as Operation,
      { name: 'field.add', label: 'event', field: 'when', title: 'When', settings: { type } } as Operation,
      ...Object.entries(said).map(
        ([title, value]) =>
          ({
            name: 'page.add',
            page: toPageId(title),
            place: { parent: null },
            title: { en: title },
            access: { labels: ['event'] },
            details: { when: value },
          }) as unknown as Operation,
      ),
    ],
    makeSite(toSiteKey('quay'), newSettings('Quay', 'en' as never), []),
  );
  const derived = derivedOf(site);
  const found = maybeUsedField(site.settings.labels, 'when' as FieldId)!;
  return (asked: string | null = null) => {
    const rows = derived.outline.nodes.map((_, row) => row);
    const { days, ...month } = monthOfList(
      derived,
      rows,
      found,
      fieldContextOf(site, today, () => undefined),
      asked,
    );
    const titles = [...days].map(([day, on]) => [day, on.map((row) => derived.outline.nodes[row]!.id).join()]);
    return { ...month, days: Object.fromEntries(titles.sort()) as Record<string, string> };
  };
}

describe('a month of a list', () => {
  it('is the one in which there is something next, or the last', () => {
    expect(monthsOf('day', { Over: '2027-03-09', Fair: '2027-04-20' })().month).toBe('2027-04');
    expect(monthsOf('day', { Over: '2027-03-09' })().month).toBe('2027-03');
    expect(monthsOf('day', { Over: '2027-03-09', Today: '2027-03-10' })().month).toBe('2027-03');
    const month = monthsOf('day', { Past: '2026-12-24', Launch: '2027-05-01', Fair: '2027-05-20' });
    expect(month()).toEqual({
      month: '2027-05',
      days: { '2027-05-01': 'Launch', '2027-05-20': 'Fair' },
      before: '2026-12',
      after: null,
    });
    expect(month('2026-12')).toMatchObject({ days: { '2026-12-24': 'Past' }, before: null, after: '2027-05' });
    expect(month('2027-01')).toMatchObject({ days: {}, before: '2026-12', after: '2027-05' });
    expect(monthsOf('day', { Past: '2026-12-24' })().month).toBe('2026-12');
    expect(monthsOf('day', {})()).toEqual({ month: '2027-03', days: {}, before: null, after: null });
  });

  it('has each day of a short period, and the ends of a long one', () => {
    const month = monthsOf('period', { Week: '2027-03-30/2027-04-02', Term: '2027-01-11/2027-04-02' });
    expect(month('2027-03').days).toEqual({ '2027-03-30': 'Week', '2027-03-31': 'Week' });
    expect(month('2027-04').days).toEqual({ '2027-04-01': 'Week', '2027-04-02': 'Week,Term' });
    expect(month('2027-01')).toMatchObject({ days: { '2027-01-11': 'Term' }, after: '2027-03' });
  });

  it('has days that repeat, without those left out and with those besides', () => {
    const month = monthsOf('repeats', {
      Open: '2027-03-06 10:00-16:00 FREQ=MONTHLY;BYDAY=1SA without 2027-04-03 and 2027-04-10',
    });
    expect(month('2027-03').days).toEqual({ '2027-03-06': 'Open' });
    expect(month('2027-04').days).toEqual({ '2027-04-10': 'Open' });
    expect(month('2031-06')).toMatchObject({ days: { '2031-06-07': 'Open' }, before: '2031-05', after: '2031-07' });
    expect(month('2041-01')).toMatchObject({ before: '2040-12' });
  });

  it('takes the day of a moment', () =>
    expect(monthsOf('moment', { Talk: '2027-03-05T18:30' })('2027-03').days).toEqual({ '2027-03-05': 'Talk' }));
});

it('the field is the one that orders the list, else the first that is shown and says when something is', () => {
  const field = (id: string, type: FieldTypeName, isForVisitors = true) =>
    ({ name: 'field.add', label: 'event', field: id, title: id, settings: { type, isForVisitors } }) as Operation;
  const site = siteAfter(
    [
      { name: 'label.add', label: 'event', title: 'Event', about: 'event' } as Operation,
      field('price', 'money'),
      field('inner', 'day', false),
      field('when', 'day'),
      field('ends', 'day'),
    ],
    makeSite(toSiteKey('quay'), newSettings('Quay', 'en' as never), []),
  );
  const of = (setting: object) => monthField(site, { ...PLAIN_PAGE_LIST, ...setting })?.field.id ?? null;
  expect(of({ fields: ['price', 'inner', 'when', 'ends'] })).toBe('when');
  expect(of({ order: 'field', by: 'ends', fields: ['when'] })).toBe('ends');
  expect(of({ order: 'field', by: 'price', fields: [] })).toBeNull();
});

it('weeks hold every day of a month once, under its day of the week', () => {
  for (const first of [1, 7])
    for (let month = '2023-11'; month < '2029-03'; month = monthAfter(month, 1)) {
      const weeks = weeksOf(month, first);
      const days = weeks.flat().filter((day) => day !== null);
      expect(days.length).toBe(new Date(Date.UTC(Number(month.slice(0, 4)), Number(month.slice(5)), 0)).getUTCDate());
      expect(new Set(days).size).toBe(days.length);
      for (const week of weeks) {
        expect(week.length).toBe(7);
        week.forEach((day, at) => {
          if (day !== null) expect(new Date(day).getUTCDay()).toBe((first + at) % 7);
        });
      }
    }
  expect([monthAfter('2027-12', 1), monthAfter('2027-01', -1), monthAfter('2027-03', 0)]).toEqual([
    '2028-01',
    '2026-12',
    '2027-03',
  ]);
});
