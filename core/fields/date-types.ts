import { readDay, readTime } from '../model/typed-day.ts';
import { dateFormat, rangeWords } from './formats.ts';
import { type FieldContext, type FieldType, inFormOrder } from './field-type.ts';

const LENGTHS = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];

/** Whether a text is a day that there is, as ISO 8601 has it, from 1900 on. Lists ask it of thousands of values. */
export function isDay(value: string): boolean {
  if (value.length !== 10 || value[4] !== '-' || value[7] !== '-') return false;
  const [year, month, day] = [numberIn(value, 0, 4), numberIn(value, 5, 7), numberIn(value, 8, 10)];
  const isLeap = (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;
  const length = month === 2 && isLeap ? 29 : (LENGTHS[month - 1] ?? 0);
  return year >= 1900 && day >= 1 && day <= length;
}

/** The number that the digits of a text say from one place up to another; not a number where there is anything else. */
function numberIn(text: string, from: number, to: number): number {
  let number = 0;
  for (let at = from; at < to; at++) {
    const digit = text.charCodeAt(at) - 48;
    number = digit >= 0 && digit <= 9 ? number * 10 + digit : NaN;
  }
  return number;
}

const monthNames = new Map<string, readonly string[]>();
function monthsOf(language: string): readonly string[] {
  let names = monthNames.get(language);
  if (!names) {
    const month = dateFormat(language, 'name of the month');
    names = Array.from({ length: 12 }, (_, at) => month.format(Date.UTC(2027, at, 1)));
    monthNames.set(language, names);
  }
  return names;
}

const readOneDay = (typed: string, { language, today }: FieldContext): string | undefined =>
  readDay(typed.trim(), /^en-US/i.test(language) ? 'mdy' : 'dmy', today, monthsOf(language)) ?? undefined;

/** A day for reading: "5 March 2027". */
export const dayWords = (day: string, language: string): string => dateFormat(language, 'day').format(new Date(day));

export const DAY_TYPE: FieldType = {
  type: 'day',
  name: 'Day',
  says: 'A date without a time',
  expects: () => 'a day, such as 5 March 2027',
  read: (typed, _, context) => readOneDay(typed, context),
  isValue: isDay,
  written: (value) => value,
  words: (value, _, { language }) => dayWords(value, language),
  compare: inFormOrder,
  settings: [],
};

const MOMENT = /^(\d{4}-\d{2}-\d{2})T(\d{2}:\d{2})$/;
const isMoment = (value: string): boolean => {
  const [, day = '', time = ''] = MOMENT.exec(value) ?? [];
  return isDay(day) && readTime(time) === time;
};

/** A day and a time, in one text: the time is its last word, or its last two where these are a time of half a day. */
function readMoment(typed: string, context: FieldContext): string | undefined {
  const text = typed.trim().replace(/[T,]/g, ' ').replace(/\s+/g, ' ');
  const words = text.split(' ');
  for (const count of [2, 1]) {
    const last = words.slice(-count).join(' ');
    // A number alone is a year.
    const time = /[:.h]|[ap]m|uhr/i.test(last) ? readTime(last) : null;
    const day = readOneDay(words.slice(0, -count).join(' '), context);
    if (time !== null && day !== undefined) return `${day}T${time}`;
  }
  return undefined;
}

export const MOMENT_TYPE: FieldType = {
  type: 'moment',
  name: 'Day and time',
  says: 'A moment by the site’s clock',
  expects: () => 'a day and a time, such as 5 March 2027 18:30',
  read: (typed, _, context) => readMoment(typed, context),
  isValue: isMoment,
  written: (value) => value.replace('T', ' '),
  words: (value, _, { language }) => dateFormat(language, 'moment').format(new Date(`${value}Z`)),
  compare: inFormOrder,
  settings: [],
};

/** The first and the last day of a period: an interval as ISO 8601 has it. */
export function daysOfPeriod(value: string): readonly [first: string, last: string] | null {
  if (value.length !== 21 || value[10] !== '/') return null;
  const [first, last] = [value.slice(0, 10), value.slice(11)];
  return isDay(first) && isDay(last) && first <= last ? [first, last] : null;
}

function readPeriod(typed: string, context: FieldContext): string | undefined {
  const text = typed.trim();
  const isoDays = text.split('/');
  const halves = isoDays.length === 2 && isoDays.every(isDay) ? isoDays : text.split(/ (?:to|until|bis|-) | ?[–—] ?/);
  if (halves.length > 2) return undefined;
  const last = readOneDay(halves.at(-1)!, context);
  if (last === undefined) return undefined;
  // "5 to 9 March 2027": the first day borrows what it lacks from the last one.
  const first = /^\d{1,2}\.?$/.test(halves[0]!)
    ? `${last.slice(0, 8)}${halves[0]!.replace('.', '').padStart(2, '0')}`
    : readOneDay(halves[0]!, { ...context, today: last });
  const value = `${first ?? ''}/${last}`;
  return daysOfPeriod(value) ? value : undefined;
}

export const PERIOD_TYPE: FieldType = {
  type: 'period',
  name: 'Period',
  says: 'From one day to another',
  expects: () => 'the first and the last day, such as 5 March 2027 to 9 March 2027',
  read: (typed, _, context) => readPeriod(typed, context),
  isValue: (value) => daysOfPeriod(value) !== null,
  written: (value) => value.replace('/', ' to '),
  words: (value, _, { language }) => {
    const [first, last] = daysOfPeriod(value)!;
    return rangeWords(language, first, last);
  },
  compare: inFormOrder,
  settings: [],
};
