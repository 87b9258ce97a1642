import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FIELD_TYPE } from '../fields/all-types.ts';
import { fieldContextOf } from '../fields/context.ts';
import type { PageId } from '../model/ids.ts';
import type { FieldId } from '../model/kind-field.ts';
import { type FormField, NO_FORM_FIELD_SETTINGS, asKindField } from '../model/site-form.ts';
import { Draw } from '../testing/draw.ts';
import { drawFormFields } from '../testing/draw-form-edits.ts';
import { SHAPES, plantSite } from '../testing/random-site.ts';
import { firstWords, saidIn } from './answer.ts';
import { type Sent, isAsked, readForm, stepsOf } from './reading.ts';

const site = plantSite({ seed: 3, pages: 12, shape: SHAPES[0]! });
const context = fieldContextOf(site, '2026-11-30', () => undefined);
const id = (name: string) => name as FieldId;
const field = (name: string, more: Partial<FormField> = {}): FormField => ({
  ...NO_FORM_FIELD_SETTINGS,
  id: id(name),
  name,
  ...more,
});
const sentOf = (sent: Record<string, string | string[]>): Sent =>
  new Map(Object.entries(sent).map(([name, said]) => [id(name), [said].flat()]));
const read = (fields: FormField[], sent: Record<string, string | string[]>) => {
  const { values, faults, asked } = readForm(fields, sentOf(sent), context, () => true);
  return {
    values: Object.fromEntries(values),
    faults: Object.fromEntries(faults),
    asked: asked.map((one) => one.name),
  };
};

/** What people and programs send: sound values, words that mean nothing, ids, signs of formulas and markup, and far too much. */
const anyText = fc.oneof(
  fc.constantFrom('yes', 'w', 's', '2027-03-05', '12.5', '£420', 'wren@home.example', '01632 960 001', '54.1, -3.2'),
  fc.constantFrom(
    '',
    ' ',
    '=1+1',
    '<script>',
    '\u202e',
    'w s',
    '2027-02-30',
    'x'.repeat(5000),
    '../..',
    '2027-03-05T18:30',
  ),
  fc.constantFrom(...[...site.nodes.keys()].slice(0, 5)),
  fc.string(),
);
const anyForm = fc
  .integer({ min: 0, max: 1e9 })
  .map((seed) => drawFormFields(site, new Draw(seed)))
  .chain((fields) =>
    fc.record({
      fields: fc.constant(fields),
      sent: fc
        .array(fc.array(anyText, { maxLength: 3 }), { minLength: fields.length, maxLength: fields.length })
        .map((all): Sent => new Map(all.map((said, at) => [fields[at]!.id, said]))),
    }),
  );
const pages = new Set([...site.nodes.keys()].slice(0, 3));
const mayChoose = (page: PageId): boolean => pages.has(page);

