import { describe, expect, it } from 'vitest';
import { outlineOf } from '#core/derive/outline.ts';
import { toPageId } from '#core/model/ids.ts';
import { siteOf } from '../testing/workbench-for-keys.ts';
import { Items } from './items.ts';

const outline = outlineOf(siteOf(['home', 'courses', '  long', '  short', 'visit']));
const ROWS = [0, 1, 4];

describe('the rows of the sheet', () => {
  it('are the rows that show, each with its page', () => {
    const items = new Items(outline, ROWS);
    expect(items.length).toBe(3);
    expect([0, 1, 2, 3].map((index) => items.pageAt(index))).toEqual(['home', 'courses', 'visit', null]);
    expect(items.indexOf(toPageId('visit'))).toBe(2);
    expect(items.indexOf(toPageId('long'))).toBe(-1);
    expect(items.pages()).toEqual(['home', 'courses', 'visit']);
    expect(items.pages(1, 2)).toEqual(['courses', 'visit']);
    expect(items.indexOfNew).toBe(-1);
  });

  it('have the row that is being typed among them, wherever it will stand', () => {
    for (const [before, index] of [
      [0, 0],
      [1, 1],
      // Below a page that is closed, and that shows no rows of its own.
      [2, 2],
      [4, 2],
      [5, 3],
    ] as const) {
      const items = new Items(outline, ROWS, null, { before, depth: 1 });
      expect(items.length).toBe(4);
      expect(items.indexOfNew).toBe(index);
      expect(items.at(index)).toEqual({ kind: 'new', depth: 1 });
      const others = [0, 1, 2, 3].filter((one) => one !== index);
      expect(others.map((one) => items.pageAt(one))).toEqual(['home', 'courses', 'visit']);
      expect(ROWS.map((row) => items.indexOfRow(row))).toEqual(others);
      expect(items.pages()).toEqual(['home', 'courses', 'visit']);
    }
  });

  it('say which of them show only for what stands below', () => {
    const items = new Items(outline, [1, 3], new Set([3]));
    expect([items.at(0), items.at(1)]).toEqual([
      { kind: 'node', row: 1, isContext: true },
      { kind: 'node', row: 3, isContext: false },
    ]);
  });
});
