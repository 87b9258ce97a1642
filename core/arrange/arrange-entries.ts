import { isSameJson } from '../model/canonical-json.ts';
import { entryIn } from '../model/arranged-entries.ts';
import { type ArrangedEntry, type Arrangement, type EntryId, type Menu, type MenuId, entryOf } from '../model/menu.ts';
import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import { derivedOf } from '../derive/derived.ts';
import { arrangedNow, taking } from '../derive/menu-merge.ts';
import { menuTableOf } from '../derive/menu-table.ts';
import { applyOperations } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';

/** Where an entry is put: below another one, or null; and after which one, null for the first place. */
export interface EntryPlace {
  readonly under: EntryId | null;
  readonly after: EntryId | null;
}

/** An entry as a row of the list, with how deep it stands. */
export interface EntryRow {
  readonly entry: ArrangedEntry;
  readonly depth: number;
  readonly under: EntryId | null;
}

/** The entries as they are read, each before those below it. */
export function entryRows(entries: readonly ArrangedEntry[], depth = 0, under: EntryId | null = null): EntryRow[] {
  return entries.flatMap((entry) => [{ entry, depth, under }, ...entryRows(entry.below, depth + 1, entry.id)]);
}

/** What settles a menu as it shows now before something is done in it: what it has taken by itself is kept with it. */
export function onArranged(site: Site, menu: Menu, operations: readonly Operation[]): Operation[] {
  const { entries, settled } = arrangedNow(site, menu);
  if (!menu.takesSafe || isSameJson(entries, menu.arranged?.entries)) return [...operations];
  return [setArranged(menu, { entries, settled }), ...operations];
}

export const setArranged = (menu: Menu, arranged: Arrangement): Operation => ({
  name: 'menu.set',
  menu: menu.id,
  fields: { arranged: arranged as Extract<Operation, { name: 'menu.set' }>['fields']['arranged'] },
});

/**
 * Puts a page's entry into a menu that is arranged by hand: where the tree has it if that is proposed, else last. One that stands below an
 * entry which visitors do not get, as of a page that was removed, comes last too.
 */
export function putInMenu(site: Site, menu: Menu, page: PageId): Operation[] {
  const { entries, proposals } = arrangedNow(site, menu);
  const entry = entryOf(page);
  if (entryIn(entries, entry)) {
    const row = derivedOf(site).outline.rowOf.get(page);
    if (row === undefined || menuTableOf(site, menu).answerAt(row) !== 'not arranged') return [];
    const after = entries.at(-1)?.id ?? null;
    return onArranged(site, menu, [{ name: 'entry.move', menu: menu.id, entry, under: null, after }]);
  }
  const proposal = proposals.find((one) => one.page === page && one.kind === 'came');
  return proposal
    ? [setArranged(menu, taking(site, menu, [proposal]))]
    : onArranged(site, menu, [{ name: 'entry.add', menu: menu.id, entry, target: { page }, under: null }]);
}

/** Takes an entry out of a menu that is arranged by hand; those below it come to stand in its place. */
export function takeOut(site: Site, menu: Menu, id: EntryId): Operation[] {
  const rows = entryRows(arrangedNow(site, menu).entries);
  const row = rows.find(({ entry }) => entry.id === id);
  if (!row) return [];
  const siblings = rows.filter(({ under }) => under === row.under).map(({ entry }) => entry.id);
  const before = siblings[siblings.indexOf(id) - 1] ?? null;
  const lifted = row.entry.below.map(({ id: entry }, index): Operation => ({
    name: 'entry.move',
    menu: menu.id,
    entry,
    under: row.under,
    after: index === 0 ? before : row.entry.below[index - 1]!.id,
  }));
  return onArranged(site, menu, [...lifted, { name: 'entry.remove', menu: menu.id, entry: id }]);
}

/** What is done for several pages one after the other in a menu: each on what the ones before have made of it. */
export function onEach(
  site: Site,
  id: MenuId,
  pages: readonly PageId[],
  step: (site: Site, menu: Menu, page: PageId) => readonly Operation[],
): Operation[] {
  let at = site;
  return pages.flatMap((page) => {
    const menu = at.settings.menus.find((one) => one.id === id);
    const operations = menu ? step(at, menu, page) : [];
    const outcome = applyOperations(at, operations);
    if (!outcome.ok) return [];
    at = outcome.site;
    return operations;
  });
}

export type EntryStep = 'up' | 'down' | 'nest' | 'lift';

/** Where one step takes an entry: among its siblings, below the one above it, or out beside the one that it is below; null where it cannot go. */
export function placeAfterStep(entries: readonly ArrangedEntry[], id: EntryId, step: EntryStep): EntryPlace | null {
  const rows = entryRows(entries);
  const row = rows.find(({ entry }) => entry.id === id);
  if (!row) return null;
  const { under } = row;
  const siblings = rows.filter((one) => one.under === under).map(({ entry }) => entry);
  const at = siblings.findIndex((one) => one.id === id);
  switch (step) {
    case 'up':
      return at === 0 ? null : { under, after: siblings[at - 2]?.id ?? null };
    case 'down':
      return at === siblings.length - 1 ? null : { under, after: siblings[at + 1]!.id };
    case 'nest':
      return at === 0 ? null : { under: siblings[at - 1]!.id, after: siblings[at - 1]!.below.at(-1)?.id ?? null };
    case 'lift':
      return under === null ? null : { under: rows.find(({ entry }) => entry.id === under)!.under, after: under };
  }
}

/**
 * Where an entry would stand that is let go in the gap before row `gap` of the list (as it is without the entry and those below it), as
 * near to the wanted depth as the rows around it allow.
 */
export function placeInGap(
  rows: readonly EntryRow[],
  gap: number,
  wanted: number,
): EntryPlace & { readonly depth: number } {
  const above = rows[gap - 1];
  const deepest = above ? above.depth + 1 : 0;
  const least = rows[gap]?.depth ?? 0;
  const depth = Math.max(least, Math.min(deepest, wanted));
  if (!above || depth === 0) {
    const before = rows.slice(0, gap).findLast((one) => one.depth === 0);
    return { under: null, after: before?.entry.id ?? null, depth: 0 };
  }
  if (depth === above.depth + 1) return { under: above.entry.id, after: null, depth };
  const before = rows.slice(0, gap).findLast((one) => one.depth === depth)!;
  return { under: before.under, after: before.entry.id, depth };
}
