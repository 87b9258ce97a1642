import { saysWhen } from '../fields/all-types.ts';
import { daysOfPeriod } from '../fields/date-types.ts';
import type { FieldContext } from '../fields/field-type.ts';
import { daysFrom, lastDayBefore } from '../fields/repeat-days.ts';
import { type FieldOfSite, detailIn, maybeUsedField } from '../fields/values.ts';
import type { FieldTypeName } from '../model/kind-field.ts';
import type { Site } from '../model/site.ts';
import type { PageListSetting } from '../sections/page-list.ts';
import type { Derived } from './derived.ts';

/** Of a period that is longer only its first and its last day are in a month: each day between would be full of it. */
const LONGEST_SHOWN = 7;
/** So many days of one repetition are looked at from the first day of a month on. */
const MOST_DAYS = 31;
const DAY_MS = 86_400_000;

/** The field by whose days a list is shown as a month: the one that orders it, else the first that is shown and says when something is. */
export function monthField(site: Site, { order, by, fields }: PageListSetting): FieldOfSite | null {
  const ids = [...(order === 'field' && by !== null ? [by] : []), ...fields];
  for (const id of ids) {
    const found = maybeUsedField(site.settings.labels, id);
    if (found && found.field.isForVisitors && saysWhen(found.field.type)) return found;
  }
  return null;
}

export interface ListMonth {
  /** As `2027-03`. */
  readonly month: string;
  /** The rows on each day of it that has any, in the order of the list, by the day as ISO 8601 has it. */
  readonly days: ReadonlyMap<string, readonly number[]>;
  /** The nearest months before and after it with anything in them; null where there is none. */
  readonly before: string | null;
  readonly after: string | null;
}

/**
 * A month of a list, by the days that its pages say.
 * @param asked the month, as `2027-03`; null for the one in which there is something next, or the last one
 */
export function monthOfList(
  derived: Derived,
  rows: readonly number[],
  found: FieldOfSite,
  context: FieldContext,
  asked: string | null,
): ListMonth {
  const values = rows.flatMap((row) => {
    const value = detailIn(derived.outline.nodes[row]!, found, context);
    return value === null ? [] : [{ row, value }];
  });
  const { type } = found.field;
  const first = (from: string): string | null =>
    leastOf(values.flatMap(({ value }) => nextDay(type, value, from) ?? []))?.slice(0, 7) ?? null;
  const last = (until: string): string | null =>
    greatestOf(values.flatMap(({ value }) => lastDay(type, value, `${until}-01`) ?? []))?.slice(0, 7) ?? null;
  const today = context.today.slice(0, 7);
  const month = asked ?? first(context.today) ?? last(monthAfter(today, 1)) ?? today;
  const days = new Map<string, number[]>();
  for (const { row, value } of values)
    for (const day of daysIn(type, value, month)) days.set(day, [...(days.get(day) ?? []), row]);
  return { month, days, before: last(month), after: first(`${monthAfter(month, 1)}-01`) };
}

/** The month so many months after another one. */
export function monthAfter(month: string, count: number): string {
  const [year, number] = month.split('-').map(Number) as [number, number];
  const months = year * 12 + number - 1 + count;
  return `${String(Math.floor(months / 12)).padStart(4, '0')}-${String((months % 12) + 1).padStart(2, '0')}`;
}

/** The days on which something is shown that says a value. */
function shownDays(type: FieldTypeName, value: string): readonly string[] {
  if (type !== 'period') return [value.slice(0, 10)];
  const days = daysOfPeriod(value);
  if (!days) return [];
  const [from, until] = days.map((day) => Date.parse(day)) as [number, number];
  const count = (until - from) / DAY_MS + 1;
  return count > LONGEST_SHOWN
    ? [days[0], days[1]]
    : Array.from({ length: count }, (_, n) => new Date(from + n * DAY_MS).toISOString().slice(0, 10));
}

const daysIn = (type: FieldTypeName, value: string, month: string): readonly string[] =>
  (type === 'repeats' ? daysFrom(value, `${month}-01`, MOST_DAYS) : shownDays(type, value)).filter((day) =>
    day.startsWith(month),
  );

/** The first day from one on. */
const nextDay = (type: FieldTypeName, value: string, from: string): string | null =>
  type === 'repeats'
    ? (daysFrom(value, from, 1)[0] ?? null)
    : leastOf(shownDays(type, value).filter((day) => day >= from));

/** The last day before one. */
const lastDay = (type: FieldTypeName, value: string, until: string): string | null =>
  type === 'repeats' ? lastDayBefore(value, until) : greatestOf(shownDays(type, value).filter((day) => day < until));

const leastOf = (days: readonly string[]): string | null =>
  days.length === 0 ? null : days.reduce((a, b) => (a < b ? a : b));
const greatestOf = (days: readonly string[]): string | null =>
  days.length === 0 ? null : days.reduce((a, b) => (a > b ? a : b));

/** The weeks of a month, seven days each, with null for days of other months. @param firstWeekday 1 for Monday, 7 for Sunday */
export function weeksOf(month: string, firstWeekday: number): (string | null)[][] {
  const start = new Date(`${month}-01T00:00:00Z`);
  const length = new Date(Date.UTC(start.getUTCFullYear(), start.getUTCMonth() + 1, 0)).getUTCDate();
  const lead = (start.getUTCDay() - (firstWeekday % 7) + 7) % 7;
  const cells: (string | null)[] = [
    ...Array.from({ length: lead }, () => null),
    ...Array.from({ length }, (_, n) => `${month}-${String(n + 1).padStart(2, '0')}`),
  ];
  while (cells.length % 7 !== 0) cells.push(null);
  return Array.from({ length: cells.length / 7 }, (_, n) => cells.slice(n * 7, n * 7 + 7));
}
