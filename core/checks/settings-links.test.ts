import { expect, it } from 'vitest';
import { toPageId } from '../model/ids.ts';
import { entryIdSchema, toMenuId } from '../model/menu.ts';
import { redirectIdSchema } from '../model/redirect.ts';
import { emptySite, siteAfter } from '../testing/random-site.ts';
import { outsideLinksOfSettings, settingsFindings } from './settings-links.ts';

const main = toMenuId('main');
const entry = (id: string) => entryIdSchema.parse(id);
const site = siteAfter(
  [
    {
      name: 'entry.add',
      menu: main,
      entry: entry('tides'),
      label: { en: 'Tides' },
      target: { url: 'https://tides.example/' },
      under: null,
    },
    {
      name: 'entry.add',
      menu: main,
      entry: entry('mail'),
      label: { en: 'Mail' },
      target: { url: 'mailto:a@spur.example?body=https://tides.example/' },
      under: null,
    },
    {
      name: 'entry.add',
      menu: main,
      entry: entry('enter'),
      label: { en: 'Sign in' },
      target: { does: 'sign-in' },
      under: null,
    },
    {
      name: 'redirect.add',
      redirect: redirectIdSchema.parse('r1'),
      from: '/shop',
      to: { url: 'https://shop.example/' },
    },
    { name: 'redirect.add', redirect: redirectIdSchema.parse('r2'), from: '/left', to: 'gone' },
    { name: 'page.add', page: toPageId('home'), place: { parent: null }, title: { en: 'Home' } },
    { name: 'redirect.add', redirect: redirectIdSchema.parse('r3'), from: '/in', to: { page: toPageId('home') } },
    { name: 'entry.add', menu: main, entry: entry('home'), target: { page: toPageId('home') }, under: null },
    { name: 'entry.add', menu: main, entry: entry('words'), label: { en: 'Words' }, target: null, under: null },
  ],
  emptySite(),
);

it('outside web addresses of menus and redirects are found, and nothing else', () =>
  expect(outsideLinksOfSettings(site.settings)).toEqual([
    { of: { menu: 'main', entry: 'tides', label: { en: 'Tides' } }, address: 'https://tides.example/' },
    { of: { redirect: 'r1', from: '/shop' }, address: 'https://shop.example/' },
  ]));

it('a menu that is arranged by hand has those that stand in its arrangement, at whatever level, plain http among them', () => {
  const byHand = siteAfter(
    [
      { name: 'menu.set', menu: main, fields: { isByHand: true } },
      { name: 'entry.add', menu: main, entry: entry('more'), label: { en: 'More' }, target: null, under: null },
      {
        name: 'entry.add',
        menu: main,
        entry: entry('ferry'),
        label: { en: 'Ferry' },
        target: { url: 'http://ferry.example/' },
        under: entry('more'),
      },
    ],
    site,
  );
  expect(outsideLinksOfSettings(byHand.settings).map(({ address }) => address)).toEqual([
    'http://ferry.example/',
    'https://shop.example/',
  ]);
  const empty = siteAfter([{ name: 'menu.set', menu: main, fields: { isByHand: true, extras: [] } }], emptySite());
  expect(outsideLinksOfSettings(empty.settings)).toEqual([]);
});

it('they are told with what was heard of them, where something was', () =>
  expect(
    settingsFindings(site.settings, [
      { address: 'https://shop.example/', fault: 'missing', says: 'It answers with 404.' },
      { address: 'https://elsewhere.example/', fault: 'moved', says: 'https://nowhere.example/' },
    ]),
  ).toEqual([
    {
      of: { redirect: 'r1', from: '/shop' },
      address: 'https://shop.example/',
      fault: 'missing',
      says: 'It answers with 404.',
    },
  ]));
