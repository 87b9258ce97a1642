import { type AudienceId, EVERYONE } from '../model/audience.ts';
import type { Language, PageId } from '../model/ids.ts';
import {
  type ArrangedEntry,
  type EntryAction,
  type EntryException,
  type EntryId,
  type EntryTarget,
  type ExtraEntry,
  type Menu,
  entryOf,
} from '../model/menu.ts';
import type { SiteNode } from '../model/node.ts';
import type { Site } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import type { Membership } from './access.ts';
import { type Derived, derivedOf } from './derived.ts';
import { arrangedNow } from './menu-merge.ts';
import { type MenuRange, leadsAstray, menuRange } from './menu-range.ts';
import { textsOfRows } from './texts-of-rows.ts';

/** One entry of a menu. */
export interface MenuEntry {
  readonly id: EntryId;
  /** The page whose entry it is; null for one that the menu has besides. */
  readonly page: PageId | null;
  readonly text: string;
  /** Where it leads: an address of the site (beginning with `/`), an outside address, or null for text and for what it does. */
  readonly leadsTo: string | null;
  readonly does: EntryAction | null;
  /** Whether the menu has it besides what the tree gives. */
  readonly isBeside: boolean;
  readonly entries: readonly MenuEntry[];
}

/** For whom a menu is made; null for all that it ever shows. */
export interface MenuVisitor {
  readonly belongs: Membership;
  readonly isSignedIn: boolean;
}

/** What menus and trails call a node: its menu label, or its title where it has none. */
export const labelOf = ({ settings: { language } }: Site, node: SiteNode): string => labelIn(node, language);

const labelIn = ({ label, title }: SiteNode, language: Language): string =>
  textIn(label, language) || textIn(title, language);

/** Where a node leads a visitor; null for a heading, and for an alias of a page that is gone. */
export function leadsTo(derived: Derived, row: number): string | null {
  const node = derived.outline.nodes[row]!;
  if (node.type !== 'link') return derived.addresses[row]!;
  if (!node.target) return null;
  if ('url' in node.target) return node.target.url;
  const target = derived.outline.rowOf.get(node.target.page);
  return target === undefined ? null : derived.addresses[target]!;
}

/** The top-level node that a page stands in, or is. */
export function sectionOf(derived: Derived, page: PageId | null): PageId | null {
  let row = page === null ? undefined : derived.outline.rowOf.get(page);
  if (row === undefined) return null;
  while (derived.outline.parent[row]! !== -1) row = derived.outline.parent[row]!;
  return derived.outline.nodes[row]!.id;
}

/** Whether a menu differs from section to section. */
export const goesBySection = ({ isByHand, root }: Menu): boolean => !isByHand && root === 'section';

/**
 * A menu as it shows. By `derived` of a visitor it has what that visitor can open; `section` is the top-level page that
 * they are in, where the menu goes by that.
 */
export function entriesOf(
  site: Site,
  menu: Menu,
  derived: Derived = derivedOf(site),
  visitor: MenuVisitor | null = null,
  section: PageId | null = null,
): readonly MenuEntry[] {
  const making: Making = { site, menu, derived, visitor };
  return menu.isByHand ? arrangedEntries(making, arrangedNow(site, menu).entries) : followingEntries(making, section);
}

interface Making {
  readonly site: Site;
  readonly menu: Menu;
  readonly derived: Derived;
  readonly visitor: MenuVisitor | null;
}

const isForVisitor = (visitor: MenuVisitor | null, only: readonly AudienceId[] | null): boolean =>
  visitor === null || only === null || only.some((id) => id === EVERYONE || visitor.belongs.has(id));

const NO_ENTRIES: readonly MenuEntry[] = [];

function followingEntries(making: Making, section: PageId | null): readonly MenuEntry[] {
  const { site, menu, derived, visitor } = making;
  const exceptions = new Map(menu.exceptions.map((one) => [one.page, one]));
  const extras = new Map<EntryId | null, { first: MenuEntry[]; last: MenuEntry[] }>();
  const isTaken = (row: number) => {
    const own = exceptions.get(derived.outline.nodes[row]!.id);
    return own === undefined || (!own.isLeftOut && isForVisitor(visitor, own.only));
  };
  const range = menuRange(site, menu, derived, section, exceptions.size === 0 ? undefined : isTaken);
  // A page from elsewhere that the tree brings by itself has one entry: the tree's.
  const fromTree = menu.extras.some(({ target }) => pageOfTarget(target) !== null) ? rowsOf(range) : new Set<number>();
  for (const extra of menu.extras) {
    const page = pageOfTarget(extra.target);
    if (page !== null && fromTree.has(derived.outline.rowOf.get(page) ?? -1)) continue;
    const entry = extraEntry(making, extra);
    if (entry === null) continue;
    const list = extras.get(extra.under) ?? { first: [], last: [] };
    extras.set(extra.under, list);
    list[extra.pin].push(entry);
  }
  const withExtras = (under: EntryId | null, entries: readonly MenuEntry[]): readonly MenuEntry[] => {
    const beside = extras.get(under);
    return beside ? [...beside.first, ...entries, ...beside.last] : entries;
  };
  const names = namesOf(site);
  const made = (row: number): MenuEntry => {
    const node = derived.outline.nodes[row]!;
    const id = entryOf(node.id);
    const own = exceptions.size === 0 ? undefined : exceptions.get(node.id);
    return {
      id,
      page: node.id,
      text: (own && textIn(own.label, site.settings.language)) || names.at(row),
      leadsTo:
        node.type === 'heading' && menu.headings === 'first page' ? firstBelow(derived, row) : leadsTo(derived, row),
      does: null,
      isBeside: false,
      entries: withExtras(id, listed(range.below(row))),
    };
  };
  const listed = (rows: readonly number[]): readonly MenuEntry[] =>
    rows.length === 0 ? NO_ENTRIES : pinned(rows, derived, exceptions).map(made);
  return withExtras(null, listed(range.top));
}

