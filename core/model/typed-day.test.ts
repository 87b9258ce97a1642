import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type DayOrder, readDay, readTime } from './typed-day.ts';

const TODAY = '2026-11-29';
const GERMAN = [
  'Januar',
  'Februar',
  'März',
  'April',
  'Mai',
  'Juni',
  'Juli',
  'August',
  'September',
  'Oktober',
  'November',
  'Dezember',
];

describe('a day that is typed', () => {
  it.each<[string, DayOrder, string | null]>([
    ['5.3.2027', 'dmy', '2027-03-05'],
    ['5/3/2027', 'mdy', '2027-05-03'],
    ['05-03-27', 'dmy', '2027-03-05'],
    ['27 03 05', 'ymd', '2027-03-05'],
    ['2027-03-05', 'dmy', '2027-03-05'],
    ['2027/3/5', 'mdy', '2027-03-05'],
    ['5 3', 'dmy', '2026-03-05'],
    ['3/5', 'mdy', '2026-03-05'],
    ['5 March 2027', 'dmy', '2027-03-05'],
    ['March 5, 2027', 'mdy', '2027-03-05'],
    ['5. März 2027', 'dmy', '2027-03-05'],
    ['5 dez 27', 'dmy', '2027-12-05'],
    ['2027 March 5', 'ymd', '2027-03-05'],
    ['29 Feb 2028', 'dmy', '2028-02-29'],
    ['29.2.2027', 'dmy', null],
    ['31.4.2027', 'dmy', null],
    ['13/13/2027', 'mdy', null],
    ['5.3.202', 'dmy', null],
    ['5.3.0202', 'dmy', null],
    ['March', 'dmy', null],
    ['soon', 'dmy', null],
    ['5', 'dmy', null],
    ['1 2 3 4', 'dmy', null],
    ['', 'dmy', null],
    ['1'.repeat(60), 'dmy', null],
  ])('%s in the order %s is %s', (text, order, day) => expect(readDay(text, order, TODAY, GERMAN)).toBe(day));

  it('is the same day however it is written, in whatever order', () => {
    fc.assert(
      fc.property(
        fc.date({ min: new Date('1900-01-01'), max: new Date('2199-12-31'), noInvalidDate: true }),
        fc.constantFrom<DayOrder>('dmy', 'mdy', 'ymd'),
        fc.constantFrom('.', '/', '-', ' ', '. '),
        (date, order, sign) => {
          const iso = date.toISOString().slice(0, 10);
          const [y, m, d] = iso.split('-') as [string, string, string];
          const parts = { d: String(Number(d)), m, y };
          const text = [...order].map((part) => parts[part as keyof typeof parts]).join(sign);
          expect(readDay(text, order, TODAY)).toBe(iso);
          expect(readDay(iso, order, TODAY)).toBe(iso);
        },
      ),
    );
  });
});

it.each([
  ['6', '06:00'],
  ['6:30', '06:30'],
  ['6.30', '06:30'],
  ['0630', '06:30'],
  ['18h30', '18:30'],
  ['6 pm', '18:00'],
  ['12am', '00:00'],
  ['12:15 PM', '12:15'],
  ['17 Uhr', '17:00'],
  ['24:00', null],
  ['13 pm', null],
  ['6:7', null],
  ['noon', null],
  ['', null],
])('the time %s is %s', (text, time) => expect(readTime(text)).toBe(time));
