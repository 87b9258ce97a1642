import { describe, expect, it } from 'vitest';
import type { LabelId } from '../model/access.ts';
import { toPageId } from '../model/ids.ts';
import { type FieldId, MAX_FIELDS } from '../model/kind-field.ts';
import type { Site } from '../model/site.ts';
import { emptySite, siteAfter } from '../testing/random-site.ts';
import { applyOperation } from './apply.ts';
import type { Operation } from './operation.ts';

const label = 'course' as LabelId;
const id = (field: string) => field as FieldId;
const add = (field: string, more: object = {}) =>
  ({ name: 'field.add', label, field: id(field), title: field, ...more }) as Operation;
const set = (field: string, fields: object) => ({ name: 'field.set', field: id(field), fields }) as Operation;
const course = { name: 'label.add', label, title: 'Course', about: 'course' } as Operation;
const page = {
  name: 'page.add',
  page: toPageId('oars'),
  place: { parent: null },
  title: { en: 'Oars' },
  access: { labels: [label] },
} as Operation;
const says = (details: object) => ({ name: 'page.set', page: toPageId('oars'), fields: { details } }) as Operation;

const start = siteAfter(
  [course, page, add('price', { settings: { type: 'money' } }), add('days'), add('size')],
  emptySite(),
);
const fieldsOf = (site: Site) => site.settings.labels[0]!.fields ?? [];
const names = (site: Site) => fieldsOf(site).map(({ name }) => name);
const refusal = (operation: Operation, site = start) => {
  const outcome = applyOperation(site, operation);
  return outcome.ok ? null : outcome;
};
const told = (operation: Operation, site = start) => applyOperation(site, operation);

describe('the fields of a kind', () => {
  it('stand where they are put, and move', () => {
    expect(names(start)).toEqual(['price', 'days', 'size']);
    expect(names(siteAfter([add('first', { after: null }), add('second', { after: 'price' })], start))).toEqual([
      'first',
      'price',
      'second',
      'days',
      'size',
    ]);
    expect(names(siteAfter([{ name: 'field.move', field: id('size'), after: null }], start))).toEqual([
      'size',
      'price',
      'days',
    ]);
    expect(names(siteAfter([{ name: 'field.move', field: id('price'), after: id('size') }], start))).toEqual([
      'days',
      'size',
      'price',
    ]);
    expect(told({ name: 'field.move', field: id('days'), after: id('price') })).toMatchObject({ site: start });
  });

  it('are as many as a kind may have, with names, and ids that no other field of the site has', () => {
    expect(refusal(add('price'))).toMatchObject({ code: 'field-exists' });
    expect(refusal(add('new', { title: ' ' }))).toMatchObject({ code: 'field-unnamed' });
    expect(refusal(add('new', { label: 'gone' }))).toMatchObject({ code: 'label-unknown' });
    const full = siteAfter(
      Array.from({ length: MAX_FIELDS }, (_, n) => add(`f${n}`)),
      start,
    );
    expect(fieldsOf(full)).toHaveLength(MAX_FIELDS);
    expect(refusal(add('more'), full)).toMatchObject({ code: 'field-too-many', params: { limit: MAX_FIELDS } });
    const other = {
      name: 'label.add',
      label: 'boat',
      title: 'Boat',
      about: 'page',
      fields: fieldsOf(start),
    } as Operation;
    expect(refusal(other)).toMatchObject({ code: 'field-exists', params: { field: 'price' } });
  });

  it('have choices of different names', () => {
    const choices = (...all: string[]) => all.map((name, at) => ({ id: `c${at}`, name }));
    expect(refusal(set('days', { type: 'choice', choices: choices('Small', 'small') }))).toMatchObject({
      code: 'choice-twice',
    });
    expect(refusal(set('days', { type: 'choice', choices: choices('Small', 'Large') }))).toBeNull();
  });

  it('remember which types they had, the latest last and each once, and none that they have', () => {
    const turned = siteAfter(
      [set('days', { type: 'day' }), set('days', { type: 'period' }), set('days', { type: 'day' })],
      start,
    );
    expect(fieldsOf(turned)[1]).toMatchObject({ type: 'day', earlier: ['text', 'period'] });
  });

  it('keep what pages say when they are removed, deleted, or their kind becomes a label', () => {
    const said = siteAfter([says({ price: '420 EUR' })], start);
    const kept = { price: '420 EUR' };
    for (const operation of [
      set('price', { isRemoved: true }),
      { name: 'field.remove', field: id('price') } as Operation,
      { name: 'label.set', label, fields: { about: null } } as Operation,
    ])
      expect(siteAfter([operation], said).nodes.get(toPageId('oars'))!.details).toEqual(kept);
    expect(
      fieldsOf(siteAfter([{ name: 'label.set', label, fields: { about: null } } as Operation], said)),
    ).toHaveLength(3);
  });

  it('come back with their kind where it was removed', () => {
    const bare = siteAfter([{ name: 'page.set', page: toPageId('oars'), fields: { access: { labels: [] } } }], start);
    const outcome = applyOperation(bare, { name: 'label.remove', label });
    expect(outcome.ok && siteAfter(outcome.inverse, outcome.site).settings.labels).toEqual(bare.settings.labels);
  });
});

describe('what a page says in a field', () => {
  it('is a value of its type, and is refused otherwise with what is expected', () => {
    expect(refusal(says({ price: 'cheap' }))).toMatchObject({
      code: 'field-value',
      params: { field: 'price', expects: 'a sum, such as 420 or 12.50; without a currency it is in EUR' },
    });
    expect(refusal(says({ gone: 'x' }))).toMatchObject({ code: 'field-unknown' });
    expect(refusal(says({ gone: null }))).toBeNull();
    expect(
      refusal({ ...page, page: toPageId('new'), details: { price: 'cheap' } } as unknown as Operation),
    ).toMatchObject({
      code: 'field-value',
    });
  });

  it('is set and taken back by itself: what another person said in another field stays', () => {
    const first = applyOperation(start, says({ price: '420 EUR' }));
    if (!first.ok) throw new Error(first.code);
    const both = siteAfter([says({ days: 'All summer' })], first.site);
    expect(siteAfter(first.inverse, both).nodes.get(toPageId('oars'))!.details).toEqual({ days: 'All summer' });
  });
});
