import fc from 'fast-check';
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { derivedOf } from '../derive/derived.ts';
import { layoutMap } from '../drawing/map-layout.ts';
import { mapNodes, shapeOf } from '../drawing/map-nodes.ts';
import { mapPicture } from '../drawing/map-picture.ts';
import { toPageId } from '../model/ids.ts';
import { siteAfter } from '../testing/random-site.ts';
import { writeSvg } from './svg-picture.ts';

function svgOf(titles: readonly string[], direction: 'across' | 'down' = 'across'): string {
  const site = siteAfter(
    titles.map((title, at) => ({
      name: 'page.add' as const,
      page: toPageId(`p${at}`),
      place: { parent: at === 0 ? null : toPageId(`p${at - 1}`) },
      title: { en: title },
    })),
  );
  const derived = derivedOf(site);
  const rows = derived.outline.nodes.map((_, row) => row);
  const nodes = mapNodes({ site, derived, rows, marks: null, adding: null, measure: (text) => text.length * 7 });
  const layout = layoutMap(shapeOf(nodes), direction);
  const signs = {
    state: 'draft' as const,
    isCovered: false,
    tint: -1,
    hasGate: false,
    inMenus: true,
    hidesItself: true,
    isHome: true,
    isLink: true,
    isHeading: true,
    closed: 3,
  };
  return writeSvg(
    mapPicture(nodes, layout, () => signs, null),
    { title: titles.join(), date: '1 May 2026', fontCss: '' },
  );
}

describe('a map as SVG', () => {
  it('holds the titles, the numbers and the date', () => {
    const svg = svgOf(['Courses', 'Long courses']);
    for (const words of ['>Courses<', '>Long courses<', '>1.1<', '>1 May 2026<', '>+3<']) expect(svg).toContain(words);
  });

  it('is well formed whatever titles say, and nothing in them is markup', () =>
    holds(
      fc.property(
        fc.array(
          fc.string({ unit: 'binary', minLength: 1, maxLength: 40 }).filter((text) => text.trim() !== ''),
          {
            minLength: 1,
            maxLength: 4,
          },
        ),
        fc.constantFrom('across' as const, 'down' as const),
        (titles, direction) => {
          const svg = svgOf([...titles, '<script>alert(1)</script>&"'], direction);
          expect(XMLValidator.validate(svg)).toBe(true);
          const names = JSON.stringify(new XMLParser().parse(svg));
          expect(names).not.toContain('"script":');
        },
      ),
      { numRuns: 100 },
    ));
});
