import { describe, expect, it } from 'vitest';
import { type PageId, toPageId } from '../model/ids.ts';
import { type FieldId, type KindField, NO_FIELD_SETTINGS } from '../model/kind-field.ts';
import type { FieldContext } from './field-type.ts';
import { type DescribedThing, detailsFrom } from './from-schema-org.ts';

const context: FieldContext = {
  language: 'en',
  today: '2026-11-30',
  titleOf: (page) => (page === 'marek' ? 'Marek Holt' : page === 'ines' ? 'Ines Carrow' : undefined),
  pagesTitled: (title): PageId[] =>
    title === 'Marek Holt' ? [toPageId('marek')] : title === 'Ines Carrow' ? [toPageId('ines')] : [],
  fileName: () => undefined,
};
const field = (
  id: string,
  type: KindField['type'],
  property: string | null,
  more: Partial<KindField> = {},
): KindField => ({
  ...NO_FIELD_SETTINGS,
  id: id as FieldId,
  name: id,
  type,
  property,
  ...more,
});
const thing = (types: string, says: DescribedThing['says']): DescribedThing => ({ types: types.split(' '), says });
const read = (fields: KindField[], ...things: DescribedThing[]) => detailsFrom(things, fields, context);

const COURSE = thing('Course', {
  name: ['Lofting'],
  offers: [thing('Offer', { price: ['85.5'], priceCurrency: ['GBP'] })],
  hasCourseInstance: [thing('CourseInstance', { startDate: ['2027-03-05T09:00+00:00'], endDate: ['2027-03-09'] })],
  instructor: [thing('Person', { name: ['Marek Holt'] }), thing('Person', { name: ['Ines Carrow'] })],
  educationalLevel: ['For beginners'],
  isAccessibleForFree: ['false'],
  constructor: ['no'],
});

describe('what an old page describes for machines', () => {
  it('becomes values of the fields that stand for the same', () => {
    const level = { choices: [{ id: 'a', name: 'For beginners' }] };
    const { details, unread } = read(
      [
        field('price', 'money', 'offers'),
        field('days', 'period', 'hasCourseInstance'),
        field('first', 'day', 'hasCourseInstance'),
        field('teachers', 'pages', 'instructor', { isSeveral: true }),
        field('one', 'pages', 'instructor'),
        field('level', 'choice', 'educationalLevel', level),
        field('free', 'yesNo', 'isAccessibleForFree'),
        field('other', 'text', null),
        field('note', 'text', 'abstract'),
      ],
      thing('BreadcrumbList', { offers: ['1 GBP'] }),
      COURSE,
    );
    expect(details).toEqual({
      price: '85.5 GBP',
      days: '2027-03-05/2027-03-09',
      first: '2027-03-05',
      teachers: 'marek ines',
      one: 'marek',
      level: 'a',
      free: 'no',
    });
    expect(unread).toEqual([]);
  });

  it('reads addresses, places, days with times, and the days of an event', () => {
    const { details } = read(
      [
        field('home', 'address', 'location'),
        field('globe', 'place', 'location'),
        field('when', 'moment', 'startDate'),
        field('days', 'period', 'startDate'),
        field('phone', 'telephone', 'telephone'),
      ],
      thing('Event', {
        startDate: ['2027-05-01T18:30:00Z'],
        endDate: ['2027-05-02T01:00:00Z'],
        telephone: ['01632 960 001'],
        location: [
          thing('Place', {
            name: ['The long shed'],
            geo: [thing('GeoCoordinates', { latitude: ['54.12'], longitude: ['-3.21'] })],
            address: [
              thing('PostalAddress', {
                streetAddress: ['1 Slipway'],
                postalCode: ['PQ1'],
                addressLocality: ['Pellow Quay'],
              }),
            ],
          }),
        ],
      }),
    );
    expect(details).toEqual({
      home: '1 Slipway\nPQ1 Pellow Quay',
      globe: '54.12,-3.21',
      when: '2027-05-01T18:30',
      days: '2027-05-01/2027-05-02',
      phone: '01632 960 001',
    });
  });

  it('tells what no field could hold, and takes nothing from what every object has', () => {
    const fields = [
      field('price', 'money', 'offers'),
      field('odd', 'text', 'constructor'),
      field('none', 'text', 'toString'),
    ];
    const { details, unread } = read(fields, thing('Product', { offers: ['ask at the office'] }));
    expect(details).toEqual({});
    expect(unread).toEqual([{ field: 'price', text: 'ask at the office' }]);
    expect(read(fields, COURSE).details).toEqual({ price: '85.5 GBP', odd: 'no' });
    expect(read(fields)).toEqual({ details: {}, unread: [] });
  });
});
