import { describe, expect, it } from 'vitest';
import { derivedOf } from '#core/derive/derived.ts';
import { layoutMap } from '#core/drawing/map-layout.ts';
import { smallMap } from '#core/drawing/minimap.ts';
import { mapNodes, shapeOf } from '#core/drawing/map-nodes.ts';
import { toPageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { siteAfter } from '#core/testing/random-site.ts';
import { siteOf, workbenchFor } from '../testing/workbench-for-keys.ts';
import { type NodeData, nodeData, nodeWords, sameNode } from './node-data.ts';

const SITE = siteOf(['Home', 'Courses', '  Long', '  Short']);

function drawnOf(site: Site) {
  const derived = derivedOf(site);
  const rows = derived.outline.nodes.map((_, row) => row);
  const nodes = mapNodes({ site, derived, rows, marks: null, adding: null, measure: (text) => text.length * 7 });
  const layout = layoutMap(shapeOf(nodes), 'across');
  return { nodes, layout, small: smallMap(layout) };
}
const benchOf = (site: Site, open: string[] = []) =>
  ({ ...workbenchFor(site, 'Home', open).workbench(), editing: null, mayEdit: true }) as never;
const dataOf = (site: Site, page: string, open: string[] = []): NodeData => {
  const drawn = drawnOf(site);
  return nodeData(
    benchOf(site, open),
    drawn,
    drawn.nodes.findIndex((node) => node.page === page),
  )!;
};

describe('a node of the map', () => {
  it('is told in words: number, title, state, menus, and what is closed below it', () => {
    expect(nodeWords(dataOf(SITE, 'Home'), 'Home')).toBe('1 Home, home page, draft, in menus');
    expect(nodeWords(dataOf(SITE, 'Courses'), 'Courses')).toBe('2 Courses, draft, in menus, 2 pages below');
    expect(nodeWords(dataOf(SITE, 'Courses', ['Courses']), 'Courses')).toBe('2 Courses, draft, in menus');
    const hidden = siteAfter(
      [{ name: 'page.set', page: toPageId('Long'), fields: { hidden: 'page', inMenus: false } }],
      SITE,
    );
    expect(nodeWords(dataOf(hidden, 'Long'), 'Long')).toBe('2.1 Long, draft, off menus, hidden');
  });

  it('says that it is marked, and why', () => {
    const marked = {
      ...(benchOf(SITE) as object),
      marks: { name: 'Handbook', words: new Map([['Long', 'by itself']]), isFaint: () => true },
    } as never;
    const data = (page: string) => {
      const drawn = drawnOf(SITE);
      return nodeData(
        marked,
        drawn,
        drawn.nodes.findIndex((node) => node.page === page),
      )!;
    };
    expect(nodeWords(data('Long'), 'Long')).toBe('2.1 Long, draft, in menus, by itself');
    expect([data('Long').mark, data('Home').mark]).toEqual(['faint', 'none']);
    expect(nodeWords(data('Home'), 'Home')).toBe('1 Home, home page, draft, in menus');
  });

  it('is none for the site itself, nor for a page that is not there any more', () => {
    const drawn = drawnOf(SITE);
    expect(nodeData(benchOf(SITE), drawn, 0)).toBeNull();
    const without = siteAfter([{ name: 'page.remove', page: toPageId('Short') }], SITE);
    expect(
      nodeData(
        benchOf(without),
        drawn,
        drawn.nodes.findIndex((node) => node.page === 'Short'),
      ),
    ).toBeNull();
  });

  it('looks the same while nothing of it has changed, and other where its sign or title has', () => {
    expect(sameNode(dataOf(SITE, 'Long'), dataOf(SITE, 'Long'))).toBe(true);
    for (const fields of [{ inMenus: false }, { hidden: 'page' as const }, { title: { en: 'Longest' } }]) {
      const changed = siteAfter([{ name: 'page.set', page: toPageId('Long'), fields }], SITE);
      expect(sameNode(dataOf(SITE, 'Long'), dataOf(changed, 'Long'))).toBe(false);
    }
  });
});
