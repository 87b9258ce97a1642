import { expect, it } from 'vitest';
import type { AudienceId } from '../model/audience.ts';
import { toPageId } from '../model/ids.ts';
import type { Operation } from '../operations/operation.ts';
import { emptySite, siteAfter } from '../testing/random-site.ts';
import { openingList } from './opening-list.ts';

const NOW = Date.parse('2026-11-26T00:00:00Z');
const id = toPageId;
const add = (page: string, more: object = {}): Operation => ({
  name: 'page.add',
  page: id(page),
  place: { parent: null },
  title: { en: page },
  ...more,
});
const stateOf = (operations: Operation[], links: { page: string; to: string }[] = []) =>
  Object.fromEntries(
    openingList(siteAfter(operations, emptySite()), NOW, links as never).map(({ point, state, pages }) => [
      point,
      state === 'there' || pages.length === 0 ? state : `${state}: ${pages.join()}`,
    ]),
  );

it('an empty site misses what visitors cannot do without', () => {
  expect(stateOf([])).toMatchObject({
    name: 'there',
    home: 'missing',
    'home open': 'missing',
    'not-found page': 'missing',
    menu: 'missing',
    texts: 'there',
    links: 'there',
  });
});

it('a home page lacks a text where what stands below it is in no menu, since it lists nothing by itself', () => {
  const below = (more: object = {}): Operation[] => [
    add('home', more),
    {
      name: 'page.add',
      page: id('visit'),
      place: { parent: id('home') },
      title: { en: 'Visit' },
      content: 'aaaaaaaaaaaa' as never,
    },
  ];
  expect(stateOf(below()).texts).toBe('to look at: home');
  const listing = { look: 'list', levels: 1, order: 'tree' };
  expect(stateOf(below({ frame: { listing } })).texts).toBe('there');
});

it('what is closed, unwritten or leads nowhere is named, by page', () => {
  const told = stateOf(
    [
      { name: 'audience.add', audience: 'staff' as AudienceId, title: 'Staff' },
      add('home', { description: { en: 'Welcome.' }, content: 'aaaaaaaaaaaa' }),
      add('lost', { access: { standsIn: 'not-found' }, content: 'aaaaaaaaaaaa' }),
      add('rota', { access: { only: ['staff' as AudienceId] } }),
      add('way', { type: 'link', target: { page: id('rota') } }),
    ],
    [
      { page: 'home', to: 'rota' },
      { page: 'rota', to: 'nobody' },
    ],
  );
  expect(told).toMatchObject({
    home: 'there',
    'home open': 'there',
    'not-found page': 'there',
    menu: 'there',
    // Staff can read it, and find nothing there.
    texts: 'to look at: rota',
    descriptions: 'there',
    closed: 'to look at: rota',
    links: 'to look at: home,rota,way',
  });
  expect(stateOf([add('home', { hidden: 'page' })])).toMatchObject({ 'home open': 'missing: home' });
});
