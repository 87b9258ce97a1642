import { describe, expect, it } from 'vitest';
import { daysFrom, firstDay, isOnDay } from './repeat-days.ts';
import { readRepetition, repetitionWords, writeRepetition } from './repeats.ts';

/** Cases of RFC 5545, 3.8.5.3, as far as their rules are of the parts that are taken: how they are called there, start, rule, days. */
const CASES: readonly (readonly [string, string, string, string])[] = [
  [
    'Daily for 10 occurrences',
    '1997-09-02',
    'FREQ=DAILY;COUNT=10',
    '09-02 09-03 09-04 09-05 09-06 09-07 09-08 09-09 09-10 09-11',
  ],
  ['Every 10 days, 5 occurrences', '1997-09-02', 'FREQ=DAILY;COUNT=5;INTERVAL=10', '09-02 09-12 09-22 10-02 10-12'],
  ['Every other day, forever', '1997-09-02', 'FREQ=DAILY;INTERVAL=2', '09-02 09-04 09-06 09-08'],
  [
    'Weekly for 10 occurrences',
    '1997-09-02',
    'FREQ=WEEKLY;COUNT=10',
    '09-02 09-09 09-16 09-23 09-30 10-07 10-14 10-21 10-28 11-04',
  ],
  [
    'Weekly on Tuesday and Thursday for five weeks',
    '1997-09-02',
    'FREQ=WEEKLY;COUNT=10;BYDAY=TU,TH',
    '09-02 09-04 09-09 09-11 09-16 09-18 09-23 09-25 09-30 10-02',
  ],
  [
    'Every other week on Tuesday and Thursday, for 8 occurrences',
    '1997-09-02',
    'FREQ=WEEKLY;COUNT=8;INTERVAL=2;BYDAY=TU,TH',
    '09-02 09-04 09-16 09-18 09-30 10-02 10-14 10-16',
  ],
  [
    'Monthly on the first Friday for 10 occurrences',
    '1997-09-05',
    'FREQ=MONTHLY;COUNT=4;BYDAY=1FR',
    '09-05 10-03 11-07 12-05',
  ],
  [
    'Monthly on the first Friday until December 24, 1997',
    '1997-09-05',
    'FREQ=MONTHLY;BYDAY=1FR;UNTIL=19971224',
    '09-05 10-03 11-07 12-05',
  ],
  [
    'Every other month on the first and last Sunday',
    '1997-09-07',
    'FREQ=MONTHLY;COUNT=4;INTERVAL=2;BYDAY=1SU,-1SU',
    '09-07 09-28 11-02 11-30',
  ],
  [
    'Days that a month does not have are passed over',
    '2007-01-30',
    'FREQ=MONTHLY;COUNT=4;BYMONTHDAY=30',
    '01-30 03-30 04-30 05-30',
  ],
  ['The last day of the month', '1997-09-30', 'FREQ=MONTHLY;COUNT=4;BYMONTHDAY=-1', '09-30 10-31 11-30 12-31'],
];

describe('days that repeat', () => {
  it.each(CASES)('%s', (_, start, rule, days) => {
    const wanted = days.split(' ');
    const got = daysFrom(`${start} ${rule}`, start, wanted.length + (/COUNT|UNTIL/.test(rule) ? 1 : 0));
    expect(got.map((day) => day.slice(5))).toEqual(wanted);
  });

  it('of a year leave out the years that lack the day, and go by months where these are named', () => {
    expect(daysFrom('2024-02-29 FREQ=YEARLY', '2024-01-01', 3)).toEqual(['2024-02-29']);
    expect(daysFrom('2024-02-29 FREQ=YEARLY', '2027-01-01', 1)).toEqual(['2028-02-29']);
    expect(daysFrom('1997-04-06 FREQ=YEARLY;BYDAY=1SU;BYMONTH=4', '1998-01-01', 2)).toEqual([
      '1998-04-05',
      '1999-04-04',
    ]);
  });

  it('leave out what is left out, and have what there is besides: a day that was moved', () => {
    const value = '2027-03-06 10:00-16:00 FREQ=MONTHLY;BYDAY=1SA without 2027-05-01 and 2027-05-08';
    expect(daysFrom(value, '2027-04-01', 3)).toEqual(['2027-04-03', '2027-05-08', '2027-06-05']);
    expect([isOnDay(value, '2027-05-01'), isOnDay(value, '2027-05-08'), firstDay(value)]).toEqual([
      false,
      true,
      '2027-03-06',
    ]);
    expect(repetitionWords(value, 'en')).toBe(
      'The first Saturday of each month, 10:00–16:00, from 6 March 2027; not on 1 May 2027; also on 8 May 2027',
    );
    expect(repetitionWords(value, 'de')).toBe(
      'Jeden ersten Samstag im Monat, 10:00–16:00, ab 6. März 2027; nicht am 1. Mai 2027; auch am 8. Mai 2027',
    );
  });

  it.each([
    ['2027-03-01 FREQ=WEEKLY;BYDAY=MO,WE', 'Every week on Monday and Wednesday, from 1 March 2027'],
    ['2027-03-01 FREQ=WEEKLY;COUNT=6;INTERVAL=2;BYDAY=MO', 'Every 2 weeks on Monday, from 1 March 2027, 6 times'],
    ['2027-03-15 FREQ=MONTHLY;BYMONTHDAY=15', 'Every month on day 15, from 15 March 2027'],
    ['2027-03-26 FREQ=MONTHLY;INTERVAL=3;BYDAY=-1FR', 'The last Friday every 3 months, from 26 March 2027'],
    ['2027-11-25 FREQ=YEARLY;BYDAY=4TH;BYMONTH=11', 'The fourth Thursday of November, from 25 November 2027'],
    ['2027-03-06 FREQ=DAILY;UNTIL=20270310', 'Every day, from 6 March 2027, until 10 March 2027'],
  ])('are said in words: %s', (value, words) => expect(repetitionWords(value, 'en')).toBe(words));

  it.each([
    '2027-03-06 FREQ=SECONDLY',
    '2027-03-06 FREQ=MONTHLY;INTERVAL=0',
    '2027-03-06 FREQ=WEEKLY;BYDAY=1MO',
    '2027-03-06 FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30',
    '2027-03-06 FREQ=DAILY;COUNT=3;UNTIL=20270310',
    '2027-03-06 FREQ=DAILY;UNTIL=20270231',
    '2027-02-30 FREQ=DAILY',
    '2027-03-06 16:00-10:00 FREQ=DAILY',
    '2027-03-06 FREQ=DAILY without 2027-03-08,2027-03-07',
    `2027-03-06 FREQ=WEEKLY;BYDAY=${'MO,'.repeat(40)}MO`,
    'FREQ=DAILY',
  ])('are refused where they are none, or none that is taken: %s', (value) => expect(readRepetition(value)).toBeNull());

  it('end their search where the days never come', () => {
    expect(daysFrom('2027-02-06 FREQ=MONTHLY;INTERVAL=12;BYMONTHDAY=31', '2027-01-01', 3)).toEqual([]);
    expect(firstDay('2027-02-06 FREQ=MONTHLY;INTERVAL=12;BYMONTHDAY=31')).toBeNull();
  });

  it('are written as they are read', () => {
    const value = '2027-03-06 10:00-16:00 FREQ=MONTHLY;BYDAY=1SA without 2027-05-01 and 2027-05-08';
    expect(writeRepetition(readRepetition(value)!)).toBe(value);
    expect(writeRepetition({ ...readRepetition(value)!, rule: 'FREQ=HOURLY' })).toBeNull();
  });
});
