import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { derivedOf } from '../derive/derived.ts';
import { toPageId } from '../model/ids.ts';
import { applyOperation } from '../operations/apply.ts';
import { anySite, anyStep, drawEdit, siteAfter } from '../testing/random-site.ts';
import { type MapMade, type MapNode, type Measure, breakTitle, mapNodes, sameShape, shapeOf } from './map-nodes.ts';

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

  it('are those that are made anew, whichever of those before can be taken', () =>
    holds(
      fc.property(
        anySite,
        fc.array(fc.tuple(anyStep, fc.constantFrom(2, 3, 1000)), { maxLength: 12, size: 'max' }),
        (start, steps) => {
          let site = start;
          let before: MapMade | null = null;
          for (const [next, levels] of steps) {
            const outcome = applyOperation(site, drawEdit(site, next));
            if (outcome.ok) site = outcome.site;
            const derived = derivedOf(site);
            const { outline } = derived;
            const rows = [...outline.nodes.keys()].filter((row) => outline.depth[row]! < levels);
            const noteOf = (row: number) => {
              const { plan } = outline.nodes[row]!;
              return plan === null ? null : { origin: null, words: plan.owner };
            };
            const asked = { site, derived, rows, marks: null, noteOf, adding: null, measure };
            const nodes: MapNode[] = mapNodes(asked, before);
            expect(nodes).toEqual(mapNodes(asked));
            before = { asked, nodes };
          }
        },
      ),
      { numRuns: 60 },
    ));

  it('are the same objects but for a page that has another title', () => {
    const start = siteAfter(
      ['home', 'courses', 'visit'].map((id) => ({
        name: 'page.add' as const,
        page: toPageId(id),
        place: { parent: null },
        title: { en: id },
      })),
    );
    const site = siteAfter(
      [{ name: 'page.set', page: toPageId('courses'), fields: { title: { en: 'All courses' } } }],
      start,
    );
    const asked = (of: typeof site) => ({
      site: of,
      derived: derivedOf(of),
      rows: [0, 1, 2],
      marks: null,
      adding: null,
      measure,
    });
    const before = { asked: asked(start), nodes: mapNodes(asked(start)) };
    const nodes = mapNodes(asked(site), before);
    expect(nodes.map((node) => before.nodes.includes(node))).toEqual([false, true, false, true]);
    expect(nodes[2]!.lines).toEqual(['All courses']);
  });

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
