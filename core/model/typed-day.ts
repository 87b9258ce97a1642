/** In which order somebody writes day, month and year. */
export type DayOrder = 'dmy' | 'mdy' | 'ymd';

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const MAX_TYPED_LENGTH = 40;

/**
 * The day that a typed text means, as ISO 8601 has it (`2027-03-05`); null where it means none. Understood are numbers in the person's own
 * order (`5.3.27`, `5/3/2027`, `5 3`), ISO, and names of months (`5 March 2027`). Without a year it is in that of `today`.
 * @param months further names of the twelve months, in the person's language
 */
export function readDay(text: string, order: DayOrder, today: string, months: readonly string[] = []): string | null {
  if (text.length > MAX_TYPED_LENGTH) return null;
  const parts = text.toLowerCase().match(/\d+|\p{L}+/gu) ?? [];
  const named = parts.findIndex((part) => monthOf(part, months) !== null);
  const numbers = parts.filter((part) => /^\d+$/.test(part));
  const month = named === -1 ? null : monthOf(parts[named]!, months);
  if (month !== null) {
    const [day, year] = order === 'ymd' && numbers[0]?.length === 4 ? [numbers[1], numbers[0]] : numbers;
    return numbers.length > 2 ? null : dayOf(year ?? today.slice(0, 4), month, Number(day));
  }
  if (numbers.length < 2 || numbers.length > 3 || numbers.length !== parts.length) return null;
  const [a, b, c] = numbers as [string, string, string?];
  if (a.length === 4) return c === undefined ? null : dayOf(a, Number(b), Number(c));
  if (c === undefined)
    return order === 'dmy'
      ? dayOf(today.slice(0, 4), Number(b), Number(a))
      : dayOf(today.slice(0, 4), Number(a), Number(b));
  if (order === 'dmy') return dayOf(c, Number(b), Number(a));
  return order === 'mdy' ? dayOf(c, Number(a), Number(b)) : dayOf(a, Number(b), Number(c));
}

/** The time of day that a typed text means (`06:30`); null where it means none. Understood are `6`, `6:30`, `6.30`, `0630`, `6 pm`. */
export function readTime(text: string): string | null {
  const typed = /^(\d{1,2})(?:[:.h ]?(\d{2}))? ?(am|pm|uhr)?$/i.exec(text.trim());
  if (!typed) return null;
  const [hour, minute] = [Number(typed[1]), Number(typed[2] ?? 0)];
  const half = typed[3]?.toLowerCase();
  if ((half === 'am' || half === 'pm') && (hour < 1 || hour > 12)) return null;
  const of24 = half === 'pm' ? (hour % 12) + 12 : half === 'am' ? hour % 12 : hour;
  return of24 > 23 || minute > 59 ? null : `${two(of24)}:${two(minute)}`;
}

function monthOf(word: string, months: readonly string[]): number | null {
  const own = months.findIndex((name) => word.length >= 3 && name.toLowerCase().startsWith(word));
  if (own !== -1) return own + 1;
  const at = /^\p{L}{3,}$/u.test(word) ? MONTHS.indexOf(word.slice(0, 3)) : -1;
  return at === -1 ? null : at + 1;
}

/** A day that there is, in a year of this century or with four digits. */
function dayOf(year: string, month: number, day: number): string | null {
  if (year.length !== 2 && year.length !== 4) return null;
  const whole = year.length === 2 ? 2000 + Number(year) : Number(year);
  const date = new Date(Date.UTC(whole, month - 1, day));
  const isThere = whole >= 1900 && date.getUTCMonth() === month - 1 && date.getUTCDate() === day;
  return isThere ? `${whole}-${two(month)}-${two(day)}` : null;
}

const two = (number: number): string => String(number).padStart(2, '0');
