import ICAL from 'ical.js';
import { readRepetition } from './repeats.ts';

/** So many days of one repetition are gone through at most: of one that repeats daily, thirteen years. */
const MAX_STEPS = 5000;
const MAX_KEPT = 500;
const kept = new Map<string, { readonly days: readonly string[]; readonly until: string; readonly isWhole: boolean }>();

/** The days of a repetition, up to one: kept for each value, since lists ask again and again. */
function daysUntil(value: string, until: string): readonly string[] {
  const before = kept.get(value);
  if (before && (before.isWhole || before.until >= until)) return before.days;
  const repetition = readRepetition(value);
  if (!repetition) return [];
  const { start, rule, without, and } = repetition;
  const steps = ICAL.Recur.fromString(rule).iterator(ICAL.Time.fromDateString(start));
  const isYearly = rule.startsWith('FREQ=YEARLY') && !rule.includes('BYDAY');
  const days = new Set<string>();
  let isWhole = false;
  for (let step = 0; step < MAX_STEPS; step++) {
    const next = steps.next() as ICAL.Time | null;
    if (!next) {
      isWhole = true;
      break;
    }
    const day = next.toString().slice(0, 10);
    // A day that a year does not have is passed over (RFC 5545, 3.3.10), not put off to the next one.
    if (!isYearly || day.slice(5) === start.slice(5)) days.add(day);
    if (day > until) break;
  }
  for (const day of without) days.delete(day);
  for (const day of and) days.add(day);
  const sorted = [...days].sort();
  if (kept.size >= MAX_KEPT) kept.delete(kept.keys().next().value!);
  kept.set(value, { days: sorted, until, isWhole });
  return sorted;
}

/** Two years on, so that what is rarer than yearly is not found to be over. */
const horizonOf = (day: string): string => `${Number(day.slice(0, 4)) + 2}${day.slice(4)}`;

/** The days of a repetition on or after a day, the first ones. @param most so many at most */
export const daysFrom = (value: string, day: string, most: number): readonly string[] =>
  daysUntil(value, horizonOf(day))
    .filter((one) => one >= day)
    .slice(0, most);

/** The last day of a repetition before a day; null where there is none. */
export const lastDayBefore = (value: string, day: string): string | null =>
  daysUntil(value, day).findLast((one) => one < day) ?? null;

/** The first day of all; null where the rule has none. */
export const firstDay = (value: string): string | null => {
  const start = readRepetition(value)?.start;
  return start === undefined ? null : (daysUntil(value, horizonOf(start))[0] ?? null);
};

export const isOnDay = (value: string, day: string): boolean => daysUntil(value, day).includes(day);
