import { describe, expect, it } from 'vitest';
import { pastedWords } from './pasted-html.ts';

describe('what is said of what was pasted', () => {
  it.each([
    [{ tables: 0, pictures: 0 }, null],
    [{ tables: 1, pictures: 0 }, 'The table was pasted as lines, one for each row.'],
    [
      { tables: 2, pictures: 1 },
      '2 tables were pasted as lines, one for each row. A picture was left out: texts cannot hold pictures yet.',
    ],
  ])('of %o is %s', (pasted, words) => expect(pastedWords(pasted)).toBe(words));
});
