import { type Mock, beforeEach, describe, expect, it, vi } from 'vitest';
import { visibleRows } from '#core/derive/visible-rows.ts';
import { siteOf, stroke, workbenchFor } from '../testing/workbench-for-keys.ts';
import { Items } from './items.ts';
import { type TreeKeys, treeKey } from './tree-keys.ts';

const SITE = siteOf(['home', 'courses', '  long', '  short', '    oars', 'visit']);
let column: number;
let press: Mock<TreeKeys['press']>;
let tree: ReturnType<typeof workbenchFor>;
const start = (active: string | null, open: string[] = ['courses']) => (tree = workbenchFor(SITE, active, open));
beforeEach(() => {
  column = -1;
  press = vi.fn();
  start('courses');
});

/** Presses keys, one after the other; each sees what the ones before have done. */
function keys(...strokes: (string | Parameters<typeof stroke>)[]): boolean[] {
  return strokes.map((one) => {
    const workbench = tree.workbench();
    const { outline } = workbench.derived;
    const items = new Items(outline, visibleRows(outline, workbench.open));
    return treeKey(typeof one === 'string' ? stroke(one) : stroke(...one), {
      workbench,
      items,
      columnCount: 3,
      column,
      setColumn: (next) => void (column = next),
      page: 3,
      press,
    });
  });
}
const active = () => tree.state.selection.active;
const chosen = () => [...tree.state.selection.chosen].sort();

describe('the arrow keys', () => {
  it('go from row to row as these show, and stop at the ends', () => {
    keys('ArrowDown');
    expect(active()).toBe('long');
    keys('ArrowDown', 'ArrowDown', 'ArrowDown', 'ArrowDown');
    expect(active()).toBe('visit');
    keys('Home', 'ArrowUp');
    expect(active()).toBe('home');
    keys('End');
    expect(active()).toBe('visit');
    keys('PageUp');
    expect(active()).toBe('courses');
  });

  it('open a branch, then go along its columns, and back the same way', () => {
    start('short');
    keys('ArrowRight');
    expect(tree.state.open.has('short' as never)).toBe(true);
    keys('ArrowRight', 'ArrowRight');
    expect(column).toBe(1);
    keys('ArrowRight', 'ArrowRight', 'ArrowRight', 'ArrowRight');
    expect(column).toBe(3);
    keys('ArrowLeft', 'ArrowLeft', 'ArrowLeft', 'ArrowLeft');
    expect(column).toBe(-1);
    keys('ArrowLeft');
    expect(tree.state.open.has('short' as never)).toBe(false);
    keys('ArrowLeft');
    expect(active()).toBe('courses');
  });

  it('select more with Shift, from where the range began', () => {
    keys(['ArrowDown', { shiftKey: true }], ['ArrowDown', { shiftKey: true }]);
    expect(chosen()).toEqual(['courses', 'long', 'short']);
    keys(['ArrowUp', { shiftKey: true }]);
    expect(chosen()).toEqual(['courses', 'long']);
    keys(['ArrowUp', { shiftKey: true }], ['ArrowUp', { shiftKey: true }]);
    expect(chosen()).toEqual(['courses', 'home']);
    keys('ArrowDown');
    expect(chosen()).toEqual(['courses']);
  });
});

describe('the other keys of the tree', () => {
  it('Space takes a row in and out; in a column it presses what is there, as Enter does', () => {
    keys(' ');
    expect(chosen()).toEqual([]);
    keys(' ');
    expect(chosen()).toEqual(['courses']);
    column = 2;
    keys(' ', 'Enter');
    expect(press.mock.calls).toEqual([
      ['courses', 2],
      ['courses', 2],
    ]);
  });

  it('Enter on the row itself renames', () => {
    keys('Enter');
    expect(tree.calls.run).toHaveBeenCalledWith('rename');
  });

  it('Ctrl+A selects all rows that show, and no other', () => {
    keys(['a', { ctrlKey: true }]);
    expect(chosen()).toEqual(['courses', 'home', 'long', 'short', 'visit']);
  });

  it('Escape lets go of what was cut before it shows the whole tree again', () => {
    const workbench = { ...tree.workbench(), cut: new Set(['long']), found: { rows: [], matches: new Set() } };
    const escape = (of: typeof workbench) =>
      treeKey(stroke('Escape'), {
        workbench: of as never,
        items: new Items(workbench.derived.outline, []),
        columnCount: 0,
        column: -1,
        setColumn: () => undefined,
        page: 1,
        press,
      });
    escape(workbench);
    expect([tree.calls.forgetClip.mock.calls.length, tree.calls.clearFind.mock.calls.length]).toEqual([1, 0]);
    escape({ ...workbench, cut: new Set() });
    expect(tree.calls.clearFind).toHaveBeenCalledOnce();
  });

  it('leaves every other key to the workbench', () => {
    expect(keys('n', ']', 'F2', ['ArrowUp', { ctrlKey: true }], ['ArrowDown', { altKey: true }])).toEqual(
      Array(5).fill(false),
    );
    expect(keys('ArrowDown', 'Home', ' ', 'Escape')).toEqual(Array(4).fill(true));
  });
});
