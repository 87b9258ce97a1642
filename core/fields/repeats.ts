import { dayWords, isDay } from './date-types.ts';
import { dateFormat } from './formats.ts';
import { listFormatter } from '../model/formatters.ts';
import { readTime } from '../model/typed-day.ts';
import type { FieldType } from './field-type.ts';

/** Days that repeat: from when on, by what rule, which of them are left out, and which there are besides. */
export interface Repetition {
  /** The day from which the rule counts, as ISO 8601 has it. */
  readonly start: string;
  /** From and until when on each day, as `10:00`; null for whole days. */
  readonly times: readonly [from: string, until: string] | null;
  /** A recurrence rule (RFC 5545, 3.3.10) of the parts that `RULE` allows. */
  readonly rule: string;
  readonly without: readonly string[];
  readonly and: readonly string[];
}

/**
 * The parts of a rule that are taken, each at most once, in the order in which rules are written down. What would need a search for days
 * that never come is not among them.
 */
const RULE =
  /^FREQ=(?:DAILY|WEEKLY|MONTHLY|YEARLY)(?:;COUNT=[1-9]\d{0,2})?(?:;INTERVAL=[1-9]\d?)?(?:;BYDAY=(?:(?:[1-5]|-1)?(?:MO|TU|WE|TH|FR|SA|SU))(?:,(?:[1-5]|-1)?(?:MO|TU|WE|TH|FR|SA|SU)){0,6})?(?:;BYMONTHDAY=(?:-1|[1-9]|[12]\d|3[01]))?(?:;BYMONTH=(?:[1-9]|1[0-2]))?(?:;UNTIL=\d{8})?$/;
const MAX_DAYS_APART = 100;
const areDays = (days: readonly string[]): boolean =>
  days.length <= MAX_DAYS_APART && days.every(isDay) && days.every((day, at) => at === 0 || days[at - 1]! < day);

/** The parts of a rule that are written down. */
export function partsOfRule(rule: string): Readonly<Record<string, string>> {
  return Object.fromEntries(rule.split(';').map((part) => part.split('=') as [string, string]));
}

/** Whether a rule is one that is taken: numbers before days of the week are for months and years, days of the month for months. */
function isRule(rule: string): boolean {
  if (rule.length > 200 || !RULE.test(rule)) return false;
  const { FREQ, BYDAY = '', BYMONTHDAY, BYMONTH, COUNT, UNTIL } = partsOfRule(rule);
  const hasNumbers = /\d/.test(BYDAY);
  if (COUNT !== undefined && UNTIL !== undefined) return false;
  if (UNTIL !== undefined && !isDay(`${UNTIL.slice(0, 4)}-${UNTIL.slice(4, 6)}-${UNTIL.slice(6)}`)) return false;
  if (FREQ === 'DAILY') return BYDAY === '' && BYMONTHDAY === undefined && BYMONTH === undefined;
  if (FREQ === 'WEEKLY') return !hasNumbers && BYMONTHDAY === undefined && BYMONTH === undefined;
  if (FREQ === 'MONTHLY') return BYMONTH === undefined && (BYDAY === '' || (hasNumbers && BYMONTHDAY === undefined));
  // In a year days of the week are those of a month.
  return BYMONTHDAY === undefined && (BYDAY === '') === (BYMONTH === undefined) && (BYDAY === '' || hasNumbers);
}

/** A value, parted; null for what is none. */
export function readRepetition(value: string): Repetition | null {
  const found = /^(\S{10})(?: (\d\d:\d\d)-(\d\d:\d\d))? (FREQ=\S+)(?: without (\S+))?(?: and (\S+))?$/.exec(value);
  if (!found) return null;
  const [, start = '', from, until, rule = '', without, and] = found;
  const repetition: Repetition = {
    start,
    times: from === undefined || until === undefined ? null : [from, until],
    rule,
    without: without === undefined ? [] : without.split(','),
    and: and === undefined ? [] : and.split(','),
  };
  const areTimes =
    repetition.times === null || (repetition.times.every((time) => readTime(time) === time) && from! < until!);
  return isDay(start) && areTimes && isRule(rule) && areDays(repetition.without) && areDays(repetition.and)
    ? repetition
    : null;
}

/** The value that says a repetition; null where it is none that is taken. */
export function writeRepetition({ start, times, rule, without, and }: Repetition): string | null {
  const days = (word: string, all: readonly string[]) =>
    all.length === 0 ? '' : ` ${word} ${[...new Set(all)].sort().join(',')}`;
  const value = `${start}${times ? ` ${times[0]}-${times[1]}` : ''} ${rule}${days('without', without)}${days('and', and)}`;
  return readRepetition(value) ? value : null;
}

const WEEK = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];
/** A Monday: the days of the week are named by the days that follow it. */
const MONDAY = Date.UTC(2027, 0, 4);
const DAY_MS = 86_400_000;
const dayName = (code: string, locale: string): string =>
  dateFormat(locale, 'name of the day').format(MONDAY + WEEK.indexOf(code) * DAY_MS);
const listed = (all: readonly string[], locale: string): string => listFormatter(locale, {}).format(all);

interface Words {
  readonly every: (unit: 'DAILY' | 'WEEKLY' | 'MONTHLY' | 'YEARLY', count: number) => string;
  readonly onDays: (days: string) => string;
  readonly onNumber: (number: number) => string;
  /** "the first Saturday" */
  readonly nth: (number: number, day: string) => string;
  readonly of: (days: string, unit: 'MONTHLY' | 'YEARLY', count: number, month: string) => string;
  readonly until: (day: string) => string;
  readonly times: (count: number) => string;
  readonly from: (day: string) => string;
  readonly without: (days: string) => string;
  readonly and: (days: string) => string;
}

