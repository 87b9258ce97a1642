import { forEachListed } from '../derive/listing.ts';
import type { MenuEntry } from '../derive/menu.ts';
import { menuTableOf } from '../derive/menu-table.ts';
import type { PageId } from '../model/ids.ts';
import type { PageCheck } from './page-check.ts';

/**
 * A page that visitors come upon only who know its address: it stands in no menu that a layout shows and in no list, no
 * link leads to it, and it is above no page that can be come upon, whose trail would lead up to it.
 */
export const noWay: PageCheck = ({ site, derived, read, textLinks }) => {
  const { outline, home, rowAt } = derived;
  const isReached = new Uint8Array(outline.nodes.length);
  const reach = (page: PageId) => {
    const row = outline.rowOf.get(page);
    if (row !== undefined) isReached[row] = 1;
  };
  if (home !== null) reach(home);
  const { menus, layouts, audiences } = site.settings;
  for (const { landing } of audiences) if (landing !== undefined) reach(landing);
  const placed = new Set(layouts.flatMap((layout) => Object.values(layout.menus)));
  const reachEntries = (entries: readonly MenuEntry[]) => {
    for (const entry of entries) {
      const row = entry.leadsTo === null ? undefined : rowAt.get(entry.leadsTo);
      if (row !== undefined) isReached[row] = 1;
      if (entry.page !== null) reach(entry.page);
      reachEntries(entry.entries);
    }
  };
  for (const menu of menus) {
    if (!placed.has(menu.id)) continue;
    const table = menuTableOf(site, menu);
    for (const section of table.sections) reachEntries(table.entries(section));
  }
  for (const row of read) forEachListed(row, derived, (listed) => (isReached[listed] = 1));
  for (const { to } of textLinks) reach(to);
  // A link of the tree leads on from wherever it can be come upon itself.
  for (const row of outline.aliases) {
    const { target } = outline.nodes[row]!;
    if (isReached[row] === 1 && target !== null && 'page' in target) reach(target.page);
  }
  const leadsUp = new Uint8Array(isReached.length);
  for (let row = isReached.length - 1; row > 0; row--) {
    const above = outline.parent[row]!;
    if (isReached[row] === 1 && outline.isPage[row] === 1) leadsUp[row] = 1;
    if (leadsUp[row] === 1 && above !== -1) isReached[above] = leadsUp[above] = 1;
  }
  return read.flatMap((row) => (isReached[row] === 1 ? [] : [{ row }]));
};
