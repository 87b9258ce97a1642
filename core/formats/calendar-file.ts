import ICAL from 'ical.js';
import { daysOfPeriod } from '../fields/date-types.ts';
import { readRepetition } from '../fields/repeats.ts';
import type { FieldTypeName } from '../model/kind-field.ts';

/** Something in a calendar: when it is, as a field of days has it. */
export interface CalendarEvent {
  /** What it is known by for ever. */
  readonly id: string;
  readonly title: string;
  readonly description: string;
  readonly url: string;
  readonly type: FieldTypeName;
  readonly value: string;
}

const nextDay = (day: string): string =>
  new Date(Date.parse(`${day}T00:00:00Z`) + 86_400_000).toISOString().slice(0, 10);
const dayTime = (day: string): ICAL.Time => ICAL.Time.fromDateString(day);
const moment = (day: string, time: string): ICAL.Time => ICAL.Time.fromDateTimeString(`${day}T${time}:00`);

/**
 * Events as a calendar (iCalendar, RFC 5545). Times of day are those of the site's clock and bear no zone: a calendar shows them as they
 * are. What repeats does so by its rule. @param stamp the moment at which it is written, in milliseconds since 1970
 */
export function writeCalendar(name: string, events: readonly CalendarEvent[], stamp: number): string {
  const calendar = new ICAL.Component('vcalendar');
  calendar.addPropertyWithValue('version', '2.0');
  calendar.addPropertyWithValue('prodid', '-//Spur//Pages//EN');
  calendar.addPropertyWithValue('x-wr-calname', name);
  for (const event of events) {
    const made = eventOf(event);
    if (!made) continue;
    made.addPropertyWithValue('uid', event.id);
    made.addPropertyWithValue('dtstamp', ICAL.Time.fromJSDate(new Date(stamp), true));
    made.addPropertyWithValue('summary', event.title);
    if (event.description !== '') made.addPropertyWithValue('description', event.description);
    made.addPropertyWithValue('url', event.url);
    calendar.addSubcomponent(made);
  }
  return `${calendar.toString()}\r\n`;
}

/** When it is; null for a value that says no days. */
function eventOf({ type, value }: CalendarEvent): ICAL.Component | null {
  const event = new ICAL.Component('vevent');
  const span = (from: ICAL.Time, until: ICAL.Time | null): ICAL.Component => {
    event.addPropertyWithValue('dtstart', from);
    if (until) event.addPropertyWithValue('dtend', until);
    return event;
  };
  if (type === 'day') return span(dayTime(value), dayTime(nextDay(value)));
  if (type === 'moment') return span(moment(value.slice(0, 10), value.slice(11)), null);
  if (type === 'period') {
    const days = daysOfPeriod(value);
    return days && span(dayTime(days[0]), dayTime(nextDay(days[1])));
  }
  const repetition = type === 'repeats' ? readRepetition(value) : null;
  if (!repetition) return null;
  const { start, times, rule, without, and } = repetition;
  const at = (day: string): ICAL.Time => (times ? moment(day, times[0]) : dayTime(day));
  span(at(start), times ? moment(start, times[1]) : dayTime(nextDay(start)));
  event.addPropertyWithValue('rrule', ICAL.Recur.fromString(rule));
  for (const day of without) event.addPropertyWithValue('exdate', at(day));
  for (const day of and) event.addPropertyWithValue('rdate', at(day));
  return event;
}
