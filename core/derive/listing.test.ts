import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import type { Listing } from '../model/frame.ts';
import { toPageId } from '../model/ids.ts';
import { type Site, nodeAt } from '../model/site.ts';
import type { Operation } from '../operations/operation.ts';
import { anySite, siteAfter } from '../testing/random-site.ts';
import { derivedOf } from './derived.ts';
import { type Listed, forEachListed, listedBelow, turnsOfPage } from './listing.ts';

const id = toPageId;
const add = (page: string, parent: string | null, more: object = {}): Operation =>
  ({
    name: 'page.add',
    page: id(page),
    place: { parent: parent === null ? null : id(parent) },
    title: { en: page },
    ...more,
  }) as Operation;
const site = siteAfter([
  add('home', null),
  add('news', null),
  add('old', 'news', { frame: { date: '2025-01-10' } }),
  add('new', 'news', { frame: { date: '2026-11-02' } }),
  add('hidden', 'news', { hidden: 'page' }),
  add('more', 'news', { type: 'heading' }),
  add('deep', 'more'),
  add('deeper', 'deep'),
  add('off', null, { inMenus: false }),
]);
const withListing = (page: string, listing: Listing): Site =>
  siteAfter([{ name: 'page.set', page: id(page), fields: { frame: { listing } } }], site);
const names = (of: Site, page: string) => {
  const derived = derivedOf(of);
  const read = (list: readonly Listed[]): unknown[] =>
    list.map(({ row, below }) => {
      const name = derived.outline.nodes[row]!.id;
      return below.length === 0 ? name : [name, ...read(below)];
    });
  return read(listedBelow(of, id(page), derived));
};

describe('what a page lists', () => {
  it('is what stands right below it, with headings above what they group', () =>
    expect(names(site, 'news')).toEqual(['old', 'new', ['more', 'deep']]));
  it('is deeper, in another order, or nothing, as is said of it', () => {
    expect(names(withListing('news', { look: 'list', levels: 2, order: 'tree' }), 'news')).toEqual([
      'old',
      'new',
      ['more', ['deep', 'deeper']],
    ]);
    expect(names(withListing('news', { look: 'cards', levels: 1, order: 'date' }), 'news').slice(0, 2)).toEqual([
      'new',
      'old',
    ]);
    expect(names(withListing('news', { look: 'a to z', levels: 1, order: 'alphabet' }), 'news')[0]).toEqual([
      'more',
      'deep',
    ]);
    expect(names(withListing('news', { look: 'none', levels: 1, order: 'tree' }), 'news')).toEqual([]);
  });
  it('is the whole tree for a sitemap page', () =>
    expect(names(withListing('off', { look: 'sitemap', levels: 2, order: 'tree' }), 'off')).toEqual([
      'home',
      ['news', 'old', 'new', ['more', 'deep']],
    ]));
});

describe('the rows that a page lists', () => {
  it('are those of its list, and headings that have nothing to show', () => {
    holds(
      fc.property(anySite, (site) => {
        const derived = derivedOf(site);
        const { nodes } = derived.outline;
        const rowsOf = (listed: readonly Listed[]): number[] =>
          listed.flatMap(({ row, below }) => [row, ...rowsOf(below)]);
        nodes.forEach(({ id, type }, row) => {
          if (type !== 'page') return;
          const told: number[] = [];
          forEachListed(row, derived, (listed) => told.push(listed));
          const listed = new Set(rowsOf(listedBelow(site, id, derived)));
          expect(new Set(told.filter((at) => listed.has(at) || nodes[at]!.type !== 'heading'))).toEqual(listed);
          expect(told).toEqual([...told].sort((a, b) => a - b));
        });
      }),
    );
  });
});

describe('the pages before and after', () => {
  it('are those of the section as it is read, without what is hidden or off menus', () => {
    const derived = derivedOf(site);
    const turns = (page: string) => {
      const { before, after } = turnsOfPage(id(page), derived);
      return [before, after].map((row) => (row === null ? null : nodeAt(site, derived.outline.nodes[row]!.id).id));
    };
    expect(turns('news')).toEqual([null, 'old']);
    expect(turns('new')).toEqual(['old', 'deep']);
    expect(turns('deeper')).toEqual(['deep', null]);
    expect(turns('home')).toEqual([null, null]);
  });
});
