import { describe, expect, it } from 'vitest';
import type { Audience, AudienceId } from '../model/audience.ts';
import { readVisitorsCsv } from './visitors-csv.ts';

const AUDIENCES: Audience[] = ['Staff', 'Students'].map((name) => ({
  id: name.toLowerCase() as AudienceId,
  name,
  includes: [],
}));
const read = (text: string) => readVisitorsCsv(text, AUDIENCES);

describe('a list of visitors', () => {
  it('is read with names, addresses and audiences, whatever the separator and the order of the columns', () => {
    const jory = { name: 'Jory Pell', email: 'jory@home.example', audiences: ['staff', 'students'] };
    const text = 'Email;Audiences;Name\njory@home.example;staff | Students|staff;Jory Pell\nwenna@home.example;;\n';
    expect(read(text)).toEqual({
      visitors: [jory, { name: 'wenna', email: 'wenna@home.example', audiences: [] }],
      faults: [],
    });
    expect(read('name,e-mail\nJory Pell,jory@home.example').visitors).toEqual([{ ...jory, audiences: [] }]);
  });

  it('leaves out what it does not understand, and says where', () => {
    const text = [
      'name,email,audience',
      'A,a@home.example,Staff|Pirates',
      'B,no address,',
      'C,,',
      'D,A@home.example,Students',
    ].join('\n');
    const { visitors, faults } = read(text);
    expect(visitors).toEqual([{ name: 'A', email: 'a@home.example', audiences: ['staff'] }]);
    expect(faults).toEqual([
      { line: 2, detail: 'The site has no audience ‘Pirates’.' },
      { line: 3, detail: '‘no address’ is not a mail address.' },
      { line: 4, detail: 'The row has no mail address.' },
      { line: 5, detail: 'A@home.example appears twice.' },
    ]);
  });

  it.each([
    ['', 1],
    ['name,audience\nJory,Staff', 1],
    ['email\n"jory@home.example', 2],
  ])('that is none is refused with its line: %j', (text, line) => {
    const { visitors, faults } = read(text);
    expect(visitors).toEqual([]);
    expect(faults).toHaveLength(1);
    expect(faults[0]!.line).toBeLessThanOrEqual(line);
  });
});
