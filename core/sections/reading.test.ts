import { describe, expect, it } from 'vitest';
import { readingOf } from './reading.ts';

const PLAIN = 'The boat lies on the slip. We paint her in spring. The sun dries the coat in a day. ';
const HARD =
  'Institutional considerations necessitate comprehensive documentation regarding administrative responsibilities. ';

describe('what reading a text comes to', () => {
  it.each([
    ['', 0, 1],
    ['Low tide at six.', 4, 1],
    ['word '.repeat(460), 460, 2],
  ])('counts words and minutes: %#', (text, words, minutes) =>
    expect(readingOf(text, 'en')).toMatchObject({ words, minutes }),
  );

  it('tells plain from hard English, and says nothing of short texts and other languages', () => {
    expect(readingOf(PLAIN.repeat(4), 'en-GB').ease?.words).toBe('easy to read');
    expect(readingOf(HARD.repeat(6), 'en').ease?.words).toBe('very hard to read');
    expect(readingOf(PLAIN, 'en').ease).toBeNull();
    expect(readingOf(PLAIN.repeat(4), 'de').ease).toBeNull();
  });
});
