import { describe, expect, it } from 'vitest';
import { layoutMap } from './map-layout.ts';
import { gatePath, mapRails, railEnd, railPath, smallRails } from './map-rails.ts';

/** The site with two sections, the second with two pages: 0 ─ 1, 2 ─ 3, 4. */
const shape = {
  parent: Int32Array.of(-1, 0, 0, 2, 2),
  width: Float64Array.of(80, 60, 100, 60, 60),
  height: Float64Array.of(30, 30, 30, 30, 30),
};
const across = layoutMap(shape, 'across');
const down = layoutMap(shape, 'down');
const live = { state: 'live' as const, isCovered: false, tint: -1 };

/** The points that the data of a path names, in order. */
const points = (path: string) => [...path.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map(([, x, y]) => [Number(x), Number(y)]);

describe('a rail of a map', () => {
  it.each([
    ['across', across],
    ['down', down],
  ] as const)('%s: leads from the node above to the node that it stands for', (_, layout) => {
    for (let index = 1; index < shape.parent.length; index++) {
      const drawn = points(railPath(layout, index));
      const [from, to] = [railEnd(layout, shape.parent[index]!), railEnd(layout, index)];
      expect(drawn[0]![0]).toBeCloseTo(from[0], 0);
      expect(drawn[0]![1]).toBeCloseTo(from[1], 0);
      expect(drawn.at(-1)![0]).toBeCloseTo(to[0], 0);
      expect(drawn.at(-1)![1]).toBeCloseTo(to[1], 0);
    }
  });

  it('runs straight where nothing stands aside', () => {
    const alone = layoutMap(
      { parent: Int32Array.of(-1, 0), width: Float64Array.of(50, 50), height: Float64Array.of(30, 30) },
      'across',
    );
    expect(railPath(alone, 1)).toMatch(/^M[\d. ]+L[\d. ]+$/);
  });
});

describe('the rails of a map', () => {
  it('are one path for each look, what is live drawn last', () => {
    const looks = [
      live,
      live,
      { state: 'draft' as const, isCovered: false, tint: -1 },
      live,
      { state: 'live' as const, isCovered: true, tint: -1 },
    ];
    const rails = mapRails(across, (index) => looks[index]!);
    expect(rails.map(({ state, isCovered }) => `${state} ${isCovered}`)).toEqual([
      'draft false',
      'live true',
      'live false',
    ]);
    expect(rails.at(-1)!.path.match(/M/g)).toHaveLength(2);
  });

  it('are parted by the audience that passes', () => {
    const rails = mapRails(across, (index) => ({ ...live, tint: index > 2 ? 1 : -1 }));
    expect(rails.map(({ tint, path }) => [tint, path.match(/M/g)!.length])).toEqual([
      [-1, 2],
      [1, 2],
    ]);
  });

  it.each([
    ['across', across],
    ['down', down],
  ] as const)('%s: have their gate across the rail, before the node', (_, layout) => {
    const [x, y] = railEnd(layout, 2);
    const bars = points(gatePath(layout, 2));
    expect(bars).toHaveLength(4);
    for (const [barX, barY] of bars) {
      const [along, aside] = layout === across ? [x - barX!, Math.abs(barY! - y)] : [y - barY!, Math.abs(barX! - x)];
      expect(along).toBeGreaterThan(0);
      expect(along).toBeLessThan(24);
      expect(aside).toBeCloseTo(5, 0);
    }
  });

  it('leave out what does not touch the part that is seen', () => {
    const all = mapRails(across, () => live)[0]!.path.match(/M/g);
    expect(all).toHaveLength(4);
    const [x, y] = railEnd(across, 3);
    const near = mapRails(across, () => live, { area: { left: x - 1, top: y - 1, right: x + 1, bottom: y + 1 } });
    expect(near[0]!.path.match(/M/g)!.length).toBeLessThan(4);
    expect(mapRails(across, () => live, { area: { left: -99, top: -99, right: -98, bottom: -98 } })).toEqual([]);
  });

  it.each(['across', 'down'] as const)(
    '%s: are cut at the edges of what is seen, and show there what they show whole',
    (direction) => {
      // Two hundred pages below one: all rails of those further down run through the window along one trunk.
      const count = 202;
      const wide = {
        parent: Int32Array.from({ length: count }, (_, index) => (index === 0 ? -1 : index === 1 ? 0 : 1)),
        width: new Float64Array(count).fill(60),
        height: new Float64Array(count).fill(30),
      };
      const layout = layoutMap(wide, direction);
      const [x, y] = railEnd(layout, 150);
      const area = { left: x - 70, top: y - 70, right: x + 70, bottom: y + 70 };
      const [whole] = mapRails(layout, () => live);
      const [seen] = mapRails(layout, () => live, { area });
      expect(whole!.path.match(/M/g)).toHaveLength(count - 1);
      // Those of the pages in the window, and one trunk for all beyond it.
      expect(seen!.path.match(/M/g)!.length).toBeLessThan(8);
      const isSeen = ([px, py]: (number | undefined)[]) =>
        px! >= area.left && px! <= area.right && py! >= area.top && py! <= area.bottom;
      const drawn = (path: string) => new Set(points(path).filter(isSeen).map(String));
      expect(drawn(seen!.path)).toEqual(drawn(whole!.path));
      const furthest = points(seen!.path).map(([px, py]) => (direction === 'across' ? py! : px!));
      const [low, high] = direction === 'across' ? [area.top, area.bottom] : [area.left, area.right];
      expect(Math.max(...furthest)).toBeCloseTo(high + 18, 0);
      expect(Math.min(...furthest)).toBeCloseTo(low - 18, 0);
    },
  );

  it('go on through their nodes where these are not drawn', () => {
    const [rail] = mapRails(across, () => live, { runsThrough: true });
    expect(rail!.path).toContain('h60');
    expect(mapRails(down, () => live, { runsThrough: true })[0]!.path).toContain('v30');
  });
});

describe('the rails of a small map', () => {
  /** The strokes of a path of right angles, as the points that each leads through. */
  const strokes = (path: string) =>
    path
      .split('M')
      .slice(1)
      .map((stroke) => {
        let [x, y] = /^-?\d+ -?\d+/.exec(stroke)![0].split(' ').map(Number) as [number, number];
        const through: [number, number][] = [[x, y]];
        for (const [, way, to] of stroke.matchAll(/([HV])(-?\d+)/g)) {
          if (way === 'H') x = Number(to);
          else y = Number(to);
          through.push([x, y]);
        }
        return through;
      });

  it.each([
    ['across', across],
    ['down', down],
  ] as const)('%s: lead from the node above through the node, in whole pixels', (direction, layout) => {
    const scale = 0.5;
    const drawn = strokes(smallRails(layout, scale));
    expect(drawn).toHaveLength(4);
    drawn.forEach((stroke, at) => {
      const index = at + 1;
      const near = ([x, y]: readonly number[]) => [Math.round(x! * scale), Math.round(y! * scale)];
      expect(stroke[0]).toEqual(near(railEnd(layout, shape.parent[index]!)));
      const [x, y] = railEnd(layout, index);
      const end = direction === 'across' ? [x + shape.width[index]!, y] : [x, y + shape.height[index]!];
      expect(stroke.at(-1)).toEqual(near(end));
    });
  });

  it('are drawn once where they fall on the same pixels', () => {
    expect(strokes(smallRails(across, 0.001))).toHaveLength(1);
  });
});
