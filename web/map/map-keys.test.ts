import { beforeEach, describe, expect, it, vi } from 'vitest';
import { derivedOf } from '#core/derive/derived.ts';
import { visibleRows } from '#core/derive/visible-rows.ts';
import { type Direction, layoutMap } from '#core/drawing/map-layout.ts';
import { smallMap } from '#core/drawing/minimap.ts';
import { mapNodes, shapeOf } from '#core/drawing/map-nodes.ts';
import { siteOf, stroke, workbenchFor } from '../testing/workbench-for-keys.ts';
import { mapKey } from './map-keys.ts';

const SITE = siteOf(['home', 'courses', '  long', '  short', '    oars', 'visit', '  tours']);
const camera = { zoomBy: vi.fn(), fitAll: vi.fn(), fitBranch: vi.fn() };
let map: ReturnType<typeof workbenchFor>;
let direction: Direction;
beforeEach(() => {
  vi.clearAllMocks();
  direction = 'across';
  map = workbenchFor(SITE, 'courses', ['courses', 'visit']);
});

function keys(...strokes: (string | Parameters<typeof stroke>)[]): boolean[] {
  return strokes.map((one) => {
    const workbench = map.workbench();
    const derived = derivedOf(SITE);
    const nodes = mapNodes({
      site: SITE,
      derived,
      rows: visibleRows(derived.outline, workbench.open),
      marks: null,
      adding: null,
      measure: (text) => text.length * 7,
    });
    const layout = layoutMap(shapeOf(nodes), direction);
    const drawn = { nodes, layout, small: smallMap(layout) };
    return mapKey(typeof one === 'string' ? stroke(one) : stroke(...one), { workbench, drawn, ...camera });
  });
}
const active = () => map.state.selection.active;

describe('the arrow keys in the map', () => {
  it('lead up and down the tree and to the nodes beside, as they are drawn across', () => {
    keys('ArrowRight');
    expect(active()).toBe('long');
    keys('ArrowDown');
    expect(active()).toBe('short');
    // Beside on the same level, though under another page.
    keys('ArrowDown');
    expect(active()).toBe('tours');
    keys('ArrowLeft');
    expect(active()).toBe('visit');
    keys('ArrowUp', 'ArrowUp');
    expect(active()).toBe('home');
    keys('ArrowUp');
    expect(active()).toBe('home');
  });

  it('are turned where the map grows downwards', () => {
    direction = 'down';
    keys('ArrowDown');
    expect(active()).toBe('long');
    keys('ArrowRight', 'ArrowUp');
    expect(active()).toBe('courses');
  });

  it('open a closed branch before they go into it', () => {
    keys('ArrowRight', 'ArrowDown', 'ArrowRight');
    expect([active(), map.state.open.has('short' as never)]).toEqual(['short', true]);
    keys('ArrowRight');
    expect(active()).toBe('oars');
  });

  it('select more with Shift', () => {
    keys('ArrowRight', ['ArrowDown', { shiftKey: true }]);
    expect([...map.state.selection.chosen]).toEqual(['long', 'short']);
  });
});

describe('the other keys of the map', () => {
  it('open and close, come nearer and go farther, show all and the branch, rename', () => {
    keys(' ');
    expect(map.state.open.has('courses' as never)).toBe(false);
    keys(' ', '+', '-', '0', '.', 'Enter', 'Home');
    expect(map.state.open.has('courses' as never)).toBe(true);
    expect(camera.zoomBy.mock.calls.map(([factor]) => factor > 1)).toEqual([true, false]);
    expect(camera.fitAll).toHaveBeenCalledOnce();
    expect(camera.fitBranch).toHaveBeenCalledOnce();
    expect(map.calls.run).toHaveBeenCalledWith('rename');
    expect(active()).toBe('home');
  });

  it('are no others', () => expect(keys('n', 'x', ['ArrowDown', { ctrlKey: true }])).toEqual([false, false, false]));
});
