import { describe, expect, it } from 'vitest';
import { toPageId } from '../model/ids.ts';
import type { PlanChange } from '../model/plan.ts';
import { siteAfter } from '../testing/random-site.ts';
import { derivedOf } from './derived.ts';
import { WORDS_A_WEEK, mondayOf, scheduleOf } from './schedule.ts';

const page = (id: string, plan: PlanChange, parent: string | null = 'top') => ({
  name: 'page.add' as const,
  page: toPageId(id),
  place: { parent: parent === null ? null : toPageId(parent) },
  title: { en: id.toUpperCase() },
  plan,
});
const site = siteAfter([
  page('top', {}, null),
  page('a', { owner: 'Ines', due: '2026-12-02', words: 900 }),
  page('b', { owner: 'Ines', due: '2026-12-04', words: 800, importance: 1 }),
  page('c', { owner: 'Ines', due: '2026-12-04', words: 5000, readiness: 'ready' }),
  page('d', { owner: '', due: '2026-12-21', words: 100 }),
  page('e', { owner: 'Marek', due: '2026-11-20', readiness: 'drafting' }),
  page('f', { owner: 'Marek' }),
]);
const schedule = scheduleOf(site, derivedOf(site), '2026-11-25');

describe('the schedule', () => {
  it('has each owner’s weeks, without gaps between the first and the last', () => {
    expect(schedule.weeks).toEqual([
      '2026-11-16',
      '2026-11-23',
      '2026-11-30',
      '2026-12-07',
      '2026-12-14',
      '2026-12-21',
    ]);
    expect(schedule.owners.map(({ name }) => name)).toEqual(['Ines', 'Marek', '']);
  });

  it('counts the words that are still to be written, and says when they are too many', () => {
    const load = schedule.owners[0]!.weeks.get('2026-11-30')!;
    expect([load.tasks.length, load.words, load.isTooMuch]).toEqual([3, 1700, 1700 > WORDS_A_WEEK]);
    expect(schedule.owners[2]!.weeks.get('2026-12-21')!.isTooMuch).toBe(false);
  });

  it('knows what is late, what blocks opening, and what has no day', () => {
    expect(schedule.late.map(({ page: id }) => id)).toEqual(['e']);
    expect(schedule.blocking.map(({ page: id }) => id)).toEqual(['b']);
    expect(schedule.undated).toBe(2);
  });

  it('knows the Monday of each day', () =>
    expect(['2026-11-29', '2026-11-30', '2027-01-01'].map(mondayOf)).toEqual([
      '2026-11-23',
      '2026-11-30',
      '2026-12-28',
    ]));
});
