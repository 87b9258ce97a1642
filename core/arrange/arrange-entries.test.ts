import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { putEntry, withoutEntry } from '../model/arranged-entries.ts';
import { type PageId, toPageId } from '../model/ids.ts';
import { type ArrangedEntry, type EntryId, MAIN_MENU, allEntries, entryOf } from '../model/menu.ts';
import type { Site } from '../model/site.ts';
import { arrangedNow } from '../derive/menu-merge.ts';
import type { Operation } from '../operations/operation.ts';
import { siteAfter } from '../testing/random-site.ts';
import { arrangeByHand } from './switch-menu.ts';
import {
  type EntryStep,
  onEach,
  putInMenu,
  takeOut,
  entryRows,
  placeAfterStep,
  placeInGap,
} from './arrange-entries.ts';

const id = (text: string) => text as EntryId;
const entry = (name: string, below: ArrangedEntry[] = []): ArrangedEntry => ({
  id: id(name),
  label: { en: name },
  target: null,
  only: null,
  below,
});
const MENU = [entry('a', [entry('b'), entry('c', [entry('d')])]), entry('e'), entry('f', [entry('g')])];
const shape = (entries: readonly ArrangedEntry[]): string =>
  entries.map((one) => one.id + (one.below.length > 0 ? `(${shape(one.below)})` : '')).join(' ');
const put = (
  entries: readonly ArrangedEntry[],
  moved: string,
  place: { under: EntryId | null; after: EntryId | null } | null,
) => {
  if (place === null) return null;
  const found = [...allEntries(entries)].find((one) => one.id === moved)!;
  return shape(putEntry(withoutEntry(entries, id(moved)), found, place.under, place.after));
};

describe('a step', () => {
  it.each<[string, EntryStep, string | null]>([
    ['c', 'up', 'a(c(d) b) e f(g)'],
    ['b', 'up', null],
    ['a', 'down', 'e a(b c(d)) f(g)'],
    ['f', 'down', null],
    ['e', 'nest', 'a(b c(d) e) f(g)'],
    ['b', 'nest', null],
    ['d', 'lift', 'a(b c d) e f(g)'],
    ['e', 'lift', null],
  ])('takes %s %s', (moved, step, expected) =>
    expect(put(MENU, moved, placeAfterStep(MENU, id(moved), step))).toBe(expected),
  );
});

describe('a gap in the list', () => {
  const without = (moved: string) => entryRows(withoutEntry(MENU, id(moved)));
  it.each<[string, number, number, string]>([
    ['e', 0, 3, 'e a(b c(d)) f(g)'],
    ['e', 1, 9, 'a(e b c(d)) f(g)'],
    ['e', 4, 9, 'a(b c(d(e))) f(g)'],
    ['e', 4, 2, 'a(b c(d e)) f(g)'],
    ['e', 4, 1, 'a(b c(d) e) f(g)'],
    ['e', 4, -2, 'a(b c(d)) e f(g)'],
    ['b', 5, 0, 'a(c(d)) e f(b g)'],
  ])('takes %s before row %i at depth %i', (moved, gap, depth, expected) =>
    expect(put(MENU, moved, placeInGap(without(moved), gap, depth))).toBe(expected),
  );

  it('is where the entry then stands, as deep as is said', () =>
    holds(
      fc.property(fc.constantFrom(...'abcdefg'), fc.nat(7), fc.integer({ min: -2, max: 6 }), (moved, at, wanted) => {
        const rows = without(moved);
        const gap = Math.min(at, rows.length);
        const place = placeInGap(rows, gap, wanted);
        const found = [...allEntries(MENU)].find((one) => one.id === moved)!;
        const after = entryRows(putEntry(withoutEntry(MENU, id(moved)), found, place.under, place.after));
        expect(after[gap]).toMatchObject({ entry: { id: moved }, depth: place.depth });
      }),
    ));
});

describe('several pages', () => {
  it('are put in one after the other, and taken out, whether the menu takes what is safe by itself or not', () => {
    const menu = MAIN_MENU.id;
    const [home, one, two, three] = ['home', 'one', 'two', 'three'].map(toPageId) as [PageId, PageId, PageId, PageId];
    const add = (page: PageId): Operation => ({ name: 'page.add', page, place: { parent: null }, title: { en: page } });
    const start = siteAfter([add(home)]);
    const arranged = siteAfter([arrangeByHand(start, start.settings.menus[0]!)], start);
    for (const takesSafe of [false, true]) {
      const site = siteAfter(
        [add(one), add(two), add(three), { name: 'menu.set', menu, fields: { takesSafe } }],
        arranged,
      );
      const shown = (of: Site) => shape(arrangedNow(of, of.settings.menus[0]!).entries);
      const all = siteAfter(onEach(site, menu, [one, two, three], putInMenu), site);
      expect(shown(all)).toBe('home one two three');
      const fewer = siteAfter(
        onEach(all, menu, [home, two], (of, now, page) => takeOut(of, now, entryOf(page))),
        all,
      );
      expect(shown(fewer)).toBe('one three');
    }
  });
});
