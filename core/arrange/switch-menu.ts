import { isSameJson } from '../model/canonical-json.ts';
import type { PageId } from '../model/ids.ts';
import {
  type ArrangedEntry,
  type Arrangement,
  type EntryException,
  type EntryId,
  type ExtraEntry,
  type Menu,
  NO_EXCEPTION,
  entryOf,
  saysAnything,
} from '../model/menu.ts';
import type { Site } from '../model/site.ts';
import { type MenuEntry, entriesOf } from '../derive/menu.ts';
import { arrangedNow, settledNow } from '../derive/menu-merge.ts';
import type { Operation } from '../operations/operation.ts';

/** What a menu that follows the tree cannot say of what was arranged by hand: an entry's place among its siblings, or what it stood below. */
export interface Unsaid {
  readonly entry: EntryId;
  readonly what: 'order' | 'place';
}

/** Lets a menu be arranged by hand, beginning with what it shows now; or with what was arranged before, if nothing was changed since. */
export function arrangeByHand(site: Site, menu: Menu): Operation {
  const { arranged } = menu;
  const isAsArranged = arranged !== null && isSame(saidOf(site, { ...menu, isByHand: true }), menu);
  return set(menu, { isByHand: true, arranged: isAsArranged ? arranged : arrangementOf(site, menu) });
}

/**
 * Lets a menu follow the tree. What was arranged by hand becomes exceptions, as far as these can say it; the rest is
 * `unsaid`. The arrangement is kept: going back to it, with nothing changed in between, gives it again.
 */
export function followTree(
  site: Site,
  menu: Menu,
): { readonly operation: Operation; readonly unsaid: readonly Unsaid[] } {
  const untouched = arrangementOf(site, { ...menu, isByHand: false });
  if (isSameJson(untouched, menu.arranged))
    return { operation: set(menu, { isByHand: false, arranged: null }), unsaid: [] };
  const { exceptions, extras, unsaid } = saidOf(site, menu);
  return { operation: set(menu, { isByHand: false, exceptions, extras }), unsaid };
}

type Fields = Extract<Operation, { name: 'menu.set' }>['fields'];
const set = (menu: Menu, fields: Pick<Menu, 'isByHand'> & Partial<Menu>): Operation => ({
  name: 'menu.set',
  menu: menu.id,
  fields: fields as Fields,
});

type Said = Pick<Menu, 'exceptions' | 'extras'>;
const isSame = (a: Said, b: Said): boolean => isSameJson(a.exceptions, b.exceptions) && isSameJson(a.extras, b.extras);

/** A menu that follows the tree, as entries to arrange. */
function arrangementOf(site: Site, menu: Menu): Arrangement {
  const exceptions = new Map(menu.exceptions.map((one) => [one.page, one]));
  const extras = new Map(menu.extras.map((one) => [one.id, one]));
  const seen = new Set<EntryId>();
  const arranged = (entries: readonly MenuEntry[]): ArrangedEntry[] =>
    entries.flatMap(({ id, page, isBeside, entries: below }): ArrangedEntry[] => {
      if (seen.has(id)) return [];
      seen.add(id);
      const extra = isBeside ? extras.get(id) : undefined;
      const own = (page === null ? undefined : exceptions.get(page)) ?? NO_EXCEPTION;
      const { label, only, target } = extra ?? { ...own, target: page === null ? null : { page } };
      return [{ id, label, target, only, below: arranged(below) }];
    });
  const asFollowing: Menu = { ...menu, root: menu.root === 'section' ? 'site' : menu.root };
  return { entries: arranged(entriesOf(site, asFollowing)), settled: settledNow(site, asFollowing) };
}

/** What of an arrangement can be said as exceptions from the tree, and what cannot. */
function saidOf(site: Site, menu: Menu): Said & { readonly unsaid: readonly Unsaid[] } {
  const { entries, proposals } = arrangedNow(site, menu);
  const range = new Map(settledNow(site, menu).map((one) => [one.page, one]));
  const proposed = new Set(proposals.filter(({ kind }) => kind === 'came').map(({ page }) => page));
  const treeOrder = new Map([...range.keys()].map((page, index) => [page as string, index]));
  const exceptions = new Map<PageId, EntryException>();
  const extras: ExtraEntry[] = [];
  const unsaid: Unsaid[] = [];
  const there = new Set<string>();
  const say = (page: PageId, change: Partial<EntryException>) =>
    exceptions.set(page, { ...(exceptions.get(page) ?? { page, ...NO_EXCEPTION }), ...change });

  const read = (list: readonly ArrangedEntry[], under: EntryId | null, place: EntryId | null) => {
    const ofTree = list.filter(({ id }) => treeOrder.has(id));
    ofTree.forEach(({ id, label, only }) => {
      const page = id as string as PageId;
      there.add(id);
      if (Object.keys(label).length > 0 || only !== null) say(page, { label, only });
      const above = range.get(page)!.under;
      if ((above === null ? null : entryOf(above)) !== under) unsaid.push({ entry: id, what: 'place' });
    });
    const pins = pinsFor(ofTree.map(({ id }) => treeOrder.get(id)!));
    ofTree.forEach(({ id }, index) => {
      const pin = pins?.[index] ?? null;
      if (pin !== null) say(id as string as PageId, { pin });
      else if (pins === null) unsaid.push({ entry: id, what: 'order' });
    });
    list.forEach((entry, index) => {
      const { id, label, target, only, below } = entry;
      const isOfTree = treeOrder.has(id);
      if (!isOfTree) {
        const isFirst = !list.slice(0, index).some((one) => treeOrder.has(one.id)) && ofTree.length > 0;
        extras.push({ id, label, target, only, under: place, pin: isFirst ? 'first' : 'last' });
        if (under !== place) unsaid.push({ entry: id, what: 'place' });
        else if (!isFirst && list.slice(index + 1).some((one) => treeOrder.has(one.id)))
          unsaid.push({ entry: id, what: 'order' });
      }
      // What stands below an entry that is not the tree's own comes to stand beside it.
      read(below, id, isOfTree ? id : place);
    });
  };
  read(entries, null, null);
  for (const { page, under } of range.values())
    if (!there.has(page) && !proposed.has(page) && (under === null || there.has(under))) say(page, { isLeftOut: true });
  return { exceptions: [...exceptions.values()].filter(saysAnything), extras, unsaid };
}

/**
 * Which siblings to pin so that the rest stand in the tree's order: those before the others first, those after them last.
 * `order` has their places in the tree. Null where pins cannot say it.
 */
export function pinsFor(order: readonly number[]): ('first' | 'last' | null)[] | null {
  const runs: number[] = [];
  order.forEach((place, index) => {
    if (index === 0 || place < order[index - 1]!) runs.push(0);
    runs[runs.length - 1]! += 1;
  });
  if (runs.length > 3) return null;
  const [one = 0, two = 0] = runs;
  if (runs.length <= 1) return order.map(() => null);
  if (runs.length === 3) return order.map((_, index) => (index < one ? 'first' : index < one + two ? null : 'last'));
  return order.map((_, index) => (one <= two ? (index < one ? 'first' : null) : index < one ? null : 'last'));
}
