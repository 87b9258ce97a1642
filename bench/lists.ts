import { visitorView } from '#core/derive/visitor-view.ts';
import { EVERYONE } from '#core/model/audience.ts';
import { toPageId } from '#core/model/ids.ts';
import type { Operation } from '#core/operations/operation.ts';
import { PAGE_LIST_DATA, PLAIN_PAGE_LIST } from '#core/sections/page-list.ts';
import { emptySite, siteAfter } from '#core/testing/random-site.ts';
import { sound } from '#server/live/html.ts';
import { NO_FILES } from '#server/live/live-files.ts';
import type { LiveView } from '#server/live/live-view.ts';
import { withPageLists } from '#server/live/page-lists.ts';
import { type Result, ms, timeByTurns } from './measure.ts';

const SIZE = 5000;
const SHOWN = 50;
/** A list over so many pages is there for a visitor within this. */
const AIM_MS = 20;
const AT = Date.parse('2026-12-01T12:00:00Z');
const day = (n: number): string => new Date(AT + n * 86_400_000).toISOString().slice(0, 10);

/**
 * A table of the courses that are still to come, in the order of their prices, the first fifty of five thousand: for a visitor, from
 * memory. Each round asks for another price, so that other pages are shown; beside it a bare pass over arrays of the same values.
 */
export function benchLists(): Result[] {
  const rows = Array.from({ length: SIZE }, (_, n) => {
    const from = ((n * 7919) % 900) - 200;
    return { title: `Course ${n}`, price: (n * 31) % 4001, first: day(from), last: day(from + 1 + (n % 9)) };
  });
  const add = (page: string, title: string, more: object = {}) =>
    ({ name: 'page.add', page: toPageId(page), place: { parent: null }, title: { en: title }, ...more }) as Operation;
  const site = siteAfter(
    [
      { name: 'label.add', label: 'course', title: 'Course', about: 'course' } as Operation,
      { name: 'field.add', label: 'course', field: 'price', title: 'Price', settings: { type: 'money' } } as Operation,
      { name: 'field.add', label: 'course', field: 'days', title: 'Days', settings: { type: 'period' } } as Operation,
      add('home', 'Home'),
      ...rows.map(({ title, price, first, last }, n) =>
        add(`p${n}`, title, {
          access: { labels: ['course'] },
          details: { price: `${price} GBP`, days: `${first}/${last}` },
        }),
      ),
    ],
    emptySite(),
  );
  const view: LiveView = {
    ...visitorView(site, new Set([EVERYONE]), AT, false),
    place: { base: '/site', origin: '', stylesheet: '' },
    walk: null,
    files: NO_FILES,
  };
  const textWith = (price: number) =>
    sound(
      `<div ${PAGE_LIST_DATA}="${JSON.stringify({
        ...PLAIN_PAGE_LIST,
        from: 'site',
        kind: 'course',
        where: [
          { field: 'days', test: 'from', value: 'today' },
          { field: 'price', test: 'from', value: `${price} EUR` },
        ],
        order: 'field',
        by: 'price',
        look: 'table',
        fields: ['price', 'days'],
        most: SHOWN,
      }).replaceAll('"', '&quot;')}"></div>`,
    );
  const today = day(0);
  let round = 0;
  const [ours, bare] = timeByTurns(25, [
    // What is known of a view is known of this one alone.
    () => withPageLists(textWith((++round * 53) % 2000), { ...view }, toPageId('home')),
    () =>
      rows
        .filter(({ last, price }) => last >= today && price >= (round * 53) % 2000)
        .sort((a, b) => a.price - b.price)
        .slice(0, SHOWN)
        .map(
          ({ title, price, first, last }) => `<tr><th>${title}</th><td>${price}</td><td>${first} – ${last}</td></tr>`,
        )
        .join(''),
  ]);
  return [
    {
      what: `A list of ${SHOWN} of ${SIZE.toLocaleString('en')} pages by their fields, for a visitor`,
      ours: ms(ours!),
      limit: `${ms(bare!)}, a bare pass over arrays of the values`,
      ratio: ours! / bare!,
      aim: `≤ ${AIM_MS} ms`,
      isMet: ours! <= AIM_MS,
    },
  ];
}
