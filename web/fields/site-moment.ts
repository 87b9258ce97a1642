import { TZDate } from '@date-fns/tz';

/** The moment that a field for day and time (`2027-03-03T06:00`) means by the clock of a site; null where it is empty. */
export function momentOfField(text: string, timeZone: string): Date | null {
  const [year, month, day, hour, minute] = text.split(/\D/).map(Number);
  if (year === undefined || minute === undefined) return null;
  return new Date(new TZDate(year, month! - 1, day!, hour!, minute, timeZone).getTime());
}

/** A moment as a field for day and time shows it, by the clock of a site. */
export function fieldOfMoment(moment: Date, timeZone: string): string {
  const at = new TZDate(moment.getTime(), timeZone);
  const two = (number: number) => String(number).padStart(2, '0');
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}T${two(at.getHours())}:${two(at.getMinutes())}`;
}
