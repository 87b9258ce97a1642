import { ORIGIN_SIGNS, SIGN_HEIGHT, SIGN_WIDTH } from '#core/drawing/origin-signs.ts';
import { dateFormatter } from '#core/model/formatters.ts';
import { dayIn } from '#core/model/moment-words.ts';
import type { Importance, Origin, Readiness } from '#core/model/plan.ts';

/** The words for what is planned. */
export const ORIGIN_WORDS: Readonly<Record<Origin, string>> = {
  new: 'New',
  keep: 'Keep',
  rework: 'Rework',
  split: 'Split',
  gather: 'Gather',
};
export const ORIGIN_MEANING: Readonly<Record<Origin, string>> = {
  new: 'It has no page on the old site.',
  keep: 'An old page is carried over as it is.',
  rework: 'An old page is carried over and extended.',
  split: 'It is a part of an old page.',
  gather: 'It is drawn from several old pages.',
};
export const READINESS_WORDS: Readonly<Record<Readiness, string>> = {
  'not-started': 'Not started',
  drafting: 'Drafting',
  'in-review': 'In review',
  ready: 'Ready',
};
export const IMPORTANCE_WORDS: Readonly<Record<Importance, string>> = {
  1: '1, found at once',
  2: '2, found soon',
  3: '3, found if looked for',
};

/** A day as it is read: "3 Dec", with the year where it is not this one. */
export function dayWords(day: string, today = new Date()): string {
  const isThisYear = day.startsWith(`${today.getFullYear()}-`);
  return dateFormatter('en-GB', {
    day: 'numeric',
    month: 'short',
    ...(!isThisYear && { year: 'numeric' }),
    timeZone: 'UTC',
  }).format(new Date(day));
}

/** Today where the person is, as a plan keeps days. */
export const todayHere = (): string => dayIn(undefined, Date.now());

/** An origin as a piece of track; its word stands beside it. */
export function OriginSign({ origin }: { readonly origin: Origin }) {
  return (
    <svg width={SIGN_WIDTH} height={SIGN_HEIGHT} aria-hidden fill="none" className="shrink-0">
      <path d={ORIGIN_SIGNS[origin]} stroke="currentColor" strokeWidth="1.75" strokeLinejoin="round" />
    </svg>
  );
}
