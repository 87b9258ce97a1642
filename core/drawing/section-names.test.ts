import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { derivedOf } from '../derive/derived.ts';
import { anySite } from '../testing/random-site.ts';
import { layoutMap } from './map-layout.ts';
import { type Measure, mapNodes, shapeOf } from './map-nodes.ts';
import { NAME_SIZE, sectionNames } from './section-names.ts';

const measure: Measure = (text) => text.length * 7;
const everywhere = { left: -Infinity, top: -Infinity, right: Infinity, bottom: Infinity };

describe('the names on a map that is far away', () => {
  it('are of sections, the higher ones first, and none lies on another', () =>
    holds(
      fc.property(anySite, fc.constantFrom(0.4, 0.2, 0.05), (site, scale) => {
        const derived = derivedOf(site);
        const rows = derived.outline.nodes.map((_, row) => row);
        const nodes = mapNodes({ site, derived, rows, marks: null, adding: null, measure });
        const layout = layoutMap(shapeOf(nodes), 'across');
        const names = sectionNames(nodes, layout, scale, everywhere, measure);
        expect(names[0]?.index).toBe(0);
        for (const { index } of names) {
          const hasBelow = nodes.some((node) => node.parent === index);
          const isTop = index === 0 || nodes[index]!.parent === 0;
          expect(hasBelow || isTop).toBe(true);
        }
        const width = (text: string) => (measure(text, 'title') * NAME_SIZE) / 13 / scale;
        for (const [at, one] of names.entries())
          for (const other of names.slice(at + 1)) {
            const apart =
              Math.abs(one.y - other.y) >= NAME_SIZE / scale ||
              one.x + width(one.text) <= other.x ||
              other.x + width(other.text) <= one.x;
            expect(apart).toBe(true);
          }
      }),
      { numRuns: 100 },
    ));

  it('are only those of the part that is seen', () => {
    const nowhere = { left: -20, top: -20, right: -10, bottom: -10 };
    const nodes = [
      {
        row: -1,
        page: null,
        kind: 'site' as const,
        parent: -1,
        number: '',
        lines: ['Site'],
        mark: null,
        note: null,
        width: 60,
        height: 30,
        textLeft: 10,
      },
    ];
    const layout = layoutMap(shapeOf(nodes), 'down');
    expect(sectionNames(nodes, layout, 0.3, nowhere, measure)).toEqual([]);
    expect(sectionNames(nodes, layout, 0.3, everywhere, measure)).toHaveLength(1);
  });
});
