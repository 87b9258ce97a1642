import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DIRECTIONS, layoutMap } from '#core/drawing/map-layout.ts';
import { holds } from '#core/testing/holds.ts';
import { firstCorner } from './first-look.ts';

/** A site of sections with so many pages each. */
const layoutOf = (sections: readonly number[], direction: (typeof DIRECTIONS)[number]) => {
  const parent = [-1, ...sections.map(() => 0), ...sections.flatMap((count, at) => Array<number>(count).fill(at + 1))];
  const all = (size: number) => new Float64Array(parent.length).fill(size);
  return layoutMap({ parent: Int32Array.from(parent), width: all(140), height: all(32) }, direction);
};

describe('the first look at a map', () => {
  it('has the selected node in view, and begins where nodes do', () =>
    holds(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 30 }), { minLength: 1, maxLength: 12 }),
        fc.constantFrom(...DIRECTIONS),
        fc.nat(),
        fc.record({ width: fc.integer({ min: 300, max: 1400 }), height: fc.integer({ min: 300, max: 900 }) }),
        (sections, direction, which, room) => {
          const layout = layoutOf(sections, direction);
          const at = which % layout.x.length;
          const { left, top } = firstCorner(layout, at, room);
          const [x, y] = [layout.x[at]!, layout.y[at]!];
          expect(x).toBeGreaterThanOrEqual(left);
          expect(y).toBeGreaterThanOrEqual(top);
          expect(x + 140).toBeLessThanOrEqual(left + room.width);
          expect(y + 32).toBeLessThanOrEqual(top + room.height);
          const begins = Array.from(layout.x.keys())
            .filter((one) => layout.y[one]! + 32 >= top && layout.y[one]! <= top + room.height)
            .map((one) => layout.x[one]!);
          if (direction === 'across') expect(Math.min(...begins) - left).toBeLessThanOrEqual(36);
        },
      ),
    ));
});
