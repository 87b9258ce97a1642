import type { PreparedPage } from './prepare-pages.ts';
import type { WordWeights } from './pair-signals.ts';

/** A pair of places in the two lists. */
export type Pair = readonly [old: number, planned: number];

/** Each page is compared with so many of the other side, as each side finds them. */
const MAX_CANDIDATES = 24;
/** A word that more pages than these have, or a greater share of many pages, finds too much to be worth looking up. */
const MAX_FOUND = 300;
const MAX_SHARE = 0.2;
const MANY = 40;

/**
 * The pairs that are worth comparing: those that share words of titles, headings, addresses or texts, or letters of
 * titles, found by an index from each side. The order of the two sides makes no difference.
 */
export function candidatePairs(
  old: readonly PreparedPage[],
  planned: readonly PreparedPage[],
  weights: WordWeights,
): Pair[] {
  const found = new Set<number>();
  const from = old.map((page) => termsOf(page, weights));
  const to = planned.map((page) => termsOf(page, weights));
  const there = bestFor(from, to, planned);
  there.forEach((best, at) => best.forEach((other) => found.add(at * planned.length + other)));
  const back = bestFor(to, from, old);
  back.forEach((best, at) => best.forEach((other) => found.add(other * planned.length + at)));
  return [...found]
    .sort((a, b) => a - b)
    .map((code) => [Math.floor(code / planned.length), code % planned.length] as const);
}

/** What a page is found by, with how much it counts; each once. */
function termsOf(page: PreparedPage, weights: WordWeights): Map<string, number> {
  const terms = new Map<string, number>();
  const add = (term: string, weight: number) => {
    if ((terms.get(term) ?? 0) < weight) terms.set(term, weight);
  };
  if (page.isHome) add('\u0003', 9);
  // Two letters that changed places leave the same ones.
  if (page.letters.length < 9) add(`\u0004${[...page.letters].sort().join('')}`, 3);
  for (const word of page.title) add(word, 3 * weights.of(word));
  for (const word of page.lastStep) add(word, 3 * weights.of(word));
  for (const heading of page.headings) for (const word of heading) add(word, weights.of(word));
  for (const word of page.section) add(`\u0002${word}`, 0.5 * weights.of(word));
  for (const word of page.text.keys()) add(word, 0.6 * weights.of(word));
  for (const trigram of page.trigrams) add(`\u0001${trigram}`, 0.5);
  return terms;
}

/** The pages that have a term, and how much it counts for each. */
interface Entries {
  readonly pages: number[];
  readonly weights: number[];
}

/** For the terms of each page the best of the other side, `pages`, which has the terms `to`. */
function bestFor(
  from: readonly ReadonlyMap<string, number>[],
  to: readonly ReadonlyMap<string, number>[],
  pages: readonly PreparedPage[],
): (readonly number[])[] {
  const index = new Map<string, Entries>();
  to.forEach((terms, at) => {
    for (const [term, weight] of terms) {
      let entries = index.get(term);
      if (!entries) index.set(term, (entries = { pages: [], weights: [] }));
      entries.pages.push(at);
      entries.weights.push(weight);
    }
  });
  const most = to.length < MANY ? MAX_FOUND : Math.min(MAX_FOUND, Math.max(MANY / 4, to.length * MAX_SHARE));
  const scores = new Float64Array(to.length);
  return from.map((terms) => {
    const found: number[] = [];
    for (const [term, weight] of terms) {
      const entries = index.get(term);
      if (!entries || entries.pages.length > most) continue;
      for (let at = 0; at < entries.pages.length; at++) {
        const other = entries.pages[at]!;
        if (scores[other] === 0) found.push(other);
        scores[other]! += Math.min(weight, entries.weights[at]!);
      }
    }
    const best = topOf(found, scores, pages);
    for (const one of found) scores[one] = 0;
    return best;
  });
}

/** The places with the highest scores, at most so many as are compared. */
function topOf(found: readonly number[], scores: Float64Array, pages: readonly PreparedPage[]): number[] {
  const isBefore = (a: number, b: number) =>
    scores[a]! > scores[b]! || (scores[a] === scores[b] && pages[a]!.key < pages[b]!.key);
  const top: number[] = [];
  for (const one of found) {
    if (top.length === MAX_CANDIDATES && !isBefore(one, top.at(-1)!)) continue;
    if (top.length === MAX_CANDIDATES) top.pop();
    let at = top.length;
    while (at > 0 && isBefore(one, top[at - 1]!)) at--;
    top.splice(at, 0, one);
  }
  return top;
}
