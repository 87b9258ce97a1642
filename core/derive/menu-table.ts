import type { PageId } from '../model/ids.ts';
import { type EntryException, type EntryId, type Menu, entryOf } from '../model/menu.ts';
import type { Site } from '../model/site.ts';
import { type Derived, derivedOf } from './derived.ts';
import { type MenuEntry, type MenuVisitor, entriesOf, goesBySection, numbersOf } from './menu.ts';
import { arrangedNow } from './menu-merge.ts';
import { answerOfRow, rootRow } from './menu-range.ts';

/** Why a node is not in a menu; `in` where it is. */
export const MENU_ANSWERS = [
  'in',
  'hidden',
  'closed',
  'for others',
  'when needed',
  'off menus',
  'leads nowhere',
  'left out here',
  'outside',
  'too deep',
  'above not in menu',
  'proposed',
  'not arranged',
] as const;
export type MenuAnswer = (typeof MENU_ANSWERS)[number];

/** A menu as a column: what it has of each row of the outline. */
export interface MenuTable {
  readonly menu: Menu;
  /** The entries; where the menu goes by section, those of one, by its top-level node. */
  readonly entries: (section: PageId | null) => readonly MenuEntry[];
  /** The sections that it differs by; null alone where it goes by none. */
  readonly sections: readonly (PageId | null)[];
  /** "2.3" for the third entry below the second one, by entry; within its section where the menu goes by that. */
  readonly numbers: ReadonlyMap<EntryId, string>;
  readonly answerAt: (row: number) => MenuAnswer;
}

const known = new WeakMap<Site, Map<Menu, MenuTable>>();

/** A menu of the site, with all that it ever shows; the same object again for the same site and menu. */
export function menuTableOf(site: Site, menu: Menu): MenuTable {
  const tables = known.get(site) ?? new Map<Menu, MenuTable>();
  known.set(site, tables);
  let table = tables.get(menu);
  if (!table) tables.set(menu, (table = menuTable(site, menu, derivedOf(site), null)));
  return table;
}

/** A menu as it shows to one visitor, by what is derived for them. */
export function menuTable(site: Site, menu: Menu, derived: Derived, visitor: MenuVisitor | null): MenuTable {
  const { outline } = derived;
  const bySection = new Map<PageId | null, readonly MenuEntry[]>();
  const entries = (asked: PageId | null) => {
    const section = goesBySection(menu) ? asked : null;
    let made = bySection.get(section);
    if (!made) bySection.set(section, (made = entriesOf(site, menu, derived, visitor, section)));
    return made;
  };
  const sections: (PageId | null)[] = goesBySection(menu) ? [] : [null];
  if (goesBySection(menu))
    for (let row = 0; row < outline.nodes.length; row = outline.end[row]!) sections.push(outline.nodes[row]!.id);
  let numbers: Map<EntryId, string> | undefined;
  const allNumbers = () => {
    if (!numbers) {
      numbers = new Map<EntryId, string>();
      for (const section of sections) numbersOf(entries(section), '', numbers);
    }
    return numbers;
  };

  let ways: Ways | undefined;
  const answerAt = (row: number): MenuAnswer => {
    const { id } = outline.nodes[row]!;
    if (allNumbers().has(entryOf(id))) return 'in';
    const { plain, exceptions, proposed } = (ways ??= waysOf(site, menu));
    const answer = answerOfRow(derived, row);
    if (answer === 'hidden') return plain.hiddenBy[row] === -1 ? 'closed' : 'hidden';
    if (answer !== 'in') return answer;
    if (menu.isByHand) return proposed.has(id) ? 'proposed' : 'not arranged';
    const exception = exceptions.get(id);
    if (exception) return exception.isLeftOut ? 'left out here' : 'for others';
    const root = goesBySection(menu) ? topOf(derived, row) : rootRow(menu, derived, null);
    if (root === null || (root !== -1 && (row <= root || row >= outline.end[root]!))) return 'outside';
    const level = outline.depth[row]! - (root === -1 ? 0 : outline.depth[root]! + 1);
    return level >= menu.levels ? 'too deep' : 'above not in menu';
  };
  return {
    menu,
    entries,
    sections,
    get numbers() {
      return allNumbers();
    },
    answerAt,
  };
}

/** What an answer is looked up in. */
interface Ways {
  readonly plain: Derived;
  readonly exceptions: ReadonlyMap<PageId, EntryException>;
  /** The pages whose entries are proposed, where the menu is arranged by hand. */
  readonly proposed: ReadonlySet<PageId>;
}

const waysOf = (site: Site, menu: Menu): Ways => ({
  plain: derivedOf(site),
  exceptions: new Map(menu.exceptions.map((one) => [one.page, one])),
  proposed: new Set(
    menu.isByHand
      ? arrangedNow(site, menu)
          .proposals.filter(({ kind }) => kind === 'came')
          .map(({ page }) => page)
      : [],
  ),
});

function topOf({ outline }: Derived, row: number): number {
  let at = row;
  while (outline.parent[at]! !== -1) at = outline.parent[at]!;
  return at;
}
