import { derivedOf, haveSameAddresses } from '../derive/derived.ts';
import { type MenuEntry } from '../derive/menu.ts';
import { derivedForEach, visitorOf } from '../derive/derived-for-each.ts';
import { type MenuTable, menuTable, menuTableOf } from '../derive/menu-table.ts';
import type { Outline } from '../derive/outline.ts';
import { type AudienceId, EVERYONE } from '../model/audience.ts';
import type { PageId } from '../model/ids.ts';
import type { EntryId, MenuId } from '../model/menu.ts';
import type { Site } from '../model/site.ts';

/** An entry of a menu that comes, goes, has another number, or is called otherwise. */
export interface EntryChange {
  readonly menu: MenuId;
  readonly entry: EntryId;
  readonly before: EntryLook | null;
  readonly after: EntryLook | null;
}
export interface EntryLook {
  readonly number: string;
  readonly text: string;
}

/** The consequences of a change of the draft, computed before it is made. Each list is in tree order. */
export interface Consequences {
  /** Pages whose address differs; null where there is none before or after. Pages that come or go are not among them. */
  readonly addresses: readonly { page: PageId; before: string; after: string }[];
  readonly added: readonly PageId[];
  readonly removed: readonly PageId[];
  /** Pages that nobody can reach any more because they, or a branch above, are hidden. */
  readonly closed: readonly PageId[];
  readonly opened: readonly PageId[];
  /** What differs in the menus, menu by menu. */
  readonly menus: readonly EntryChange[];
}

/** What differs, for visitors, between two drafts of one site. With the same site twice every list is empty. */
export function whatChanges(before: Site, after: Site): Consequences {
  const addresses: { page: PageId; before: string; after: string }[] = [];
  const added: PageId[] = [];
  const removed: PageId[] = [];
  const closed: PageId[] = [];
  const opened: PageId[] = [];
  if (before === after) return { addresses, added, removed, closed, opened, menus: [] };
  const was = derivedOf(before);
  const is = derivedOf(after);
  const areReachedAlike = haveSameAddresses(was, is) && was.hiddenBy === is.hiddenBy;
  if (!areReachedAlike)
    is.outline.nodes.forEach((node, row) => {
      const old = rowBeside(was.outline, row, node.id);
      if (old === undefined) return void added.push(node.id);
      const addressBefore = was.addresses[old];
      const addressAfter = is.addresses[row];
      if (addressBefore !== addressAfter && addressBefore && addressAfter)
        addresses.push({ page: node.id, before: addressBefore, after: addressAfter });
      const couldBeReached = was.hiddenBy[old] === -1;
      const canBeReached = is.hiddenBy[row] === -1;
      if (couldBeReached !== canBeReached) (canBeReached ? opened : closed).push(node.id);
    });
  if (was.outline.rowOf !== is.outline.rowOf)
    was.outline.nodes.forEach(({ id }, row) => {
      if (rowBeside(is.outline, row, id) === undefined) removed.push(id);
    });
  const menus = entryChanges(
    before.settings.menus.map((menu) => menuTableOf(before, menu)),
    after.settings.menus.map((menu) => menuTableOf(after, menu)),
  );
  return { addresses, added, removed, closed, opened, menus };
}

/** The row of a page in another outline. Most changes move no page, so the same row is looked at first. */
const rowBeside = ({ nodes, rowOf }: Outline, row: number, page: PageId): number | undefined =>
  nodes[row]?.id === page ? row : rowOf.get(page);

/** What an audience gains and loses in the menus, where that is not the same for all. */
export interface AudienceEntries {
  readonly audience: AudienceId;
  readonly gains: readonly EntryChange[];
  readonly loses: readonly EntryChange[];
}

/** The entries that come and go for each audience; only audiences for which some do. @param at the moment, in milliseconds since 1970 */
export function menusForAudiences(before: Site, after: Site, at: number): AudienceEntries[] {
  const { audiences } = after.settings;
  const ids = [EVERYONE, ...audiences.map(({ id }) => id)];
  const tables = ids.map(() => ({ before: [] as MenuTable[], after: [] as MenuTable[] }));
  for (const [side, site] of [
    ['before', before],
    ['after', after],
  ] as const) {
    const visitors = ids.map((id) => visitorOf(site, id));
    derivedForEach(site, visitors, at).forEach((derived, bit) => {
      tables[bit]![side] = site.settings.menus.map((menu) => menuTable(site, menu, derived, visitors[bit]!));
    });
  }
  return ids.flatMap((audience, bit) => {
    const changes = entryChanges(tables[bit]!.before, tables[bit]!.after);
    const gains = changes.filter((one) => one.before === null);
    const loses = changes.filter((one) => one.after === null);
    return gains.length + loses.length === 0 ? [] : [{ audience, gains, loses }];
  });
}

function entryChanges(before: readonly MenuTable[], after: readonly MenuTable[]): EntryChange[] {
  const ids = new Set([...after, ...before].map(({ menu }) => menu.id));
  return [...ids].flatMap((menu) => {
    const was = looksOf(before.find((one) => one.menu.id === menu));
    const is = looksOf(after.find((one) => one.menu.id === menu));
    const changes: EntryChange[] = [];
    for (const [entry, look] of is) {
      const old = was.get(entry) ?? null;
      if (old === null || old.number !== look.number || old.text !== look.text)
        changes.push({ menu, entry, before: old, after: look });
    }
    for (const [entry, look] of was) if (!is.has(entry)) changes.push({ menu, entry, before: look, after: null });
    return changes;
  });
}

const known = new WeakMap<MenuTable, Map<EntryId, EntryLook>>();

/** The entries of a menu, with the number and the words of each. */
function looksOf(table: MenuTable | undefined): ReadonlyMap<EntryId, EntryLook> {
  if (!table) return new Map();
  let looks = known.get(table);
  if (!looks) {
    known.set(table, (looks = new Map<EntryId, EntryLook>()));
    for (const top of table.sections) readLooks(table.entries(top), '', looks);
  }
  return looks;
}

function readLooks(entries: readonly MenuEntry[], above: string, looks: Map<EntryId, EntryLook>): void {
  entries.forEach((entry, index) => {
    const number = `${above}${index + 1}`;
    looks.set(entry.id, { number, text: entry.text });
    readLooks(entry.entries, `${number}.`, looks);
  });
}
