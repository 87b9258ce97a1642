import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { derivedOf } from '../derive/derived.ts';
import { anySite } from '../testing/random-site.ts';
import { type Measure, breakTitle, mapNodes, sameShape, shapeOf } from './map-nodes.ts';

const measure: Measure = (text, type) => [...text].length * (type === 'title' ? 7 : 6);

describe('the nodes of a map', () => {
  it('are the site and every row that shows, each below the one that it stands under', () =>
    holds(
      fc.property(anySite, (site) => {
        const derived = derivedOf(site);
        const { outline } = derived;
        const rows = outline.nodes.map((_, row) => row);
        const nodes = mapNodes({ site, derived, rows, marks: null, adding: null, measure });
        expect(nodes.slice(1).map((node) => node.row)).toEqual(rows);
        for (const node of nodes.slice(1)) expect(nodes[node.parent]!.row).toBe(outline.parent[node.row]);
        expect(nodes.slice(1).map((node) => node.number.split('.').length - 1)).toEqual([...outline.depth]);
      }),
      { numRuns: 100 },
    ));

  it('have a page that is typed right where it will stand', () =>
    holds(
      fc.property(anySite, fc.nat(), (site, pick) => {
        const derived = derivedOf(site);
        const { outline } = derived;
        fc.pre(outline.nodes.length > 0);
        const row = pick % outline.nodes.length;
        const node = outline.nodes[row]!;
        const rows = outline.nodes.map((_, at) => at);
        const nodes = mapNodes({
          site,
          derived,
          rows,
          marks: null,
          adding: { parent: node.parent, after: node.id },
          measure,
        });
        const at = nodes.findIndex((one) => one.kind === 'new');
        expect(nodes[nodes[at]!.parent]!.page).toBe(node.parent);
        expect(nodes.slice(0, at).some((one) => one.page === node.id)).toBe(true);
        expect(nodes.slice(at + 1).every((one) => one.row >= outline.end[row]!)).toBe(true);
      }),
      { numRuns: 100 },
    ));

  it('have the same shape again only where nothing is laid out anew', () => {
    const shape = shapeOf([
      {
        row: -1,
        page: null,
        kind: 'site',
        parent: -1,
        number: '',
        lines: ['A'],
        mark: null,
        note: null,
        width: 30,
        height: 30,
        textLeft: 9,
      },
    ]);
    expect(sameShape(shape, { ...shape, width: Float64Array.of(30) })).toBe(true);
    expect(sameShape(shape, { ...shape, width: Float64Array.of(31) })).toBe(false);
  });
});

describe('a title in a map', () => {
  it.each([
    ['Courses', ['Courses']],
    ['A course for people who have never held a plane', ['A course for people who have', 'never held a plane']],
    ['W'.repeat(60), [`${'W'.repeat(27)}…`]],
  ])('%s', (title, lines) => expect(breakTitle(title, measure)).toEqual(lines));

  it('never is wider than a line, nor longer than two', () =>
    holds(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 200 }), (title) => {
        const lines = breakTitle(title, measure);
        expect(lines.length).toBeLessThanOrEqual(2);
        for (const line of lines) expect(measure(line, 'title')).toBeLessThanOrEqual(196);
      }),
    ));
});
