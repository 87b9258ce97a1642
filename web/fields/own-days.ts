import { dateFormatter } from '#core/model/formatters.ts';
import { type DayOrder, readDay } from '#core/model/typed-day.ts';
import { todayHere } from '../tree/plan-words.tsx';

/** The language of the person's browser: its order of day, month and year is theirs. */
const locale = (): string => navigator.language;

const numbers = () => dateFormatter(locale(), { day: '2-digit', month: '2-digit', year: 'numeric', timeZone: 'UTC' });
const partsOf = (day: string) => numbers().formatToParts(new Date(`${day}T00:00:00Z`));

export const ownOrder = (): DayOrder => {
  const order = partsOf('2027-03-05').flatMap(({ type }) =>
    type === 'day' || type === 'month' || type === 'year' ? type[0]! : [],
  );
  return order[0] === 'y' ? 'ymd' : order[0] === 'm' ? 'mdy' : 'dmy';
};

/** A day as the person writes it, in numbers; '' for none. */
export const writtenDay = (day: string): string => (day === '' ? '' : numbers().format(new Date(`${day}T00:00:00Z`)));

/** The day that the person has typed; null where it is none. */
export function readOwnDay(text: string): string | null {
  const month = dateFormatter(locale(), { month: 'long', timeZone: 'UTC' });
  const months = Array.from({ length: 12 }, (_, at) => month.format(new Date(Date.UTC(2027, at, 1))));
  return readDay(text, ownOrder(), todayHere(), months);
}