const ENGLISH: Words = {
  every: (unit, count) => {
    const name = { DAILY: 'day', WEEKLY: 'week', MONTHLY: 'month', YEARLY: 'year' }[unit];
    return count === 1 ? `Every ${name}` : `Every ${count} ${name}s`;
  },
  onDays: (days) => ` on ${days}`,
  onNumber: (number) => (number === -1 ? ' on its last day' : ` on day ${number}`),
  nth: (number, day) =>
    `${{ 1: 'first', 2: 'second', 3: 'third', 4: 'fourth', 5: 'fifth', '-1': 'last' }[number]} ${day}`,
  of: (days, unit, count, month) => {
    const each = unit === 'YEARLY' ? month : count === 1 ? 'each month' : `every ${count} months`;
    return `The ${days} ${count === 1 || unit === 'YEARLY' ? 'of' : ''} ${each}`.replace('  ', ' ');
  },
  until: (day) => `, until ${day}`,
  times: (count) => `, ${count === 1 ? 'once' : `${count} times`}`,
  from: (day) => `, from ${day}`,
  without: (days) => `; not on ${days}`,
  and: (days) => `; also on ${days}`,
};
const GERMAN: Words = {
  every: (unit, count) =>
    count === 1
      ? { DAILY: 'Jeden Tag', WEEKLY: 'Jede Woche', MONTHLY: 'Jeden Monat', YEARLY: 'Jedes Jahr' }[unit]
      : `Alle ${count} ${{ DAILY: 'Tage', WEEKLY: 'Wochen', MONTHLY: 'Monate', YEARLY: 'Jahre' }[unit]}`,
  onDays: (days) => ` am ${days}`,
  onNumber: (number) => (number === -1 ? ' am letzten Tag' : ` am ${number}.`),
  nth: (number, day) =>
    `${{ 1: 'ersten', 2: 'zweiten', 3: 'dritten', 4: 'vierten', 5: 'fünften', '-1': 'letzten' }[number]} ${day}`,
  of: (days, unit, count, month) =>
    unit === 'YEARLY'
      ? `Am ${days} im ${month}`
      : count === 1
        ? `Jeden ${days} im Monat`
        : `Alle ${count} Monate am ${days}`,
  until: (day) => `, bis ${day}`,
  times: (count) => `, ${count}-mal`,
  from: (day) => `, ab ${day}`,
  without: (days) => `; nicht am ${days}`,
  and: (days) => `; auch am ${days}`,
};

/** A repetition in a sentence: "The first Saturday of each month, 10:00–16:00, from 6 March 2027". @param language as a BCP 47 tag */
export function repetitionWords(value: string, language: string): string {
  const repetition = readRepetition(value);
  if (!repetition) return '';
  const words = /^de\b/i.test(language) ? GERMAN : ENGLISH;
  const locale = words === GERMAN ? 'de' : 'en-GB';
  const day = (iso: string): string => dayWords(iso, locale);
  const { FREQ, INTERVAL = '1', BYDAY, BYMONTHDAY, BYMONTH, COUNT, UNTIL } = partsOfRule(repetition.rule);
  const unit = FREQ as 'DAILY' | 'WEEKLY' | 'MONTHLY' | 'YEARLY';
  const count = Number(INTERVAL);
  const codes = BYDAY?.split(',') ?? [];
  const said =
    (unit === 'MONTHLY' || unit === 'YEARLY') && codes.length > 0
      ? words.of(
          listed(
            codes.map((code) => words.nth(Number.parseInt(code, 10), dayName(code.slice(-2), locale))),
            locale,
          ),
          unit,
          count,
          dateFormat(locale, 'name of the month').format(Date.UTC(2027, Number(BYMONTH ?? 1) - 1)),
        )
      : words.every(unit, count) +
        (codes.length > 0
          ? words.onDays(
              listed(
                codes.map((code) => dayName(code, locale)),
                locale,
              ),
            )
          : '') +
        (BYMONTHDAY !== undefined ? words.onNumber(Number(BYMONTHDAY)) : '');
  return [
    said,
    repetition.times ? `, ${repetition.times[0]}–${repetition.times[1]}` : '',
    words.from(day(repetition.start)),
    UNTIL === undefined ? '' : words.until(day(`${UNTIL.slice(0, 4)}-${UNTIL.slice(4, 6)}-${UNTIL.slice(6)}`)),
    COUNT === undefined ? '' : words.times(Number(COUNT)),
    repetition.without.length === 0 ? '' : words.without(listed(repetition.without.map(day), locale)),
    repetition.and.length === 0 ? '' : words.and(listed(repetition.and.map(day), locale)),
  ].join('');
}

export const REPEATS: FieldType = {
  type: 'repeats',
  name: 'Days that repeat',
  says: 'Such as the first Saturday of each month',
  expects: () => 'a first day and a rule of RFC 5545, such as 2027-03-06 FREQ=MONTHLY;BYDAY=1SA',
  read: (typed) => {
    const value = typed.trim().replace(/\s+/g, ' ');
    return readRepetition(value) ? value : undefined;
  },
  isValue: (value) => readRepetition(value) !== null,
  written: (value) => value,
  words: (value, _, { language }) => repetitionWords(value, language),
  compare: (a, b) => (a < b ? -1 : a > b ? 1 : 0),
  settings: [],
};
