import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { isNearText, isNearWord } from './near-words.ts';

const letters = (least: number) =>
  fc
    .array(fc.constantFrom(...'abcdefghijklmnopqrstuvwxyz'), { minLength: least, maxLength: 14 })
    .map((one) => one.join(''));

describe('a word that is nearly typed', () => {
  it.each([
    ['evning', 'evening', 'a letter too few'],
    ['coursses', 'courses', 'a letter too many'],
    ['vusit', 'visit', 'a wrong letter'],
    ['bursareis', 'bursaries', 'two letters that changed places'],
    ['aplpy', 'apply', 'two letters that changed places in a short word'],
    ['appre', 'apprenticeship', 'its beginning'],
    ['aprenti', 'apprenticeship', 'its beginning with a slip'],
  ])('%s is meant for %s: %s', (typed, word) => expect(isNearWord(typed, word)).toBe(true));

  it.each([
    ['fee', 'fox', 'short words have no slips'],
    ['news', 'visit', 'another word'],
    ['crane', 'boats', 'another word of the same length'],
    ['workshops', 'works', 'more than the word'],
  ])('%s is not meant for %s: %s', (typed, word) => expect(isNearWord(typed, word)).toBe(false));

  it('is near whatever one slip was made in four letters or more', () => {
    holds(
      fc.property(letters(5), fc.nat(), fc.constantFrom('drop', 'double', 'swap'), (word, seed, slip) => {
        const at = seed % (word.length - 1);
        const typed =
          slip === 'drop'
            ? word.slice(0, at) + word.slice(at + 1)
            : slip === 'double'
              ? word.slice(0, at) + word[at] + word.slice(at)
              : word.slice(0, at) + word[at + 1] + word[at] + word.slice(at + 2);
        expect(isNearWord(typed, word)).toBe(true);
      }),
      { numRuns: 300 },
    );
  });
});

it('a text is near where each word that is typed is near one of its own', () => {
  expect(isNearText(['evning', 'clas'], 'evening classes')).toBe(true);
  expect(isNearText(['evning', 'boats'], 'evening classes')).toBe(false);
});
