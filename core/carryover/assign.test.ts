import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { type Edge, bestAssignment } from './assign.ts';

/** The best sum there is, by trying everything. */
function bestSum(edges: readonly Edge[], row: number, rows: number, taken: ReadonlySet<number>): number {
  if (row === rows) return 0;
  let best = bestSum(edges, row + 1, rows, taken);
  for (const { pair, weight } of edges)
    if (pair[0] === row && !taken.has(pair[1]))
      best = Math.max(best, weight + bestSum(edges, row + 1, rows, new Set([...taken, pair[1]])));
  return best;
}

const graph = fc
  .uniqueArray(
    fc.record({
      pair: fc.tuple(fc.nat(5), fc.nat(5)),
      weight: fc.integer({ min: 1, max: 20 }).map((weight) => weight / 4),
    }),
    { maxLength: 18, selector: ({ pair }) => pair.join() },
  )
  .map((edges): Edge[] => edges);

describe('the best assignment', () => {
  it('has the greatest sum that trying everything finds, with each page at most once', () => {
    holds(
      fc.property(graph, (edges) => {
        const chosen = bestAssignment(edges, 6, 6).map((at) => edges[at]!);
        expect(new Set(chosen.map(({ pair }) => pair[0])).size).toBe(chosen.length);
        expect(new Set(chosen.map(({ pair }) => pair[1])).size).toBe(chosen.length);
        const sum = chosen.reduce((total, { weight }) => total + weight, 0);
        expect(sum).toBeCloseTo(bestSum(edges, 0, 6, new Set()), 9);
      }),
      { numRuns: 150 },
    );
  });
});