describe('what is sent of a form', () => {
  it('is accepted only where every value is one of its type, every required field says something, and nothing else is said', () => {
    let accepted = 0;
    fc.assert(
      fc.property(anyForm, ({ fields, sent }) => {
        const { values, faults, asked } = readForm(fields, sent, context, mayChoose);
        for (const [field, value] of values) {
          const one = fields.find((other) => other.id === field)!;
          expect(asked).toContain(one);
          if (one.type !== 'file') expect(FIELD_TYPE[one.type].isValue(value, asKindField(one))).toBe(true);
          if (one.type === 'pages') expect(value.split(' ').every((page) => mayChoose(page as PageId))).toBe(true);
        }
        for (const one of fields) {
          const isIt = isAsked(one, fields.slice(0, fields.indexOf(one)), values);
          expect(asked.includes(one)).toBe(isIt);
          const saysIt = values.has(one.id) && !(one.type === 'yesNo' && values.get(one.id) === 'no');
          if (one.isRequired && isIt) expect(faults.has(one.id) || saysIt).toBe(true);
          if (!isIt) expect(faults.has(one.id)).toBe(false);
        }
        const said = saidIn({ values, faults, asked }, context, () => undefined);
        expect(said.map((one) => one.field)).toEqual(fields.map((one) => one.id).filter((one) => values.has(one)));
        expect(firstWords(said).length).toBeLessThanOrEqual(80);
        if (faults.size === 0) accepted++;
      }),
      { numRuns: 600 },
    );
    // Else it would say little of those that are accepted.
    expect(accepted).toBeGreaterThan(60);
  });

  it('is passed over in a field that another one does not ask for', () => {
    const fields = [
      field('course', {
        type: 'choice',
        choices: [
          { id: 'long', name: 'Long' },
          { id: 'eve', name: 'Evening' },
        ],
      }),
      field('start', { type: 'day', isRequired: true, shownIf: { field: id('course'), test: 'is', value: 'long' } }),
      field('why', { isRequired: true, shownIf: { field: id('start'), test: 'said', value: '' } }),
    ];
    expect(read(fields, { course: 'eve', start: 'rubbish', why: 'So' })).toEqual({
      values: { course: 'eve' },
      faults: {},
      asked: ['course'],
    });
    expect(read(fields, { course: 'long' }).faults).toEqual({ start: 'required' });
    expect(read(fields, { course: 'long', start: '2027-03-05' }).faults).toEqual({ why: 'required' });
    expect(read(fields, { course: 'long', start: '30 February' }).faults).toEqual({ start: 'unreadable' });
  });

  it('is asked for always where the condition names a field that does not stand before it', () => {
    const later = { field: id('b'), test: 'is', value: 'x' } as const;
    expect(read([field('a', { shownIf: later }), field('b')], {}).asked).toEqual(['a', 'b']);
    expect(read([field('b', { shownIf: later })], {}).asked).toEqual(['b']);
  });

  it('says no in a box that is not ticked, which is nothing said', () => {
    const box = field('box', { type: 'yesNo' });
    const unless = (test: 'said' | 'not said' | 'is' | 'is not', value: string) =>
      read([box, field('more', { shownIf: { field: id('box'), test, value } })], {}).asked.includes('more');
    expect(read([box], {}).values).toEqual({ box: 'no' });
    expect([unless('said', ''), unless('not said', ''), unless('is', 'no'), unless('is not', 'no')]).toEqual([
      false,
      true,
      true,
      false,
    ]);
    expect(read([{ ...box, isRequired: true }], {}).faults).toEqual({ box: 'required' });
  });

  it('is one of several choices, or some of them in their order', () => {
    const choices = [
      { id: 'w', name: 'Weekdays' },
      { id: 's', name: 'Saturdays' },
    ];
    const one = field('days', { type: 'choice', choices });
    const some = { ...one, isSeveral: true };
    expect(read([one], { days: ['s', 'w'] }).faults).toEqual({ days: 'unreadable' });
    expect(read([some], { days: ['s', 'w', 's'] }).values).toEqual({ days: 'w s' });
    expect(read([some], { days: ['s', 'never'] }).faults).toEqual({ days: 'unreadable' });
    expect(
      read([some, field('when', { shownIf: { field: id('days'), test: 'is', value: 's' } })], { days: ['s', 'w'] })
        .asked,
    ).toEqual(['days', 'when']);
  });

  it('has its two days in order', () => {
    const stay = field('stay', { type: 'period' });
    expect(read([stay], { stay: ['2027-03-05', '2027-03-09'] }).values).toEqual({ stay: '2027-03-05/2027-03-09' });
    expect(read([stay], { stay: ['2027-03-09', '2027-03-05'] }).faults).toEqual({ stay: 'unreadable' });
    expect(read([stay], { stay: ['', ''] }).faults).toEqual({});
  });
});

it('a step begins where a field says so', () => {
  const steps = (...headings: (string | null)[]) =>
    stepsOf(headings.map((step, at) => field(`f${at}`, { step }))).map(({ heading, fields }) => [
      heading,
      fields.length,
    ]);
  expect(steps()).toEqual([]);
  expect(steps(null, null)).toEqual([[null, 2]]);
  expect(steps(null, 'You', null, 'The course')).toEqual([
    [null, 1],
    ['You', 2],
    ['The course', 1],
  ]);
});
