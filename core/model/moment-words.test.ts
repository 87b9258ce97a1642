import { expect, it } from 'vitest';
import { dayIn, longDayWords, momentWords, shortDayWords, timeWords } from './moment-words.ts';

it('a moment is told by the clock of the site, also where its day is another one there', () => {
  const late = '2027-03-02T23:30:00Z';
  const said = (zone: string) => [momentWords(late, zone), timeWords(late, zone), shortDayWords(late, zone)];
  expect(said('UTC')).toEqual(['2 Mar 2027, 23:30', '23:30', '2 Mar']);
  expect(said('Europe/Berlin')).toEqual(['3 Mar 2027, 00:30', '00:30', '3 Mar']);
  expect(longDayWords(late, 'Europe/Berlin')).toMatch(/^Wednesday,? 3 March 2027$/);
  expect([dayIn('UTC', late), dayIn('Europe/Berlin', late)]).toEqual(['2027-03-02', '2027-03-03']);
});
