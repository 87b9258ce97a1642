import { describe, expect, it } from 'vitest';
import type { AudienceId } from '../model/audience.ts';
import { toPageId } from '../model/ids.ts';
import { layoutIdSchema } from '../model/layout.ts';
import { type EntryId, MAIN_MENU, entryOf, toMenuId } from '../model/menu.ts';
import type { Site } from '../model/site.ts';
import { siteAfter } from '../testing/random-site.ts';
import { applyOperation, applyOperations, wordsOf } from './apply.ts';
import type { Operation } from './operation.ts';

const page = toPageId('courses');
const start = siteAfter([{ name: 'page.add', page, place: { parent: null }, title: { en: 'Courses' } }]);
const main = MAIN_MENU.id;
const id = (text: string) => text as EntryId;
const byHand: Operation = {
  name: 'menu.set',
  menu: main,
  fields: { isByHand: true, arranged: { entries: [], settled: [] } },
};
const words = (entry: string, under: string | null = null): Operation => ({
  name: 'entry.add',
  menu: main,
  entry: id(entry),
  label: { en: entry },
  target: null,
  under: under === null ? null : id(under),
});
const codeOf = (site: Site, operations: readonly Operation[]) => {
  const outcome = applyOperations(site, operations);
  return outcome.ok ? null : outcome.code;
};

describe('a menu', () => {
  it.each<[string, Operation[], string]>([
    ['a second one of the same id', [{ name: 'menu.add', menu: main, title: 'Main' }], 'menu-exists'],
    ['one without a name', [{ name: 'menu.add', menu: toMenuId('x'), title: ' ' }], 'menu-unnamed'],
    ['what is not there', [{ name: 'menu.set', menu: toMenuId('x'), fields: { levels: 3 } }], 'menu-unknown'],
    [
      'a root that is no page of the site',
      [{ name: 'menu.set', menu: main, fields: { root: { page: toPageId('x') } } }],
      'page-unknown',
    ],
    [
      'an entry for an audience that is not there',
      [{ name: 'entry.set', menu: main, entry: entryOf(page), fields: { only: ['staff' as AudienceId] } }],
      'audience-unknown',
    ],
    ['an entry of words without words', [{ ...words('a'), label: {} } as Operation], 'entry-unnamed'],
    ['an entry twice', [words('a'), words('a')], 'entry-exists'],
    ['an entry of words under the id of a page', [words(page)], 'entry-exists'],
    [
      'an entry of a page under another id',
      [{ name: 'entry.add', menu: main, entry: id('other'), target: { page }, under: null }],
      'page-unknown',
    ],
    [
      'an entry below itself',
      [byHand, words('a'), words('b', 'a'), { name: 'entry.move', menu: main, entry: id('a'), under: id('b') }],
      'entry-inside-itself',
    ],
    ['a place below no entry', [byHand, words('a', 'gone')], 'entry-unknown'],
    [
      'more levels than a menu has',
      [byHand, ...['a', 'b', 'c', 'd', 'e', 'f', 'g'].map((one, at, all) => words(one, all[at - 1] ?? null))],
      'entry-too-deep',
    ],
    [
      'moving what follows the tree',
      [{ name: 'entry.move', menu: main, entry: entryOf(page), under: null }],
      'entry-unknown',
    ],
  ])('refuses %s', (_, operations, code) => expect(codeOf(start, operations)).toBe(code));

  it('leaves the layouts that it stood in, and comes back into them', () => {
    const gone = applyOperation(start, { name: 'menu.remove', menu: main });
    expect(gone.ok && gone.site.settings.layouts[0]!.menus.header).toBeNull();
    const back = gone.ok && applyOperations(gone.site, gone.inverse);
    expect(back && back.ok && back.site.settings).toEqual(start.settings);
  });

  it('keeps an audience that one of its entries is for from being taken away', () => {
    const staff = 'staff' as AudienceId;
    const site = siteAfter(
      [
        { name: 'audience.add', audience: staff, title: 'Staff' },
        { name: 'entry.set', menu: main, entry: entryOf(page), fields: { only: [staff] } },
      ],
      start,
    );
    expect(codeOf(site, [{ name: 'audience.remove', audience: staff }])).toBe('audience-used');
  });

  it('keeps no exception that says nothing', () => {
    const set = (isLeftOut: boolean): Operation => ({
      name: 'entry.set',
      menu: main,
      entry: entryOf(page),
      fields: { isLeftOut },
    });
    const site = siteAfter([set(true), set(false)], start);
    expect(site.settings.menus[0]!.exceptions).toEqual([]);
  });

  it('is named in the history', () => {
    expect(wordsOf(byHand, start)).toBe('began to arrange the menu ‘Main’ by hand');
    expect(wordsOf(words('a'), start)).toBe('added the entry ‘a’ to the menu ‘Main’');
    expect(wordsOf({ name: 'menu.set', menu: main, fields: { levels: 3 } }, start)).toBe(
      'set what the menu ‘Main’ takes from the tree',
    );
  });
});

describe('a layout', () => {
  const bare = layoutIdSchema.parse('bare');
  const withBare = siteAfter([{ name: 'layout.add', layout: bare, title: 'Bare' }], start);
  it.each<[string, Operation[], string]>([
    ['without a name', [{ name: 'layout.set', layout: bare, fields: { title: '' } }], 'layout-unnamed'],
    [
      'of a menu that is not there',
      [
        {
          name: 'layout.set',
          layout: bare,
          fields: { menus: { utility: null, header: toMenuId('x'), side: null, footer: null } },
        },
      ],
      'menu-unknown',
    ],
    [
      'taken away while a page names it',
      [
        { name: 'page.set', page, fields: { frame: { layout: bare } } },
        { name: 'layout.remove', layout: bare },
      ],
      'layout-used',
    ],
    [
      'taken away as the last one',
      [
        { name: 'layout.remove', layout: bare },
        { name: 'layout.remove', layout: layoutIdSchema.parse('standard') },
      ],
      'layout-last',
    ],
    [
      'named by a page and not there',
      [{ name: 'page.set', page, fields: { frame: { layout: layoutIdSchema.parse('x') } } }],
      'layout-unknown',
    ],
  ])('is refused %s', (_, operations, code) => expect(codeOf(withBare, operations)).toBe(code));
});
