import { describe, expect, it, vi } from 'vitest';
import { derivedOf } from '#core/derive/derived.ts';
import { toPageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import type { Operation } from '#core/operations/operation.ts';
import { siteAfter } from '#core/testing/random-site.ts';
import { siteOf, workbenchFor } from '../testing/workbench-for-keys.ts';
import type { Column } from './columns.tsx';

vi.mock('./columns.tsx', () => ({}));
const { rowData, sameRow } = await import('./row-data.ts');

const SITE = siteOf(['Home', 'Courses', '  Long', '  Short', '    Oars', 'Visit']);
const OPEN = ['Courses', 'Short'];
const address: Column = {
  key: 'address',
  name: 'Address',
  width: 100,
  values: ({ derived }, row) => [derived.addresses[row]!],
  cell: () => null,
};
const COLUMNS = [address];

function rowsOf(site: Site, more: object = {}) {
  const workbench = {
    ...workbenchFor(site, 'Home', OPEN).workbench(),
    editing: null,
    past: null,
    isFlat: false,
    mayEdit: true,
    ...more,
  };
  return derivedOf(site).outline.nodes.map((node, row) => ({
    title: node.id as string,
    data: rowData(workbench as never, COLUMNS, { row, isContext: false }, row, -1),
  }));
}

/** The rows that an operation makes look different. */
function changedBy(...operations: Operation[]): string[] {
  const before = rowsOf(SITE);
  const after = rowsOf(siteAfter(operations, SITE));
  return after.filter(({ data }, row) => !before[row] || !sameRow(before[row].data, data)).map(({ title }) => title);
}
const set = (page: string, fields: Extract<Operation, { name: 'page.set' }>['fields']): Operation => ({
  name: 'page.set',
  page: toPageId(page),
  fields,
});

describe('what a row shows', () => {
  it('is the same again while nothing has changed', () => {
    const [first, second] = [rowsOf(SITE), rowsOf(SITE)];
    first.forEach(({ data }, row) => expect(sameRow(data, second[row]!.data)).toBe(true));
  });

  it('changes for a page that is renamed, and for those whose address that changes, and for no other', () => {
    expect(changedBy(set('Long', { title: { en: 'Longer' } }))).toEqual(['Long']);
    expect(changedBy(set('Short', { title: { en: 'Shorter' } }))).toEqual(['Short', 'Oars']);
  });

  it('changes for all below a branch that is hidden, whose rails turn grey', () =>
    expect(changedBy(set('Courses', { hidden: 'branch' }))).toEqual(
      expect.arrayContaining(['Courses', 'Long', 'Oars']),
    ));

  it('says the place among siblings, what is open, and what is selected', () => {
    const of = Object.fromEntries(rowsOf(SITE).map(({ title, data }) => [title, data]));
    expect(of.Short).toMatchObject({ place: 2, count: 2, hasBelow: true, isOpen: true, isChosen: false });
    expect(of.Oars).toMatchObject({ place: 1, count: 1, hasBelow: false, isOpen: false });
    expect(of.Home).toMatchObject({ isHome: true, isChosen: true, isActive: true });
    expect(of.Visit!.rails.depth).toBe(0);
  });

  it('says what was cut, and which rows are marked', () => {
    const of = Object.fromEntries(
      rowsOf(SITE, {
        cut: new Set(['Long']),
        marks: { name: 'Since then', words: new Map([['Visit', 'gone since']]) },
      }).map(({ title, data }) => [title, data]),
    );
    expect([of.Long!.isCut, of.Short!.isCut]).toEqual([true, false]);
    expect([of.Visit!.mark, of.Home!.mark]).toEqual(['full', 'none']);
  });
});
