import { isShownWhenNeeded } from '../model/access.ts';
import { wordOrder } from '../model/formatters.ts';
import type { Language, PageId } from '../model/ids.ts';
import { ENTRY_ORDERS, type EntryOrder, type Menu } from '../model/menu.ts';
import type { Site } from '../model/site.ts';
import { knownBefore } from '../model/steps.ts';
import { textIn } from '../model/texts.ts';
import type { Derived } from './derived.ts';
import type { Outline } from './outline.ts';

/** What a menu takes from the tree, as rows of the outline. */
export interface MenuRange {
  /** The rows of the first level, in the menu's order. */
  readonly top: readonly number[];
  /** The rows right below one that is in the menu. */
  readonly below: (row: number) => readonly number[];
}

/** What menus have of a row: why it is in none by itself, whatever the menu; `in` where nothing stands in the way. */
export type RowAnswer = 'in' | 'hidden' | 'for others' | 'when needed' | 'off menus' | 'leads nowhere';

export function answerOfRow(derived: Derived, row: number): RowAnswer {
  const { outline, hiddenBy } = derived;
  if (hiddenBy[row] !== -1) return 'hidden';
  if (derived.isForOthers(row)) return 'for others';
  if (outline.inMenus[row] === 0) return isShownWhenNeeded(outline.nodes[row]!) ? 'when needed' : 'off menus';
  return outline.nodes[row]!.type === 'link' && leadsAstray(derived, row) ? 'leads nowhere' : 'in';
}

/** Whether a link leads to what cannot be reached: a page that is gone or hidden, or is no page any more. */
export function leadsAstray({ outline, hiddenBy, addresses }: Derived, row: number): boolean {
  const { type, target } = outline.nodes[row]!;
  if (type !== 'link' || !target || !('page' in target)) return false;
  const at = outline.rowOf.get(target.page);
  return at === undefined || hiddenBy[at] !== -1 || addresses[at] === null;
}

/** Which row a menu begins below: -1 for the top of the tree; null where there is none. By hand there is one for all sections. */
export function rootRow({ root, isByHand }: Menu, { outline }: Derived, section: PageId | null): number | null {
  if (root === 'site' || (isByHand && root === 'section')) return -1;
  const page = root === 'section' ? section : root.page;
  return page === null ? null : (outline.rowOf.get(page) ?? null);
}

const NO_ROWS: readonly number[] = [];

/** The part of the tree that a menu takes, in its order, without what `isTaken` leaves out; nothing where its root cannot be reached. */
export function menuRange(
  site: Site,
  menu: Menu,
  derived: Derived,
  section: PageId | null,
  isTaken: (row: number) => boolean = () => true,
): MenuRange {
  const { outline, hiddenBy } = derived;
  const root = rootRow(menu, derived, section);
  if (root === null || (root !== -1 && hiddenBy[root] !== -1)) return { top: [], below: () => [] };
  const firstDepth = root === -1 ? 0 : outline.depth[root]! + 1;
  const rowsBelow = (row: number): readonly number[] => {
    const level = row === -1 ? 0 : outline.depth[row]! + 1 - firstDepth;
    if (level >= menu.levels) return NO_ROWS;
    const last = row === -1 ? outline.nodes.length : outline.end[row]!;
    if (last === row + 1) return NO_ROWS;
    const rows: number[] = [];
    if (menu.order === 'tree') {
      for (let at = row + 1; at < last; at = outline.end[at]!)
        if (answerOfRow(derived, at) === 'in' && isTaken(at)) rows.push(at);
    } else
      for (const at of childrenInOrder(site, menu.order, derived, row))
        if (answerOfRow(derived, at) === 'in' && isTaken(at)) rows.push(at);
    return rows;
  };
  if (menu.withRoot && root !== -1) return { top: isTaken(root) ? [root] : [], below: rowsBelow };
  return { top: rowsBelow(root), below: rowsBelow };
}

/** The rows right below one, in an order other than the tree's. */
type Lists = Map<string, readonly number[]>;
const listName = (order: EntryOrder, row: number): string => `${order} ${row}`;
const known = new WeakMap<
  Site['nodes'],
  { readonly language: Language; readonly rowOf: Outline['rowOf']; readonly lists: Lists }
>();
/** So many edits back lists are looked for that can be gone on from, as long as not more nodes than these differ. */
const LIMITS = { mostSteps: 64, mostTouched: 500 };

/** The lists of a site, as far as they were asked for; after an edit that moves nothing all but those in which something differs. */
function listsOf(site: Site, { rowOf, parent }: Outline): Lists {
  const { language } = site.settings;
  const isOfNow = (one: { readonly language: Language; readonly rowOf: Outline['rowOf'] } | undefined) =>
    one?.language === language && one.rowOf === rowOf;
  const here = known.get(site.nodes);
  if (here && isOfNow(here)) return here.lists;
  const found = knownBefore(site, (before) => known.get(before.nodes), LIMITS);
  const lists: Lists = new Map(isOfNow(found?.known) ? found!.known.lists : []);
  for (const id of found?.touched ?? []) {
    const row = rowOf.get(id);
    if (row !== undefined) for (const order of ENTRY_ORDERS) lists.delete(listName(order, parent[row]!));
  }
  known.set(site.nodes, { language, rowOf, lists });
  return lists;
}

/** The rows right below one in an order other than the tree's: sorted once for all menus and visitors. */
function childrenInOrder(site: Site, order: EntryOrder, derived: Derived, row: number): readonly number[] {
  const { outline } = derived;
  const lists = listsOf(site, outline);
  const key = listName(order, row);
  let list = lists.get(key);
  if (!list) {
    const rows: number[] = [];
    const last = row === -1 ? outline.nodes.length : outline.end[row]!;
    for (let at = row + 1; at < last; at = outline.end[at]!) rows.push(at);
    lists.set(key, (list = inOrder(site, { order }, derived)(rows)));
  }
  return list;
}

/** Brings rows into an order: of the tree, of the alphabet in the site's language, or by their days, newest first and those without one last. */
export function inOrder(
  { settings: { language } }: Site,
  { order }: { readonly order: EntryOrder },
  { outline }: Derived,
): (rows: number[]) => number[] {
  if (order === 'tree') return (rows) => rows;
  if (order === 'date') {
    const day = (row: number) => outline.nodes[row]!.frame?.date ?? '';
    return (rows) => rows.sort((a, b) => (day(a) === day(b) ? a - b : day(a) < day(b) ? 1 : -1));
  }
  const collator = wordOrder(language);
  const name = (row: number) => {
    const { label, title } = outline.nodes[row]!;
    return textIn(label, language) || textIn(title, language);
  };
  return (rows) => rows.sort((a, b) => collator.compare(name(a), name(b)) || a - b);
}
