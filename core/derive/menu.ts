import type { PageId } from '../model/ids.ts';
import type { SiteNode } from '../model/node.ts';
import type { Site } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import { type Derived, derivedOf } from './derived.ts';

/** One entry of a menu. */
export interface MenuEntry {
  readonly page: PageId;
  readonly text: string;
  /** Where it leads: an address of the site (beginning with `/`), an outside address, or null for a heading. */
  readonly leadsTo: string | null;
  readonly entries: readonly MenuEntry[];
}

/** What menus and trails call a node: its menu label, or its title where it has none. */
export const labelOf = (site: Site, node: SiteNode): string =>
  textIn(node.label, site.settings.language) || textIn(node.title, site.settings.language);

/** Where a node leads a visitor; null for a heading, and for an alias of a page that is gone. */
export function leadsTo(derived: Derived, row: number): string | null {
  const node = derived.outline.nodes[row]!;
  if (node.type !== 'link') return derived.addresses[row]!;
  if (!node.target) return null;
  if ('url' in node.target) return node.target.url;
  const target = derived.outline.rowOf.get(node.target.page);
  return target === undefined ? null : derived.addresses[target]!;
}

/** The main menu: it follows the tree, two levels deep, with the nodes that are in menus and not hidden; for a visitor, by what is derived for them. */
export function mainMenuOf(site: Site, derived = derivedOf(site)): MenuEntry[] {
  const { outline, menu } = derived;
  const entriesFrom = (first: number, last: number): MenuEntry[] => {
    const entries: MenuEntry[] = [];
    for (let row = first; row < last; row = outline.end[row]!) {
      if (menu[row] !== 'in') continue;
      const node = outline.nodes[row]!;
      entries.push({
        page: node.id,
        text: labelOf(site, node),
        leadsTo: leadsTo(derived, row),
        entries: entriesFrom(row + 1, outline.end[row]!),
      });
    }
    return entries;
  };
  return entriesFrom(0, outline.nodes.length);
}
