import { describe, expect, it } from 'vitest';
import type { AudienceId } from '../model/audience.ts';
import { toPageId } from '../model/ids.ts';
import { type Menu, entryIdSchema, entryOf, toMenuId } from '../model/menu.ts';
import type { Site } from '../model/site.ts';
import type { Operation } from '../operations/operation.ts';
import { siteAfter } from '../testing/random-site.ts';
import { arrangeByHand, followTree, pinsFor } from './switch-menu.ts';

const MENU = toMenuId('main');
const id = toPageId;
const entry = (text: string) => entryIdSchema.parse(text);
const staff = 'staff' as AudienceId;
const menuOf = (site: Site): Menu => site.settings.menus.find((menu) => menu.id === MENU)!;
const add = (page: string, parent: string | null = null): Operation => ({
  name: 'page.add',
  page: id(page),
  place: { parent: parent === null ? null : id(parent) },
  title: { en: page },
});
const move = (one: string, under: string | null, after?: string | null): Operation => ({
  name: 'entry.move',
  menu: MENU,
  entry: entry(one),
  under: under === null ? null : entry(under),
  ...(after !== undefined && { after: after === null ? null : entry(after) }),
});
const beside = (one: string, more: object = {}): Operation =>
  ({
    name: 'entry.add',
    menu: MENU,
    entry: entry(one),
    label: { en: one },
    target: { url: 'https://tides.example/' },
    under: null,
    ...more,
  }) as Operation;

/** home, courses (short, long), visit. */
const tree = siteAfter([
  { name: 'audience.add', audience: staff, title: 'Staff' },
  add('home'),
  add('courses'),
  add('short', 'courses'),
  add('long', 'courses'),
  add('visit'),
]);
const byHand = siteAfter([arrangeByHand(tree, menuOf(tree))], tree);
/** What is said of the menu once it follows the tree again, after these edits by hand. */
const said = (...operations: Operation[]) => {
  const site = siteAfter(operations, byHand);
  const { operation, unsaid } = followTree(site, menuOf(site));
  const after = menuOf(siteAfter([operation], site));
  return {
    pins: after.exceptions.flatMap(({ page, pin }) => (pin === null ? [] : [[page as string, pin]])),
    exceptions: after.exceptions,
    extras: after.extras.map(({ id: extra, under, pin }) => [extra as string, under as string | null, pin]),
    unsaid: unsaid.map(({ entry: one, what }) => [one as string, what]),
    after,
  };
};

describe('arranging a menu by hand', () => {
  it('begins with what the menu shows', () => {
    const names = (entries: readonly { id: string; below: readonly unknown[] }[]): unknown[] =>
      entries.map(({ id: one, below }) => [one, names(below as never)]);
    expect(names(menuOf(byHand).arranged!.entries)).toEqual([
      ['home', []],
      [
        'courses',
        [
          ['short', []],
          ['long', []],
        ],
      ],
      ['visit', []],
    ]);
  });

  it('takes exceptions and what stands beside the tree along', () => {
    const following = siteAfter(
      [
        {
          name: 'entry.set',
          menu: MENU,
          entry: entryOf(id('visit')),
          fields: { label: { en: 'Come' }, only: [staff] },
        },
        beside('tides'),
      ],
      tree,
    );
    const { arranged } = menuOf(siteAfter([arrangeByHand(following, menuOf(following))], following));
    expect(arranged!.entries.slice(-2)).toEqual([
      { id: 'visit', label: { en: 'Come' }, target: { page: 'visit' }, only: [staff], below: [] },
      { id: 'tides', label: { en: 'tides' }, target: { url: 'https://tides.example/' }, only: null, below: [] },
    ]);
  });

  it('goes on with what was arranged before, where nothing was changed since', () => {
    const moved = siteAfter([move('visit', null, null)], byHand);
    const following = siteAfter([followTree(moved, menuOf(moved)).operation], moved);
    const again = siteAfter([arrangeByHand(following, menuOf(following))], following);
    expect(menuOf(again).arranged).toEqual(menuOf(moved).arranged);
    const changed = siteAfter(
      [{ name: 'entry.set', menu: MENU, entry: entryOf(id('home')), fields: { isLeftOut: true } }],
      following,
    );
    const anew = siteAfter([arrangeByHand(changed, menuOf(changed))], changed);
    expect(menuOf(anew).arranged!.entries.map((one) => one.id)).toEqual(['visit', 'courses']);
  });
});

describe('a menu that was arranged by hand and follows the tree', () => {
  it('keeps nothing of it where nothing was arranged', () => {
    const { after, unsaid } = said();
    expect([after.isByHand, after.arranged, after.exceptions, unsaid]).toEqual([false, null, [], []]);
  });

  it('says what stands before or after the others, what is left out, what is called otherwise, and for whom', () => {
    expect(said(move('visit', null, null)).pins).toEqual([['visit', 'first']]);
    expect(said(move('home', null)).pins).toEqual([['home', 'last']]);
    expect(said({ name: 'entry.remove', menu: MENU, entry: entry('courses') }).exceptions).toEqual([
      { page: 'courses', label: {}, isLeftOut: true, pin: null, only: null },
    ]);
    const named: Operation = {
      name: 'entry.set',
      menu: MENU,
      entry: entry('visit'),
      fields: { label: { en: 'Come' }, only: [staff] },
    };
    expect(said(named).exceptions).toEqual([
      { page: 'visit', label: { en: 'Come' }, isLeftOut: false, pin: null, only: [staff] },
    ]);
  });

  it('has what is not of the tree beside it: before the others, after them, or below one of them', () => {
    expect(said(beside('tides', { after: null })).extras).toEqual([['tides', null, 'first']]);
    expect(said(beside('tides')).extras).toEqual([['tides', null, 'last']]);
    expect(said(beside('tides', { under: entry('courses') })).extras).toEqual([['tides', 'courses', 'last']]);
    expect(said(beside('tides'), beside('ferry', { under: entry('tides') }))).toMatchObject({
      extras: [
        ['tides', null, 'last'],
        ['ferry', null, 'last'],
      ],
      unsaid: [['ferry', 'place']],
    });
  });

  it('names what exceptions cannot say: a place among the others, or below another page', () => {
    expect(said(beside('tides', { after: entry('home') })).unsaid).toEqual([['tides', 'order']]);
    expect(said(move('short', null)).unsaid).toEqual([['short', 'place']]);
    expect(said(move('visit', 'courses', 'short')).unsaid).toContainEqual(['visit', 'place']);
  });
});

describe('the pins of siblings', () => {
  it.each([
    [[], []],
    [
      [0, 1, 2],
      [null, null, null],
    ],
    [
      [2, 0, 1],
      ['first', null, null],
    ],
    [
      [1, 2, 0],
      [null, null, 'last'],
    ],
    [
      [1, 0],
      ['first', null],
    ],
    [
      [3, 1, 2, 0],
      ['first', null, null, 'last'],
    ],
    [[3, 2, 1, 0], null],
  ])('of the tree’s %j are %j', (order, pins) => expect(pinsFor(order)).toEqual(pins));
});
