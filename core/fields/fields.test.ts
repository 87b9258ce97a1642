import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { toPageId } from '../model/ids.ts';
import {
  FIELD_TYPES,
  type FieldTypeName,
  type KindField,
  NO_FIELD_SETTINGS,
  fieldIdSchema,
} from '../model/kind-field.ts';
import { holds } from '../testing/holds.ts';
import { FIELD_TYPE } from './all-types.ts';
import type { FieldContext } from './field-type.ts';
import { valueAs } from './values.ts';

const TITLES: Readonly<Record<string, string>> = { p1: 'Ines Carrow', p2: 'Marek Holt', p3: 'Twin', p4: 'Twin' };
const contextOf = (language: string): FieldContext => ({
  language,
  today: '2027-03-01',
  titleOf: (page) => TITLES[page],
  pagesTitled: (title) =>
    Object.keys(TITLES)
      .filter((id) => TITLES[id]!.toLowerCase() === title.toLowerCase())
      .map(toPageId),
  fileName: () => undefined,
});
const ENGLISH = contextOf('en');
const GERMAN = contextOf('de');

const fieldOf = (type: FieldTypeName, more: Partial<KindField> = {}): KindField => ({
  ...NO_FIELD_SETTINGS,
  id: fieldIdSchema.parse('field'),
  name: 'Field',
  choices: [
    { id: 's', name: 'Small' },
    { id: 'm', name: 'Middling' },
  ],
  type,
  ...more,
});

/** What people type, by type: what it means, and what means nothing. */
type Typed = readonly [type: FieldTypeName, typed: string, value: string | undefined, more?: Partial<KindField>];
const TYPED: readonly Typed[] = [
  ['text', '  Two   words ', 'Two words'],
  ['text', 'x'.repeat(301), undefined],
  ['longText', ' one \r\n two ', 'one\ntwo'],
  ['number', '012.50', '12.5'],
  ['number', '1,200', '1200'],
  ['number', '1,20', undefined],
  ['number', '-0', '0'],
  ['number', '3 m', '3', { unit: 'm' }],
  ['number', 'three', undefined],
  ['number', '1e5', undefined],
  ['money', '420', '420 EUR'],
  ['money', '£12.50', '12.5 GBP'],
  ['money', '1,200 usd', '1200 USD'],
  ['money', 'free', undefined],
  ['yesNo', 'Ja', 'yes'],
  ['yesNo', 'perhaps', undefined],
  ['choice', 'small', 's'],
  ['choice', 'Middling; Small', undefined],
  ['choice', 'Middling; Small', 's m', { isSeveral: true }],
  ['choice', 'Huge', undefined],
  ['day', '5 March', '2027-03-05'],
  ['day', '30 February 2027', undefined],
  ['moment', '5 March 2027, 6:30 pm', '2027-03-05T18:30'],
  ['moment', '5 March 2027', undefined],
  ['period', '5 to 9 March 2027', '2027-03-05/2027-03-09'],
  ['period', '2027-03-05/2027-03-09', '2027-03-05/2027-03-09'],
  ['period', '9 March 2027', '2027-03-09/2027-03-09'],
  ['period', '9 to 5 March 2027', undefined],
  ['repeats', '2027-03-06  FREQ=MONTHLY;BYDAY=1SA', '2027-03-06 FREQ=MONTHLY;BYDAY=1SA'],
  ['repeats', '2027-03-06 FREQ=SECONDLY', undefined],
  ['repeats', 'every Saturday', undefined],
  ['telephone', '+44 1632 960 001', '+44 1632 960 001'],
  ['telephone', 'call me', undefined],
  ['mail', 'desk@pellow-quay.example', 'desk@pellow-quay.example'],
  ['mail', 'desk', undefined],
  ['link', 'https://ferry.example/a', 'https://ferry.example/a'],
  ['link', 'javascript:alert(1)', undefined],
  ['address', '1 Slipway\n\n Pellow Quay ', '1 Slipway\nPellow Quay'],
  ['place', '54.1200000, -3.21', '54.12,-3.21'],
  ['place', '91, 0', undefined],
  ['pages', 'ines carrow', 'p1'],
  ['pages', 'Ines Carrow; Marek Holt', 'p1 p2', { isSeveral: true }],
  ['pages', 'Twin', undefined],
  ['pages', 'page:p3', 'p3'],
  ['file', 'aaaaaaaaaaaaaaaa', 'aaaaaaaaaaaaaaaa'],
  ['file', '../etc', undefined],
];

describe('a typed text', () => {
  it.each(TYPED.map((one) => ({ type: one[0], typed: one[1], value: one[2], more: one[3] })))(
    'as $type: $typed is $value',
    ({ type, typed, value, more }) => expect(FIELD_TYPE[type].read(typed, fieldOf(type, more), ENGLISH)).toBe(value),
  );

  it('is read as its language writes numbers', () => {
    const read = (typed: string) => FIELD_TYPE.number.read(typed, fieldOf('number'), GERMAN);
    expect([read('1.234'), read('1,234'), read('1.234,5'), read('12.5')]).toEqual(['1234', '1.234', '1234.5', '12.5']);
  });
});

