import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { outlineOf } from '../derive/outline.ts';
import { visibleRows } from '../derive/visible-rows.ts';
import { toPageId } from '../model/ids.ts';
import { ancestorsOf, branchOf, childrenOf, isWithin, maybeNodeAt, nodeAt } from '../model/site.ts';
import type { Side } from '../model/place.ts';
import { applyOperations } from '../operations/apply.ts';
import { IDS, anySite, siteAfter } from '../testing/random-site.ts';
import { topmost } from './arrange.ts';
import { levelsCarried, moveToPlace, movedRows, placeBeside, placeInGap, placeInside, placeOn } from './landing.ts';

const nothing = () => false;
const id = toPageId;
const site = siteAfter(
  (
    [
      ['a', null],
      ['b', 'a'],
      ['c', 'b'],
      ['d', 'a'],
      ['e', null],
    ] as const
  ).map(([page, parent]) => ({
    name: 'page.add' as const,
    page: id(page),
    place: { parent: parent === null ? null : id(parent) },
    title: { en: page },
  })),
);
const outline = outlineOf(site);
const all = visibleRows(outline, new Set([id('a'), id('b')]));

describe('a gap between rows', () => {
  it('offers the depths that are possible there, and takes the nearest', () => {
    // Between c (depth 2) and d (depth 1): below c, after c, or after b.
    expect(placeInGap(outline, all, 3, 9, nothing)).toEqual({ parent: 'c', after: null, depth: 3 });
    expect(placeInGap(outline, all, 3, 2, nothing)).toEqual({ parent: 'b', after: 'c', depth: 2 });
    expect(placeInGap(outline, all, 3, 0, nothing)).toEqual({ parent: 'a', after: 'b', depth: 1 });
  });
  it('right below an open branch is its first place', () => {
    expect(placeInGap(outline, all, 1, 0, nothing)).toEqual({ parent: 'a', after: null, depth: 1 });
  });
  it('right below a closed branch leads into it, last, or after it', () => {
    const closed = visibleRows(outline, new Set());
    expect(placeInGap(outline, closed, 1, 1, nothing)).toEqual({ parent: 'a', after: 'd', depth: 1 });
    expect(placeInGap(outline, closed, 1, 0, nothing)).toEqual({ parent: null, after: 'a', depth: 0 });
  });
});

describe('a page that is carried', () => {
  it('keeps its level where it goes straight, with room for a hand that strays', () =>
    expect([0, 24, -24].map((sideways) => levelsCarried(sideways, 20))).toEqual([0, 1, -1]));
  it.each([
    [-23, 0],
    [23, 0],
    [43, 1],
    [44, 2],
    [-70, -3],
  ])('by %i pixels goes in by %i levels', (sideways, levels) => expect(levelsCarried(sideways, 20)).toBe(levels));

  it('and may not nest stays beside the row above, unless the gap is within the branch of that row', () => {
    expect(placeInGap(outline, all, 3, 9, nothing, false)).toEqual({ parent: 'b', after: 'c', depth: 2 });
    expect(placeInGap(outline, all, 1, 0, nothing, false)).toEqual({ parent: 'a', after: null, depth: 1 });
  });
});

describe('a place that is chosen by dragging', () => {
  const drag = fc.record({
    open: fc.subarray([...IDS]),
    moved: fc.subarray([...IDS], { minLength: 1 }),
    gap: fc.nat(15),
    depth: fc.nat(5),
    inside: fc.boolean(),
    mayNest: fc.boolean(),
  });
  it('can be moved to, is where the page then stands, and never lies within what is moved', () => {
    holds(
      fc.property(anySite, drag, (any, { open, moved, gap, depth, inside, mayNest }) => {
        const of = outlineOf(any);
        const rows = visibleRows(of, new Set(open));
        const tops = topmost(any, moved);
        const isMoved = movedRows(of, tops);
        const at = Math.min(gap, rows.length);
        const place = inside
          ? at < rows.length
            ? placeInside(of, rows[at]!, isMoved)
            : null
          : placeInGap(of, rows, at, depth, isMoved, mayNest);
        if (!place || tops.length === 0) return;
        expect(tops.flatMap((top) => branchOf(any, top))).not.toContain(place.parent);
        const operations = moveToPlace(any, tops, place);
        const outcome = applyOperations(any, operations);
        if (!outcome.ok) return void expect(outcome.code).toBe('too-deep');
        const first = tops[0]!;
        expect(nodeAt(outcome.site, first).parent).toBe(place.parent);
        expect(ancestorsOf(outcome.site, first)).toHaveLength(place.depth);
        const siblings = childrenOf(outcome.site, place.parent);
        const before = siblings.slice(0, siblings.indexOf(first)).filter((one) => !tops.includes(one));
        expect(before.at(-1) ?? null).toBe(place.after);
        expect(siblings.slice(siblings.indexOf(first), siblings.indexOf(first) + tops.length)).toEqual(tops);
      }),
      { numRuns: 150 },
    );
  });
});

