import fc from 'fast-check';
import { expect, test } from 'vitest';
import { LayeredMap } from './layered-map.ts';

type Change = { readonly key: number; readonly value: string | null };

const changed = (map: LayeredMap<number, string>, { key, value }: Change) =>
  value === null ? map.delete(key) : map.set(key, value);

/** What a map says of itself in each of its ways. */
const said = (map: LayeredMap<number, string>, keys: Iterable<number>) => ({
  size: map.size,
  got: [...keys].map((key) => [map.get(key), map.has(key)]),
  entries: [...map].sort(([a], [b]) => a - b),
  keys: [...map.keys()].sort((a, b) => a - b),
  values: [...map.values()].sort(),
});

/** The same of a native map. */
const expected = (map: ReadonlyMap<number, string>, keys: Iterable<number>) => ({
  size: map.size,
  got: [...keys].map((key) => [map.get(key), map.has(key)]),
  entries: [...map].sort(([a], [b]) => a - b),
  keys: [...map.keys()].sort((a, b) => a - b),
  values: [...map.values()].sort(),
});

test('a map is as a native one after any changes, through all its layers, and no version is changed by later ones', () => {
  // With 10,000 changes over 12,000 keys both upper layers are merged, some changes of which take away.
  const change = fc.record({
    key: fc.integer({ min: 0, max: 12_000 }),
    value: fc.option(fc.constantFrom('a', 'b', 'c'), { freq: 3 }),
  });
  fc.assert(
    fc.property(
      fc.array(change, { minLength: 9000, maxLength: 10_000, size: 'max' }),
      fc.nat(3000),
      (changes, first) => {
        const native = new Map(Array.from({ length: first }, (_, key): [number, string] => [key * 4, 'at first']));
        let map = new LayeredMap<number, string>(new Map(native));
        const versions: [LayeredMap<number, string>, Map<number, string>][] = [];
        changes.forEach((one, at) => {
          if (at % 1500 === 0) versions.push([map, new Map(native)]);
          map = changed(map, one);
          if (one.value === null) native.delete(one.key);
          else native.set(one.key, one.value);
        });
        versions.push([map, native]);
        const keys = Array.from({ length: 12_001 }, (_, key) => key);
        for (const [version, then] of versions) expect(said(version, keys)).toEqual(expected(then, keys));
      },
    ),
    { numRuns: 5 },
  );
});

test('many changes at once give what they give one by one', () => {
  const change = fc.record({
    key: fc.integer({ min: 0, max: 200 }),
    value: fc.option(fc.constantFrom('a', 'b', 'c'), { freq: 3 }),
  });
  const times = (most: number) => fc.array(change, { maxLength: most, size: 'max' });
  fc.assert(
    fc.property(times(300), times(300), (first, then) => {
      const map = first.reduce(changed, new LayeredMap<number, string>());
      const keys = Array.from({ length: 201 }, (_, key) => key);
      const before = said(map, keys);
      const atOnce = map.setAll(then.map(({ key, value }) => [key, value]));
      expect(said(atOnce, keys)).toEqual(said(then.reduce(changed, map), keys));
      expect(said(map, keys)).toEqual(before);
    }),
    { numRuns: 50 },
  );
});

test('what changes nothing gives the same map', () => {
  const map = new LayeredMap(new Map([[1, 'one']]));
  expect(map.set(1, 'one')).toBe(map);
  expect(map.delete(2)).toBe(map);
  expect(map.deleteAll([2, 3])).toBe(map);
  expect(
    map.setAll([
      [1, 'one'],
      [2, null],
    ]),
  ).toBe(map);
  expect(map.set(2, 'two').set(2, 'two').size).toBe(2);
});

test('what holds other things is not equal to it, so that tests of sites can fail', () => {
  const map = new LayeredMap(new Map([[1, 'one']]));
  expect({ map }).toEqual({ map: new LayeredMap<number, string>().set(1, 'one') });
  expect({ map }).not.toEqual({ map: map.set(1, 'uno') });
  expect({ map }).not.toEqual({ map: map.delete(1).set(2, 'one') });
});

test('some, every, find, count and forEach look at what is there, and at nothing that is gone', () => {
  const map = new LayeredMap(
    new Map([
      [1, 'one'],
      [2, 'two'],
    ]),
  )
    .set(3, 'three')
    .delete(2)
    .set(1, 'uno');
  const seen: [number, string][] = [];
  map.forEach((value, key) => seen.push([key, value]));
  expect(seen).toEqual([
    [1, 'uno'],
    [3, 'three'],
  ]);
  expect(map.some((value) => value === 'two')).toBe(false);
  expect(map.every((value) => value.length > 2)).toBe(true);
  expect(map.find((_, key) => key > 1)).toBe('three');
  expect(map.count((value) => value !== 'uno')).toBe(1);
});
