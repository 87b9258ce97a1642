import { forEachListed } from '../derive/listing.ts';
import type { MenuEntry } from '../derive/menu.ts';
import { menuTableOf } from '../derive/menu-table.ts';
import type { PageId } from '../model/ids.ts';
import { type PageCheck, rowsThatLack } from './page-check.ts';

/**
 * A page that only those come upon who know its address. Visitors begin at the home page, at the landing page of an audience, or
 * with a menu that a layout shows; from each page on they go by what it lists, the links in its text, and its trail.
 */
export const noWay: PageCheck = {
  called: 'Nothing leads there',
  words: () => 'No menu, list or text leads to it. Put it in menus, or link to it.',
  *find({ site, derived, read, textLinks }) {
    const { outline, home, rowAt } = derived;
    const { menus, layouts, audiences } = site.settings;
    const isReached = new Uint8Array(outline.nodes.length);
    const waiting: number[] = [];
    const reachRow = (row: number | undefined) => {
      if (row === undefined || isReached[row] === 1) return;
      isReached[row] = 1;
      waiting.push(row);
    };
    const reach = (page: PageId | null | undefined) => reachRow(page ? outline.rowOf.get(page) : undefined);
    const reachEntries = (entries: readonly MenuEntry[]) => {
      for (const { page, leadsTo, entries: below } of entries) {
        reach(page);
        // A heading may lead to the first page below it.
        reachRow(rowAt.get(leadsTo ?? ''));
        reachEntries(below);
      }
    };

    reach(home);
    for (const { landing } of audiences) reach(landing);
    const placed = new Set(layouts.flatMap((layout) => Object.values(layout.menus)));
    for (const menu of menus) {
      if (!placed.has(menu.id)) continue;
      const table = menuTableOf(site, menu);
      for (const section of table.sections) reachEntries(table.entries(section));
    }
    yield null;
    const linksOf = new Map<PageId, PageId[]>();
    for (const { page, to } of textLinks) {
      const links = linksOf.get(page);
      if (links) links.push(to);
      else linksOf.set(page, [to]);
    }
    const isRead = new Uint8Array(outline.nodes.length);
    for (const row of read) isRead[row] = 1;
    let looked = 0;
    for (let row = waiting.pop(); row !== undefined; row = waiting.pop()) {
      if (++looked % 500 === 0) yield null;
      const { id, target } = outline.nodes[row]!;
      if (target !== null && 'page' in target) reach(target.page);
      if (isRead[row] === 0) continue;
      forEachListed(row, derived, reachRow);
      for (const to of linksOf.get(id) ?? []) reach(to);
      for (let up = outline.parent[row]!; up !== -1; up = outline.parent[up]!) reachRow(up);
    }
    yield* rowsThatLack(read, (row) => isReached[row] === 0);
  },
};