describe('a place beside a page', () => {
  it('is right before or after it once all that is moved stands there', () =>
    holds(
      fc.property(
        anySite,
        fc.subarray([...IDS], { minLength: 1 }),
        fc.nat(),
        fc.constantFrom('before' as const, 'after' as const),
        (any, ids, pick, side) => {
          const made = outlineOf(any);
          fc.pre(made.nodes.length > 0);
          const row = pick % made.nodes.length;
          const beside = made.nodes[row]!.id;
          const moved = topmost(any, ids);
          const place = placeBeside(made, row, side, movedRows(made, moved));
          if (place === null || moved.length === 0) return;
          const outcome = applyOperations(any, moveToPlace(any, moved, place));
          if (!outcome.ok) return;
          const siblings = childrenOf(outcome.site, place.parent);
          const at = siblings.indexOf(beside);
          expect(side === 'after' ? siblings[at + 1] : siblings[at - 1]).toBe(
            side === 'after' ? moved[0] : moved.at(-1),
          );
        },
      ),
      { numRuns: 150 },
    ));
});

describe('a place on a side of a page', () => {
  it('moves several and keeps their order, wherever they land', () => {
    holds(
      fc.property(
        anySite,
        fc.subarray([...IDS]),
        fc.constantFrom(...IDS),
        fc.constantFrom<Side>('inside', 'before', 'after'),
        (any, ids, target, side) => {
          if (!maybeNodeAt(any, target)) return;
          const moved = topmost(any, ids);
          const outcome = applyOperations(any, moveToPlace(any, ids, placeOn(any, target, side, moved)));
          if (!outcome.ok) {
            // Refused only where the tree forbids it.
            expect(['parent-is-link', 'too-deep']).toContain(outcome.code);
            return;
          }
          if (moved.length === 0 || moved.some((one) => isWithin(any, target, one))) return;
          const siblings = childrenOf(outcome.site, nodeAt(outcome.site, moved[0]!).parent);
          const places = moved.map((one) => siblings.indexOf(one));
          expect(places).toEqual([...places].sort((a, b) => a - b));
          expect(places.at(-1)! - places[0]!).toBe(moved.length - 1);
          if (side === 'before') expect(siblings[places.at(-1)! + 1]).toBe(target);
          if (side === 'after') expect(siblings[places[0]! - 1]).toBe(target);
          if (side === 'inside') expect(siblings).toBe(childrenOf(outcome.site, target));
        },
      ),
      { numRuns: 150 },
    );
  });

  it.each([
    ['d', 'after', { parent: 'a', after: 'd' }],
    ['d', 'before', { parent: 'a', after: 'b' }],
    ['a', 'before', { parent: null, after: null }],
    ['a', 'inside', { parent: 'a', after: 'd' }],
    ['c', 'inside', { parent: 'c', after: null }],
  ] as const)('%s, %s', (page, side, place) => expect(placeOn(site, id(page), side)).toEqual(place));

  it('is the end of the top level where no page is', () => {
    expect(placeOn(site, null, 'inside')).toEqual({ parent: null, after: 'e' });
    expect(placeOn(site, id('gone'), 'before')).toEqual({ parent: null, after: 'e' });
    expect(placeOn({ ...site, practice: id('e') }, null, 'after')).toEqual({ parent: null, after: 'a' });
  });

  it('follows nothing of what is moved', () => {
    expect(placeOn(site, id('d'), 'before', [id('b')])).toEqual({ parent: 'a', after: null });
    expect(placeOn(site, id('d'), 'after', [id('d')])).toEqual({ parent: 'a', after: 'b' });
    expect(moveToPlace(site, [id('d')], placeOn(site, id('d'), 'after', [id('d')]))).toEqual([]);
  });
});
