import { describe, expect, it } from 'vitest';
import { pastedWords } from './pasted-html.ts';

const NOTHING = { tables: 0, headed: 0, pictures: 0, styling: false, links: 0, fields: 0 };

describe('what is said of what was pasted', () => {
  it.each([
    [NOTHING, null],
    [{ ...NOTHING, tables: 1 }, 'A table within a table was pasted as lines, one for each row.'],
    [
      { ...NOTHING, tables: 2, headed: 1, pictures: 1 },
      '2 tables within tables were pasted as lines, one for each row. The first row of the table was taken as its header. A picture was left out: it lies on another site or in another program. Save it and drop it into the text.',
    ],
    [
      { ...NOTHING, styling: true, links: 2, fields: 1 },
      'Colours, fonts and sizes were left out. 2 links work only on the page that they came from; their words were kept. A field or button was left out.',
    ],
  ])('of %o is %s', (pasted, words) => expect(pastedWords(pasted)).toBe(words));
});
