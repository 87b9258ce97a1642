import { describe, expect, it } from 'vitest';
import { pastedWords } from './pasted-html.ts';

describe('what is said of what was pasted', () => {
  it.each([
    [{ tables: 0, headed: 0, pictures: 0 }, null],
    [{ tables: 1, headed: 0, pictures: 0 }, 'A table within a table was pasted as lines, one for each row.'],
    [
      { tables: 2, headed: 1, pictures: 1 },
      '2 tables within tables were pasted as lines, one for each row. The first row of the table was taken as its header. A picture was left out: it lies on another site or in another program. Save it and drop it into the text.',
    ],
  ])('of %o is %s', (pasted, words) => expect(pastedWords(pasted)).toBe(words));
});
