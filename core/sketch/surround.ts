import { layoutOf } from '../derive/layouts.ts';
import { menuTableOf } from '../derive/menu-table.ts';
import { shownTrail } from '../derive/shown-trail.ts';
import type { PageId } from '../model/ids.ts';
import { type HeaderStyle, MENU_SLOTS, type MenuSlot } from '../model/layout.ts';
import { type Site, ancestorsOf, nodeAt } from '../model/site.ts';
import { textIn } from '../model/texts.ts';

/** What stands around the content of a page, in words: a sketch is drawn with the labels of now. */
export interface Surround {
  readonly siteName: string;
  readonly title: string;
  readonly trail: readonly string[];
  readonly header: HeaderStyle;
  /** The labels of the menu in each place, of its first level, beside the text of two; none where the place is empty. */
  readonly menus: Readonly<Record<MenuSlot, readonly string[]>>;
  readonly hasFooter: boolean;
  /** What the footer says besides its menu. */
  readonly facts: readonly string[];
}

/** What stands around a page of the site, or around one without a place yet. */
export function surroundOf(site: Site, page: PageId | null): Surround {
  const { name, language, menus, facts } = site.settings;
  const layout = layoutOf(site, page);
  const section = page === null ? null : (ancestorsOf(site, page).at(-1)?.id ?? page);
  const labelsIn = (slot: MenuSlot): string[] => {
    const menu = menus.find(({ id }) => id === layout.menus[slot]);
    const entries = menu ? menuTableOf(site, menu).entries(section) : [];
    // Beside the text there is room for what stands below the first level, too.
    return (slot === 'side' ? entries.flatMap((entry) => [entry, ...entry.entries]) : entries).map(({ text }) => text);
  };
  return {
    siteName: name,
    title: page === null ? 'A page' : textIn(nodeAt(site, page).title, language),
    trail: page === null ? [] : shownTrail(site, page).steps.map(({ text }) => text),
    header: layout.header,
    menus: Object.fromEntries(MENU_SLOTS.map((slot) => [slot, labelsIn(slot)])) as unknown as Surround['menus'],
    hasFooter: layout.hasFooter,
    facts: facts.filter(({ inFooter, text }) => inFooter && text !== '').map(({ text }) => text),
  };
}
