import { describe, expect, it } from 'vitest';
import { type PageId, toPageId } from '../model/ids.ts';
import { planOf } from '../model/plan.ts';
import { type Site, nodeAt } from '../model/site.ts';
import type { Operation } from '../operations/operation.ts';
import { siteAfter } from '../testing/random-site.ts';
import { acceptPairs, declinePair, letGoOf, moveOldPage, settledOf } from './settle.ts';

const id = toPageId;
const add = (page: string): Operation => ({
  name: 'page.add',
  page: id(page),
  place: { parent: null },
  title: { en: page },
});
const start = siteAfter([
  ...['a', 'b', 'c'].map(add),
  { name: 'page.set', page: id('a'), fields: { plan: { words: 300 } } },
  { name: 'page.set', page: id('b'), fields: { plan: { words: 300 } } },
]);
const pair = (old: string, planned: string, oldWords: number | null = 310) => ({ old, planned: id(planned), oldWords });
const after = (site: Site, operations: readonly Operation[]) => siteAfter(operations, site);
const of = (site: Site, page: string): [string | null, readonly string[]] => {
  const { origin, oldAddresses } = planOf(nodeAt(site, id(page)));
  return [origin, oldAddresses];
};

describe('accepting pairs', () => {
  it('keeps a text of the length that is planned, reworks one of another, and leaves open what the plan does not say', () => {
    const site = after(start, acceptPairs(start, [pair('/a', 'a'), pair('/x', 'b', 900), pair('/c', 'c')]));
    expect([of(site, 'a'), of(site, 'b'), of(site, 'c')]).toEqual([
      ['keep', ['/a']],
      ['rework', ['/x']],
      [null, ['/c']],
    ]);
    const between = after(start, acceptPairs(start, [pair('/a', 'a', 390), pair('/b', 'b', null)]));
    expect([of(between, 'a')[0], of(between, 'b')[0]]).toEqual([null, null]);
  });

  it('does not take back what somebody has decided of the origin', () => {
    const decided = after(start, [{ name: 'page.set', page: id('c'), fields: { plan: { origin: 'keep' } } }]);
    expect(of(after(decided, acceptPairs(decided, [pair('/c', 'c')])), 'c')).toEqual(['keep', ['/c']]);
  });

  it('gathers where several old pages come to one, and splits where one comes to several', () => {
    const gathered = after(start, acceptPairs(start, [pair('/a', 'a'), pair('/b', 'a')]));
    expect(of(gathered, 'a')).toEqual(['gather', ['/a', '/b']]);
    const split = after(start, acceptPairs(start, [pair('/a', 'a'), pair('/a', 'b')]));
    expect([of(split, 'a')[0], of(split, 'b')[0]]).toEqual(['split', 'split']);
  });

  it('makes a page that was kept a part, once another page takes a part of the same old page', () => {
    const kept = after(start, acceptPairs(start, [pair('/a', 'a')]));
    const split = after(kept, acceptPairs(kept, [pair('/a', 'b')]));
    expect([of(split, 'a')[0], of(split, 'b')[0]]).toEqual(['split', 'split']);
    const alone = after(split, moveOldPage(split, '/a', pair('/a', 'a')));
    expect([of(alone, 'a'), of(alone, 'b')]).toEqual([
      ['keep', ['/a']],
      [null, []],
    ]);
  });

  it('gives an old page that was let go a place again', () => {
    const gone = after(start, letGoOf(start, '/a', 'gone'));
    expect(gone.oldPages.get('/a')?.letGo).toBe('gone');
    const taken = after(gone, acceptPairs(gone, [pair('/a', 'a')]));
    expect(taken.oldPages.has('/a')).toBe(false);
    const letGo = after(taken, letGoOf(taken, '/a', { page: id('b') }));
    expect(of(letGo, 'a')).toEqual([null, []]);
    expect(letGo.oldPages.get('/a')?.letGo).toEqual({ page: 'b' });
  });

  it('passes over pages that are gone', () => expect(acceptPairs(start, [pair('/a', 'gone')])).toEqual([]));
});

describe('what is settled', () => {
  it('is counted by pages and by visits, with what is left over on either side', () => {
    const inventory = [
      { address: '/a', visits: 70 },
      { address: '/b', visits: 20 },
      { address: '/c', visits: null },
    ];
    let site = after(start, acceptPairs(start, [pair('/a', 'a')]));
    site = after(site, letGoOf(site, '/b', 'gone'));
    site = after(site, [{ name: 'page.set', page: id('b'), fields: { plan: { origin: 'new' } } }]);
    const settled = settledOf(site, inventory);
    expect(settled).toMatchObject({
      oldPages: 3,
      settledOldPages: 2,
      visits: { all: 90, settled: 90 },
      withoutSource: ['c'],
      withoutPlace: ['/c'],
    });
    expect(settledOf(site, [{ address: '/z', visits: null }]).visits).toBeNull();
  });
});

it('a declined pair is remembered beside those before', () => {
  let site = after(start, declinePair(start, '/a', id('a')));
  site = after(site, declinePair(site, '/a', id('b')));
  expect(site.oldPages.get('/a')?.declined).toEqual(['a', 'b'] as PageId[]);
});
