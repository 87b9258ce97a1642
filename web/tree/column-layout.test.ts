import { describe, expect, it, vi } from 'vitest';
import type { Column } from './columns.tsx';

vi.mock('./columns.tsx', () => ({ COLUMNS: {} }));
const { columnsWithRoom, tracksOf } = await import('./column-layout.ts');

const column = (key: string, width: number, more: Partial<Column> = {}): Column => ({
  key,
  name: key,
  width,
  values: () => [],
  cell: () => null,
  ...more,
});
const COLUMNS = [
  column('menus', 80),
  column('hidden', 120, { isMinor: true }),
  column('address', 200, { isMinor: true, grows: true }),
];
const FIRST = { order: [], hidden: [], widths: {} };
const keys = (room: number, widths: Record<string, number> = {}) =>
  columnsWithRoom(COLUMNS, { ...FIRST, widths }, room).map((one) => one.key);

describe('the columns of a sheet', () => {
  it.each([
    [900, ['menus', 'hidden', 'address']],
    [600, ['menus', 'hidden']],
    [390, ['menus']],
    [200, []],
  ])('of %i pixels: minor ones give way, the last ones first', (room, shown) => expect(keys(room)).toEqual(shown));

  it('count with the widths that the person chose, where the sheet is not narrow', () => {
    expect(keys(700, { address: 320 })).toEqual(['menus', 'hidden']);
    expect(keys(700, { address: 100 })).toEqual(['menus', 'hidden', 'address']);
    expect(keys(420, { menus: 600 })).toEqual(['menus', 'hidden']);
  });

  it('are one in a narrow sheet, where there are only such as do not give way', () => {
    const all = ['first', 'second', 'third'].map((key) => column(key, 100));
    const shown = (room: number) => columnsWithRoom(all, FIRST, room).map((one) => one.key);
    expect(shown(390)).toEqual(['first']);
    expect(shown(420)).toEqual(['first', 'second']);
    expect(shown(600)).toEqual(['first', 'second', 'third']);
  });

  it('are the same list where all have room', () => expect(columnsWithRoom(COLUMNS, FIRST, 2000)).toBe(COLUMNS));

  it('fill the sheet: by those that grow, or by room at the end where every width was chosen', () => {
    expect(tracksOf(COLUMNS, FIRST, 900)).toBe('minmax(0, 1.6fr) 80px 120px minmax(200px, 1fr)');
    expect(tracksOf(COLUMNS, { ...FIRST, widths: { title: 300, address: 180 } }, 900)).toBe(
      '300px 80px 120px 180px 1fr',
    );
    expect(tracksOf(COLUMNS.slice(0, 1), { ...FIRST, widths: { title: 300, menus: 99 } }, 390)).toBe(
      'minmax(208px, 1.6fr) minmax(0, 80px)',
    );
  });
});
