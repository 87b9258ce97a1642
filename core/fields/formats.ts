import { dateFormatter, numberFormatter } from '../model/formatters.ts';

/** Days as people of a language write them; English without a country has the day first, as the rest of Spur has it. */
const localeOf = (language: string): string => (language === 'en' ? 'en-GB' : language);

const DATES = {
  day: { dateStyle: 'long' },
  moment: { dateStyle: 'long', timeStyle: 'short' },
  month: { month: 'long', year: 'numeric' },
  'name of the month': { month: 'long' },
  'name of the day': { weekday: 'long' },
  'short name of the day': { weekday: 'short' },
} as const satisfies Record<string, Intl.DateTimeFormatOptions>;

/** Says days and moments in UTC: they bear no zone of their own. @param language as a BCP 47 tag */
export const dateFormat = (language: string, what: keyof typeof DATES): Intl.DateTimeFormat =>
  dateFormatter(localeOf(language), { ...DATES[what], timeZone: 'UTC' });

const ranges = new Map<string, string>();
const MAX_RANGES = 5000;

/** The days from one to another, what they have in common said once: "5 – 9 March 2027". It takes long, and lists say the same again and again. */
export function rangeWords(language: string, first: string, last: string): string {
  const key = `${language} ${first} ${last}`;
  let words = ranges.get(key);
  if (words === undefined) {
    if (ranges.size >= MAX_RANGES) ranges.clear();
    words = dateFormat(language, 'day').formatRange(new Date(first), new Date(last));
    ranges.set(key, words);
  }
  return words;
}

/** Says numbers, or sums of a currency (ISO 4217), those without a fraction as whole ones. */
export const numberFormat = (language: string, currency?: string, isWhole = false): Intl.NumberFormat =>
  numberFormatter(
    language,
    currency === undefined
      ? { maximumFractionDigits: 20 }
      : { style: 'currency', currency, ...(isWhole && { maximumFractionDigits: 0 }) },
  );
