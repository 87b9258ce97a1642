import { distance } from 'fastest-levenshtein';
import { isSwapped } from '../derive/near-words.ts';
import type { PreparedPage } from './prepare-pages.ts';

/** How alike two pages are, by each thing that can be compared: 0 not at all, 1 the same. */
export interface PairSignals {
  /** The words of the titles, rare ones counting more. */
  readonly title: number;
  /** The letters of the titles, in groups of three: what typing mistakes leave the same. */
  readonly letters: number;
  /** The title of one among the headings of the other. */
  readonly heading: number;
  readonly address: number;
  /** What stands above each: parts of the address, titles of the pages above. */
  readonly section: number;
  readonly text: number;
  /** Words that hardly any other page has. */
  readonly rareWords: number;
  readonly sameTitle: number;
  /** 1 where the titles are the same but for a slip of the hand. */
  readonly slip: number;
  /** 1 where both are the pages that their sites open with. */
  readonly home: number;
  /** 1 where both have a text to compare. */
  readonly hasTexts: number;
}
export const SIGNALS = [
  'title',
  'letters',
  'heading',
  'address',
  'section',
  'text',
  'rareWords',
  'sameTitle',
  'slip',
  'home',
  'hasTexts',
] as const satisfies readonly (keyof PairSignals)[];

/** Weights go by steps of this size, so that most stay as they are when a page changes. */
const STEP = 0.25;
/** A word that more pages have than this is not rare. */
const MAX_RARE = 9;

/** How much a word tells: the rarer, the more (the usual inverse document frequency); all the same where no pages are given. */
export class WordWeights {
  readonly #weights = new Map<string, number>();
  readonly #rareness = new Map<string, number>();
  readonly #ofUnknown: number;
  readonly #inTitles = new Map<string, number>();

  constructor(pages: readonly PreparedPage[]) {
    const counts = new Map<string, number>();
    for (const page of pages) for (const word of page.text.keys()) counts.set(word, (counts.get(word) ?? 0) + 1);
    for (const { title } of pages)
      for (const word of title) this.#inTitles.set(word, (this.#inTitles.get(word) ?? 0) + 1);
    const weightOf = (count: number) => STEP * Math.round(Math.log(1 + pages.length / count) / STEP);
    for (const [word, count] of counts) {
      this.#weights.set(word, weightOf(count));
      if (count <= MAX_RARE) this.#rareness.set(word, 1 / Math.max(1, count - 1));
    }
    this.#ofUnknown = pages.length === 0 ? 1 : weightOf(1);
  }

  of(word: string): number {
    return this.#weights.get(word) ?? this.#ofUnknown;
  }

  /** 1 for a word that two pages have, or one; the less, the more have it; 0 for one that is not rare. */
  rareness(word: string): number {
    return this.#rareness.get(word) ?? 0;
  }

  /** How many titles have the word, of both sides. */
  inTitles(word: string): number {
    return this.#inTitles.get(word) ?? 0;
  }

  /** Whether a word counts for as much by both. */
  isSame(word: string, other: WordWeights): boolean {
    return this.of(word) === other.of(word) && this.rareness(word) === other.rareness(word);
  }
}

const CLOSE = 0.8;

/** Compares two pages; the order of the two makes no difference. */
export function compare(a: PreparedPage, b: PreparedPage, weights: WordWeights): PairSignals {
  const address = Math.max(
    overlap(a.lastStep, b.lastStep, weights),
    0.9 * Math.max(overlap(a.lastStep, b.title, weights), overlap(a.title, b.lastStep, weights)),
  );
  return {
    title: overlap(a.title, b.title, weights),
    letters: shared(a.trigrams, b.trigrams),
    heading: Math.max(bestHeading(a, b, weights), bestHeading(b, a, weights)),
    address,
    section: overlap(a.section, b.section, weights),
    text: a.hasText && b.hasText ? cosine(a.text, b.text, weights) : 0,
    rareWords: rareWords(a.text, b.text, weights),
    sameTitle: a.wholeTitle !== '' && a.wholeTitle === b.wholeTitle ? 1 : 0,
    slip: a.wholeTitle !== b.wholeTitle && isSlip(a.letters, b.letters) ? 1 : 0,
    home: a.isHome && b.isHome ? 1 : 0,
    hasTexts: a.hasText && b.hasText ? 1 : 0,
  };
}

