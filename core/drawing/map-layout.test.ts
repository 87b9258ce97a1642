import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { DIRECTIONS, type MapShape, layoutMap } from './map-layout.ts';

/** Trees of up to 60 nodes of any sizes; every parent stands before its children. */
const anyShape: fc.Arbitrary<MapShape> = fc
  .array(
    fc.record({ above: fc.nat(), width: fc.integer({ min: 20, max: 240 }), height: fc.integer({ min: 20, max: 80 }) }),
    { minLength: 1, maxLength: 60, size: 'max' },
  )
  .map((nodes) => ({
    parent: Int32Array.from(nodes, ({ above }, index) => (index === 0 ? -1 : above % index)),
    width: Float64Array.from(nodes, ({ width }) => width),
    height: Float64Array.from(nodes, ({ height }) => height),
  }));
const cases = fc.tuple(anyShape, fc.constantFrom(...DIRECTIONS));

describe('the layout of a map', () => {
  it('lets no two nodes overlap', () =>
    holds(
      fc.property(cases, ([shape, direction]) => {
        const { x, y, width, height } = layoutMap(shape, direction);
        for (let a = 0; a < x.length; a++)
          for (let b = a + 1; b < x.length; b++) {
            const apart =
              x[a]! + width[a]! <= x[b]! + 0.01 ||
              x[b]! + width[b]! <= x[a]! + 0.01 ||
              y[a]! + height[a]! <= y[b]! + 0.01 ||
              y[b]! + height[b]! <= y[a]! + 0.01;
            expect(apart).toBe(true);
          }
      }),
      { numRuns: 100 },
    ));

  it('puts what is below further on, and neighbours in their order', () =>
    holds(
      fc.property(cases, ([shape, direction]) => {
        const made = layoutMap(shape, direction);
        const [along, beside, length] =
          direction === 'across' ? [made.x, made.y, made.width] : [made.y, made.x, made.height];
        const latest = new Map<number, number>();
        for (let index = 1; index < shape.parent.length; index++) {
          const above = shape.parent[index]!;
          expect(along[index]!).toBeGreaterThan(along[above]! + length[above]!);
          const before = latest.get(above);
          if (before !== undefined) expect(beside[index]!).toBeGreaterThan(beside[before]!);
          latest.set(above, index);
        }
      }),
      { numRuns: 100 },
    ));

  it('lies within its extent, which begins at nothing', () =>
    holds(
      fc.property(cases, ([shape, direction]) => {
        const { x, y, width, height, extent } = layoutMap(shape, direction);
        expect(Math.min(...x)).toBe(0);
        expect(Math.min(...y)).toBe(0);
        x.forEach((left, index) => {
          expect(left + width[index]!).toBeLessThanOrEqual(extent.width + 0.01);
          expect(y[index]! + height[index]!).toBeLessThanOrEqual(extent.height + 0.01);
        });
      }),
      { numRuns: 100 },
    ));
});
