import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { toPageId } from '../model/ids.ts';
import { ancestorsOf } from '../model/site.ts';
import { IDS, anySite, siteAfter } from '../testing/random-site.ts';
import { outlineOf } from './outline.ts';
import { findRows, visibleRows } from './visible-rows.ts';

const site = siteAfter(
  [
    ['a', 'Boats built', null],
    ['b', 'Clinker dinghies', 'a'],
    ['c', 'Marigold', 'b'],
    ['d', 'Crème brûlée', null],
    ['e', 'News', null],
    ['f', 'Marigold goes down the slip', 'e'],
  ].map(([page, title, parent]) => ({
    name: 'page.add' as const,
    page: toPageId(page!),
    place: { parent: parent === null ? null : toPageId(parent!) },
    title: { en: title! },
  })),
);
const outline = outlineOf(site);
const titles = (rows: readonly number[]) => rows.map((row) => outline.nodes[row]!.id);

describe('the rows that show', () => {
  it('are those whose branches above are all open', () => {
    holds(
      fc.property(anySite, fc.subarray([...IDS]), (any, ids) => {
        const open = new Set(ids);
        const of = outlineOf(any);
        const expected = of.nodes.flatMap((node, row) =>
          ancestorsOf(any, node.id).every((above) => open.has(above.id)) ? [row] : [],
        );
        expect(visibleRows(of, open)).toEqual(expected);
      }),
      { numRuns: 100 },
    );
  });
});

describe('finding', () => {
  it('gives the matches with what stands above them, in tree order', () => {
    const found = findRows(site, outline, 'marig');
    expect(titles(found.rows)).toEqual(['a', 'b', 'c', 'e', 'f']);
    expect(titles([...found.matches])).toEqual(['c', 'f']);
  });
  it('asks for every word, in any order', () =>
    expect(titles([...findRows(site, outline, 'slip mari').matches])).toEqual(['f']));
  it('takes letters with accents and without for the same, and capital for small', () =>
    expect(titles([...findRows(site, outline, 'CREME BRULEE').matches])).toEqual(['d']));
  it('finds nothing where nothing is', () => expect(findRows(site, outline, 'ferry').rows).toEqual([]));
});
