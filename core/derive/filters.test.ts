import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { toPageId } from '../model/ids.ts';
import { IDS, anySite, siteAfter } from '../testing/random-site.ts';
import { derivedOf } from './derived.ts';
import { COMMON_FILTERS, type FilterFacts, filterRows, prepareFind, readFilter } from './filters.ts';
import { layoutOf } from './layouts.ts';
import { numbersOf } from './numbering.ts';
import { findRows } from './visible-rows.ts';

const facts = (site: FilterFacts['site'], more: Partial<FilterFacts> = {}): FilterFacts => ({
  site,
  derived: derivedOf(site),
  changes: null,
  texts: null,
  feedback: null,
  faults: null,
  moment: null,
  ...more,
});
const one = (key: string) => COMMON_FILTERS.find((field) => field.key === key)!;

describe('filters', () => {
  it('of one field split the tree: each row matches exactly one value', () => {
    holds(
      fc.property(anySite, fc.constantFrom('state', 'menus', 'hidden', 'type'), (site, key) => {
        const rows = one(key).values!.flatMap(({ value }) => [
          ...filterRows(facts(site), COMMON_FILTERS, { query: '', filter: { [key]: [value] } }).matches,
        ]);
        expect(rows.sort((a, b) => a - b)).toEqual(derivedOf(site).outline.nodes.map((_, row) => row));
      }),
      { numRuns: 100 },
    );
  });
  it('by kind and by layout split the pages, in every lens', () => {
    holds(
      fc.property(anySite, fc.constantFrom('kind', 'layout'), (site, key) => {
        const of = facts(site);
        const { nodes } = of.derived.outline;
        const rows = one(key).valuesOf!(of).flatMap(({ value }) =>
          nodes.flatMap((_, row) => (one(key).matches(of, row, value) ? [row] : [])),
        );
        expect(rows.sort((a, b) => a - b)).toEqual(nodes.flatMap(({ type }, row) => (type === 'page' ? [row] : [])));
        for (const row of rows)
          if (key === 'layout') expect(one(key).matches(of, row, layoutOf(site, nodes[row]!.id).id)).toBe(true);
      }),
      { numRuns: 100 },
    );
  });
  it('of several fields hold together, and bring what stands above as context', () => {
    holds(
      fc.property(anySite, (site) => {
        const of = facts(site);
        const both = filterRows(of, COMMON_FILTERS, { query: '', filter: { menus: ['yes'], type: ['page'] } });
        for (const row of both.matches) {
          expect(one('menus').matches(of, row, 'yes') && one('type').matches(of, row, 'page')).toBe(true);
          for (let at = row; at !== -1; at = of.derived.outline.parent[at]!) expect(both.rows).toContain(at);
        }
      }),
      { numRuns: 100 },
    );
  });
  it('find words in titles as finding by title does, and in addresses and texts besides', () => {
    holds(
      fc.property(anySite, fc.constantFrom('courses', 'OKO', 'zz'), fc.subarray([...IDS]), (site, query, inText) => {
        const of = facts(site, { texts: new Set(inText) });
        const found = filterRows(of, COMMON_FILTERS, { query, filter: {} }).matches;
        for (const row of findRows(site, of.derived.outline, query).matches) expect(found).toContain(row);
        for (const id of inText)
          if (of.derived.outline.rowOf.has(id)) expect(found).toContain(of.derived.outline.rowOf.get(id));
      }),
      { numRuns: 100 },
    );
  });
  it('by who changed a page and since when look at its last change', () => {
    holds(
      fc.property(anySite, (site) => {
        const [page] = derivedOf(site).outline.nodes;
        if (!page) return;
        const changes = new Map([[page.id, { by: 'Bram', at: '2026-11-20T10:00:00.000Z' }]]);
        const count = (filter: Record<string, string[]>) =>
          filterRows(facts(site, { changes }), COMMON_FILTERS, { query: '', filter }).matches.size;
        expect(count({ by: ['Bram'] })).toBe(1);
        expect(count({ by: ['Ines'] })).toBe(0);
        expect(count({ since: ['2026-11-20'] })).toBe(1);
        expect(count({ since: ['2026-11-21'] })).toBe(0);
      }),
      { numRuns: 20 },
    );
  });
  it('are read from an address as far as they are known', () => {
    const parameters: Record<string, string> = {
      state: 'draft,nonsense,edited',
      type: 'nonsense',
      other: 'x',
      by: 'Ines',
    };
    expect(readFilter((key) => parameters[key] ?? null, COMMON_FILTERS)).toEqual({
      state: ['draft', 'edited'],
      by: ['Ines'],
    });
  });
});

describe('making ready for finding', () => {
  it('goes on where its time was up, and is over after the last row', () => {
    const site = siteAfter(
      Array.from({ length: 200 }, (_, n) => ({
        name: 'page.add' as const,
        page: toPageId(`n${n}`),
        place: { parent: null },
        title: { en: `Page ${n}` },
      })),
    );
    const derived = derivedOf(site);
    const stops: number[] = [];
    for (let at: number | null = 0; at !== null;) {
      at = prepareFind(site, derived, at, () => true);
      if (at !== null) stops.push(at);
    }
    expect(stops).toEqual([64, 128, 192]);
    expect(prepareFind(site, derived, 0, () => false)).toBeNull();
  });
});

describe('numbers in reading order', () => {
  it('are unique, and each begins with the number of the page above', () => {
    holds(
      fc.property(anySite, (site) => {
        const { outline } = derivedOf(site);
        const numbers = numbersOf(outline);
        expect(new Set(numbers).size).toBe(outline.nodes.length);
        numbers.forEach((number, row) => {
          const above = outline.parent[row]!;
          expect(number.replace(/\.?\d+$/, '')).toBe(above === -1 ? '' : numbers[above]);
        });
      }),
      { numRuns: 100 },
    );
  });
});
