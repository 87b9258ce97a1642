import { type PairSignals, SIGNALS } from './pair-signals.ts';

/**
 * How much each signal counts, and what a pair of which nothing is alike begins with. From a logistic regression on the
 * sets for developing (`bench/carryover/fit-weights.ts`), rounded, and with less trust in rare words than those sets have:
 * longer texts share some by chance.
 */
const BIAS = -4.9;
const WEIGHTS: Readonly<Record<keyof PairSignals, number>> = {
  title: 1.8,
  letters: 1.8,
  heading: 0.5,
  address: 1.3,
  section: 1.4,
  text: 6,
  rareWords: 5,
  sameTitle: 2.2,
  // Not fitted: the sets have few of these.
  slip: 3.5,
  home: 8,
  hasTexts: -1.8,
};

/** How alike two pages are as a whole, as the logarithm of the odds that they belong together. */
export function likeness(signals: PairSignals): number {
  let sum = BIAS;
  for (const name of SIGNALS) sum += WEIGHTS[name] * signals[name];
  return sum;
}

/** Rivals that are so much less alike, or more, make no further difference. */
export const WIDEST_LEAD = 4;

/**
 * The confidence in a proposed pair, from 0 to 1: how alike the two are, and how far ahead of the nearest rival, the
 * likeness of another page that is free for either of them. Fitted like the weights.
 */
export const confidenceOf = (alike: number, lead: number): number =>
  1 / (1 + Math.exp(-(-0.4 + 1.05 * alike + 0.9 * Math.max(-WIDEST_LEAD, Math.min(WIDEST_LEAD, lead)))));