/** All rows that a menu takes. */
function rowsOf({ top, below }: MenuRange): Set<number> {
  const rows = new Set<number>();
  const walk = (list: readonly number[]) => {
    for (const row of list) {
      rows.add(row);
      walk(below(row));
    }
  };
  walk(top);
  return rows;
}

/** What menus call each row: worked out once for all menus and all visitors. */
const namesOf = textsOfRows(labelIn);

/** Rows with those pinned first before the others, and those pinned last after them. */
function pinned(
  rows: readonly number[],
  { outline }: Derived,
  exceptions: ReadonlyMap<PageId, EntryException>,
): readonly number[] {
  if (exceptions.size === 0) return rows;
  const pinOf = (row: number) => exceptions.get(outline.nodes[row]!.id)?.pin ?? null;
  return [
    ...rows.filter((row) => pinOf(row) === 'first'),
    ...rows.filter((row) => pinOf(row) === null),
    ...rows.filter((row) => pinOf(row) === 'last'),
  ];
}

/** The address of the first page below a heading that can be reached and is in menus. */
function firstBelow({ outline, addresses, hiddenBy }: Derived, heading: number): string | null {
  for (let row = heading + 1; row < outline.end[heading]!; row++)
    if (outline.isPage[row] === 1 && hiddenBy[row] === -1 && outline.inMenus[row] === 1) return addresses[row]!;
  return null;
}

/** An entry that a menu has besides, or null where it is not for the visitor or leads to what they cannot reach. */
function extraEntry(making: Making, { id, label, target, only }: ExtraEntry | ArrangedEntry): MenuEntry | null {
  const { site, derived, visitor } = making;
  const { language } = site.settings;
  if (!isForVisitor(visitor, only)) return null;
  const entry = {
    id,
    page: null,
    text: textIn(label, language),
    leadsTo: null,
    does: null,
    isBeside: true,
    entries: [],
  };
  if (target === null) return entry;
  if ('url' in target) return { ...entry, leadsTo: target.url };
  if ('does' in target)
    return visitor !== null && visitor.isSignedIn === (target.does === 'sign-in')
      ? null
      : { ...entry, does: target.does };
  const row = derived.outline.rowOf.get(target.page);
  if (row === undefined || derived.hiddenBy[row] !== -1 || derived.isForOthers(row)) return null;
  const node = derived.outline.nodes[row]!;
  const to =
    node.type === 'heading' && making.menu.headings === 'first page' ? firstBelow(derived, row) : leadsTo(derived, row);
  if (leadsAstray(derived, row)) return null;
  return { ...entry, page: target.page, text: entry.text || labelOf(site, node), leadsTo: to };
}

/** What was arranged by hand, without what the visitor cannot reach, and without words under which nothing is left. */
function arrangedEntries(making: Making, entries: readonly ArrangedEntry[]): MenuEntry[] {
  return entries.flatMap((one) => {
    const entry = extraEntry(making, one);
    if (entry === null) return [];
    const below = arrangedEntries(making, one.below);
    const isEmptied = entry.leadsTo === null && entry.does === null && one.below.length > 0 && below.length === 0;
    return isEmptied ? [] : [{ ...entry, entries: below }];
  });
}

/** What of a menu shows on a page: nothing where the page itself is all that it has. */
export function shownOn(entries: readonly MenuEntry[], current: PageId | null): readonly MenuEntry[] {
  const [first] = entries;
  const isPageAlone = entries.length === 1 && first!.page === current && first!.entries.length === 0;
  return isPageAlone ? NO_ENTRIES : entries;
}

/** "2.3" for the third entry below the second one, by the ids of the entries. */
export function numbersOf(
  entries: readonly MenuEntry[],
  above = '',
  numbers = new Map<EntryId, string>(),
): Map<EntryId, string> {
  entries.forEach((entry, index) => {
    const number = `${above}${index + 1}`;
    numbers.set(entry.id, number);
    numbersOf(entry.entries, `${number}.`, numbers);
  });
  return numbers;
}

/** Where the entry of a target leads to is a page's: its id. */
export const pageOfTarget = (target: EntryTarget): PageId | null =>
  target !== null && 'page' in target ? target.page : null;