/** The share of two sets that they have in common (Dice). */
function shared(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  let count = 0;
  for (const one of a) if (b.has(one)) count++;
  return a.size + b.size === 0 ? 0 : (2 * count) / (a.size + b.size);
}

/** What two lists of different words share by weight (Dice). */
export function overlap(a: readonly string[], b: readonly string[], weights: WordWeights): number {
  if (a.length === 0 || b.length === 0) return 0;
  let total = 0;
  let common = 0;
  let unmatched: string[] | null = null;
  for (const word of a) {
    total += weights.of(word);
    if (b.includes(word)) common += weights.of(word);
    else (unmatched ??= []).push(word);
  }
  let free: string[] | null = null;
  for (const word of b) {
    total += weights.of(word);
    if (unmatched !== null && !a.includes(word)) (free ??= []).push(word);
  }
  // A typing mistake makes a word that is close to its right form.
  for (const word of free === null ? [] : unmatched!) {
    const near = free!.findIndex((one) => isClose(word, one));
    if (near === -1) continue;
    common += CLOSE * Math.min(weights.of(word), weights.of(free![near]!));
    free!.splice(near, 1);
  }
  return Math.min(1, (2 * common) / total);
}

function isClose(a: string, b: string): boolean {
  const shorter = Math.min(a.length, b.length);
  if (shorter < 4 || Math.abs(a.length - b.length) > 2) return false;
  if (shorter >= 5 && (a.startsWith(b) || b.startsWith(a))) return true;
  return distance(a, b) <= (shorter >= 8 ? 2 : 1);
}

/** Short titles that differ by a letter say something else, such as ‘Fees’ and ‘Feet’; long ones hardly. */
function isSlip(a: string, b: string): boolean {
  if (isSwapped(a, b)) return a.length >= 4 && a !== b;
  const shorter = Math.min(a.length, b.length);
  if (shorter < 6 || Math.abs(a.length - b.length) > 2) return false;
  return distance(a, b) <= (shorter < 12 ? 1 : 2);
}

function bestHeading(a: PreparedPage, b: PreparedPage, weights: WordWeights): number {
  let best = 0;
  for (const heading of b.headings) best = Math.max(best, overlap(a.title, heading, weights));
  return best;
}

/** So many words that no other page has make two pages as alike as words can. */
const ENOUGH_RARE = 3;

/** A word that these two pages alone have counts 1; one that a few others have too, a share of that. */
function rareWords(a: ReadonlyMap<string, number>, b: ReadonlyMap<string, number>, weights: WordWeights): number {
  let sum = 0;
  const [few, many] = a.size <= b.size ? [a, b] : [b, a];
  for (const word of few.keys()) if (many.has(word)) sum += weights.rareness(word);
  return Math.min(1, sum / ENOUGH_RARE);
}

function cosine(a: ReadonlyMap<string, number>, b: ReadonlyMap<string, number>, weights: WordWeights): number {
  const value = (count: number, word: string) => (1 + Math.log(count)) * weights.of(word);
  let product = 0;
  let lengthA = 0;
  let lengthB = 0;
  for (const [word, count] of a) {
    const here = value(count, word);
    lengthA += here * here;
    const there = b.get(word);
    if (there !== undefined) product += here * value(there, word);
  }
  for (const [word, count] of b) lengthB += value(count, word) ** 2;
  return product === 0 ? 0 : product / Math.sqrt(lengthA * lengthB);
}
