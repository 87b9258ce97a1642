import { distance } from 'fastest-levenshtein';

/** How many letters of a word may be wrong: none in short ones, where one letter makes another word. */
const slipsIn = (length: number): number => (length < 4 ? 0 : length < 8 ? 1 : 2);

/** Whether a word, as far as it is typed, may be meant for another one: it begins it but for a slip or two. Both are folded. */
export function isNearWord(typed: string, word: string): boolean {
  if (word.startsWith(typed)) return true;
  const slips = slipsIn(typed.length);
  if (slips === 0) return false;
  for (let length = typed.length - 1; length <= Math.min(typed.length + 1, word.length); length++) {
    const beginning = word.slice(0, length);
    if (distance(typed, beginning) <= slips || isSwapped(typed, beginning)) return true;
  }
  return false;
}

/** Whether two letters beside each other have changed places, and nothing else differs. */
export function isSwapped(one: string, other: string): boolean {
  if (one.length !== other.length) return false;
  let at = 0;
  while (at < one.length && one[at] === other[at]) at++;
  return one[at] === other[at + 1] && one[at + 1] === other[at] && one.slice(at + 2) === other.slice(at + 2);
}

/** Whether each word that is typed may be meant for one of the text. Both are folded. */
export function isNearText(typed: readonly string[], text: string): boolean {
  const words = wordsOf(text);
  return typed.every((one) => words.some((word) => isNearWord(one, word)));
}

/** The words of a folded text. */
export const wordsOf = (text: string): string[] => text.split(/[^\p{L}\p{N}]+/u).filter((word) => word !== '');