/** A field with something that somebody could type into it: what means something among what does not. */
const anyTyped = fc.oneof(
  fc.constantFrom(...TYPED).map((one) => ({ field: fieldOf(one[0], one[3]), typed: one[1] })),
  fc.record({
    field: fc
      .record({ type: fc.constantFrom(...FIELD_TYPES), isSeveral: fc.boolean() })
      .map(({ type, isSeveral }) => fieldOf(type, { isSeveral })),
    typed: fc.oneof(
      fc.constantFrom(...TYPED.map(([, typed]) => typed)),
      fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e12, max: 1e12 }).map(String),
      fc
        .date({ min: new Date('1950-01-01'), max: new Date('2090-01-01'), noInvalidDate: true })
        .map((day) => day.toISOString().slice(0, 10)),
      fc.string({ unit: 'grapheme', maxLength: 60 }),
    ),
  }),
);
const anyContext = fc.constantFrom(ENGLISH, GERMAN, contextOf('fr'), contextOf('de-CH'));

describe('a type of field', () => {
  it('makes values in one form of what is typed, which it writes so that they are read again', () => {
    const read = new Map<FieldTypeName, number>();
    holds(
      fc.property(anyTyped, anyContext, ({ field, typed }, context) => {
        const type = FIELD_TYPE[field.type];
        const value = typed.trim() === '' ? undefined : type.read(typed, field, context);
        if (value === undefined) return;
        read.set(field.type, (read.get(field.type) ?? 0) + 1);
        expect(type.isValue(value, field)).toBe(true);
        expect(type.read(type.written(value, field, context), field, context)).toBe(value);
        expect(typeof type.words(value, field, context)).toBe('string');
        expect(type.compare(value, value, context.language)).toBe(0);
      }),
      { numRuns: 4000 },
    );
    expect([...read.keys()].sort()).toEqual([...FIELD_TYPES].sort());
  });

  it('takes nothing for a value that it would write otherwise', () => {
    holds(
      fc.property(anyTyped, ({ field, typed: text }) => {
        const type = FIELD_TYPE[field.type];
        if (type.isValue(text, field)) expect(type.read(type.written(text, field, ENGLISH), field, ENGLISH)).toBe(text);
      }),
      { numRuns: 2000 },
    );
  });
});

describe('a day', () => {
  it.each([
    '1999-02-29',
    '2100-02-29',
    '2027-04-31',
    '2027-13-01',
    '2027-00-10',
    '2027-01-00',
    '1899-12-31',
    '27-01-01',
  ])('there is none such as %s', (day) => expect(FIELD_TYPE.day.isValue(day, fieldOf('day'))).toBe(false));
  it('is one that a calendar has', () => {
    holds(
      fc.property(
        fc.date({ min: new Date('1900-01-01'), max: new Date('2999-12-31'), noInvalidDate: true }),
        (date) => {
          expect(FIELD_TYPE.day.isValue(date.toISOString().slice(0, 10), fieldOf('day'))).toBe(true);
        },
      ),
      { numRuns: 500 },
    );
  });
});

describe('a value of an earlier type', () => {
  const turned = (from: FieldTypeName, to: FieldTypeName, value: string, more: Partial<KindField> = {}) =>
    valueAs(fieldOf(to, { earlier: [from], ...more }), value, ENGLISH);

  it.each([
    ['number', 'text', '12.5', '12.5'],
    ['text', 'number', '12.5', '12.5'],
    ['text', 'number', 'a dozen', null],
    ['choice', 'text', 's', 'Small'],
    ['text', 'choice', 'Small', 's'],
    ['pages', 'text', 'p1', 'Ines Carrow'],
    ['text', 'pages', 'Ines Carrow', 'p1'],
    ['day', 'period', '2027-03-05', '2027-03-05/2027-03-05'],
    ['money', 'text', '420 EUR', '420 EUR'],
    ['number', 'money', '420', '420 EUR'],
    ['yesNo', 'text', 'yes', 'yes'],
    ['text', 'yesNo', 'Ja', 'yes'],
    // Next year it would be another day.
    ['text', 'day', '5 March', null],
    ['text', 'day', '5 March 2027', '2027-03-05'],
  ] as const)('of %s as %s: %j is %j', (from, to, value, now) => expect(turned(from, to, value)).toBe(now));

  it('is the value itself once the type is as it was', () => {
    holds(
      fc.property(anyTyped, fc.constantFrom(...FIELD_TYPES), ({ field, typed }, other) => {
        const value = typed.trim() === '' ? undefined : FIELD_TYPE[field.type].read(typed, field, ENGLISH);
        // An id that is one of something that there is counts as that: nobody types these.
        if (value === undefined || ['choice', 'pages', 'file'].includes(other)) return;
        expect(valueAs({ ...field, earlier: [other] }, value, ENGLISH)).toBe(value);
      }),
      { numRuns: 1000 },
    );
  });
});
