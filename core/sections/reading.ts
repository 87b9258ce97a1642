/** What reading a text comes to. */
export interface Reading {
  readonly words: number;
  /** At 230 words a minute, at least one (Brysbaert 2019, "How many words do we read per minute?": 238 for non-fiction). */
  readonly minutes: number;
  /** How easy it is, for English alone: the formula was made for it. Null where the text is too short to tell. */
  readonly ease: { readonly score: number; readonly words: string } | null;
}

const WORDS_A_MINUTE = 230;
/** Below so many words the formula says nothing of worth. */
const LEAST_WORDS = 40;

/** @param text the words of a text @param language of the site, as a BCP 47 tag */
export function readingOf(text: string, language: string): Reading {
  const words = wordsIn(text, language);
  return {
    words: words.length,
    minutes: Math.max(1, Math.round(words.length / WORDS_A_MINUTE)),
    ease: /^en\b/i.test(language) && words.length >= LEAST_WORDS ? easeOf(text, words, language) : null,
  };
}

const wordsIn = (text: string, language: string): string[] =>
  [...new Intl.Segmenter(language, { granularity: 'word' }).segment(text)].flatMap(({ segment, isWordLike }) =>
    isWordLike ? [segment] : [],
  );

/** Reading ease by Rudolf Flesch, "A new readability yardstick" (1948): 206.835 − 1.015 words a sentence − 84.6 syllables a word. */
function easeOf(text: string, words: readonly string[], language: string): { score: number; words: string } {
  const sentences = [...new Intl.Segmenter(language, { granularity: 'sentence' }).segment(text)].length;
  const syllables = words.reduce((sum, word) => sum + syllablesIn(word), 0);
  const score = 206.835 - 1.015 * (words.length / sentences) - 84.6 * (syllables / words.length);
  return { score, words: LEVELS.find(([least]) => score >= least)![1] };
}

/** Flesch's own levels, as he described them in words. */
const LEVELS: readonly (readonly [number, string])[] = [
  [80, 'easy to read'],
  [60, 'plain to read'],
  [50, 'fairly hard to read'],
  [30, 'hard to read'],
  [-Infinity, 'very hard to read'],
];

/** Groups of vowels, without an e that is silent at the end: near enough for an average over many words. */
function syllablesIn(word: string): number {
  const letters = word.toLowerCase().replace(/[^a-z]/g, '');
  const groups = letters.replace(/([^aeiouyl])e$/, '$1').match(/[aeiouy]+/g)?.length ?? 0;
  return Math.max(1, groups);
}
