import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { toPageId } from '../model/ids.ts';
import { branchOf, nodeAt } from '../model/site.ts';
import { applyOperations } from '../operations/apply.ts';
import { IDS, anySite, siteAfter } from '../testing/random-site.ts';
import { gestureForAll, lift, nest, shift, topmost } from './arrange.ts';

const id = toPageId;
const tree = siteAfter(
  [
    ['a', null],
    ['b', null],
    ['b1', 'b'],
    ['b2', 'b'],
    ['c', null],
  ].map(([page, parent]) => ({
    name: 'page.add' as const,
    page: id(page!),
    place: { parent: parent === null ? null : id(parent!) },
    title: { en: page! },
  })),
);
const after = (operations: Parameters<typeof applyOperations>[1]) => {
  const outcome = applyOperations(tree, operations);
  if (!outcome.ok) throw new Error(outcome.code);
  return branchOf(outcome.site, null).map((one) => `${nodeAt(outcome.site, one).parent ?? ''}/${one}`);
};

describe('a gesture in the tree', () => {
  it('nests under the page above, after what stands there', () =>
    expect(after(nest(tree, id('c')))).toEqual(['/a', '/b', 'b/b1', 'b/b2', 'b/c']));
  it('has nothing to nest the first page under', () => expect(nest(tree, id('a'))).toEqual([]));
  it('lifts out right after the parent', () =>
    expect(after(lift(tree, id('b1')))).toEqual(['/a', '/b', 'b/b2', '/b1', '/c']));
  it('shifts one place and stops at the ends', () => {
    expect(after(shift(tree, id('c'), -1))).toEqual(['/a', '/c', '/b', 'b/b1', 'b/b2']);
    expect(after(shift(tree, id('a'), 1))).toEqual(['/b', 'b/b1', 'b/b2', '/a', '/c']);
    expect(shift(tree, id('a'), -1)).toEqual([]);
    expect(shift(tree, id('c'), 1)).toEqual([]);
  });
});

describe('a gesture for several nodes', () => {
  it('keeps them in their order, together, or leaves all as it is', () => {
    holds(
      fc.property(
        anySite,
        fc.subarray([...IDS], { minLength: 1 }),
        fc.constantFrom('nest' as const, 'lift' as const, 'up' as const, 'down' as const),
        (site, ids, gesture) => {
          const operations = gestureForAll(site, ids, gesture);
          const made = applyOperations(site, operations);
          expect(made.ok).toBe(true);
          if (!made.ok || operations.length === 0) return;
          const tops = topmost(site, ids);
          const order = (of: typeof site) => branchOf(of, null).filter((id) => tops.includes(id));
          const parents = new Set(tops.map((id) => site.nodes.get(id)!.parent));
          if (parents.size === 1) expect(order(made.site)).toEqual(order(site));
        },
      ),
      { numRuns: 150 },
    );
  });
});
