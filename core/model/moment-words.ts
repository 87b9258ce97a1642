import { dateFormatter } from './formatters.ts';

/** A moment by the clock of a site, for reading: "3 Mar 2027, 06:00". @param iso as ISO 8601 has it; or in milliseconds since 1970 */
export const momentWords = (iso: string | number, timeZone: string): string =>
  words(iso, timeZone, { dateStyle: 'medium', timeStyle: 'short' });

/** The time of day of a moment by the clock of a site: "06:00". */
export const timeWords = (iso: string | number, timeZone: string): string =>
  words(iso, timeZone, { timeStyle: 'short' });

/** The day of a moment by the clock of a site: "3 Mar". */
export const shortDayWords = (iso: string | number, timeZone: string): string =>
  words(iso, timeZone, { day: 'numeric', month: 'short' });

/** The same with the weekday and the year: "Wednesday, 3 March 2027". */
export const longDayWords = (iso: string | number, timeZone: string): string =>
  words(iso, timeZone, { dateStyle: 'full' });

/** The day of a moment by the clock of a site, or of this device where none is named, as ISO 8601 has it. */
export function dayIn(timeZone: string | undefined, moment: string | number | Date): string {
  const at = new Date(moment);
  const part = (of: Intl.DateTimeFormatOptions) => dateFormatter('en-GB', { ...of, timeZone }).format(at);
  return `${part({ year: 'numeric' })}-${part({ month: '2-digit' })}-${part({ day: '2-digit' })}`;
}

const words = (iso: string | number, timeZone: string, how: Intl.DateTimeFormatOptions): string =>
  dateFormatter('en-GB', { ...how, timeZone }).format(new Date(iso));
