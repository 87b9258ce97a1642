import type { PageId } from '../model/ids.ts';
import {
  type ArrangedEntry,
  type Arrangement,
  type EntryId,
  type Menu,
  type SettledPage,
  entryOf,
} from '../model/menu.ts';
import type { Site } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import { derivedOf } from './derived.ts';
import { ArrangedTree } from './arranged-tree.ts';
import { type RowAnswer, answerOfRow, menuRange } from './menu-range.ts';

/** What a proposal is about: a page came into the menu's range, left it, moved within it, or has another name. */
export const PROPOSAL_KINDS = ['came', 'went', 'moved', 'renamed'] as const;
export type ProposalKind = (typeof PROPOSAL_KINDS)[number];

/** One difference between a menu that was arranged by hand and the tree, with what would settle it. */
export interface Proposal {
  readonly page: PageId;
  readonly kind: ProposalKind;
  /** Whether nothing that a person arranged stands against it. */
  readonly isSafe: boolean;
  /** Where the entry would stand, for `came` and `moved`: below which one, and after which one (null: first). */
  readonly under: EntryId | null;
  readonly after: EntryId | null;
  /** The page above that has no entry yet and is proposed too: to take this one takes that one along. Else null. */
  readonly along: PageId | null;
  /** Why the page has gone, for `went`: `removed` from the tree, or out of what the menu takes from it. */
  readonly because: Exclude<RowAnswer, 'in'> | 'removed' | 'out of range' | null;
  /** What the page is called now, for `renamed`. */
  readonly name: string;
}

/** A proposal by what it is about. */
export type ProposalKey = Pick<Proposal, 'page' | 'kind'>;

/** A menu as it was arranged, with what it takes by itself; and what is left to settle. */
export interface Merged extends Arrangement {
  readonly proposals: readonly Proposal[];
}

const known = new WeakMap<Site, Map<Menu, Merged>>();

/** How a hand-arranged menu stands to the tree now; the same object again for the same site and menu. */
export function arrangedNow(site: Site, menu: Menu): Merged {
  const merged = known.get(site) ?? new Map<Menu, Merged>();
  known.set(site, merged);
  let now = merged.get(menu);
  if (!now) {
    const merge = new MenuMerge(site, menu);
    if (menu.takesSafe) merge.take(merge.proposals().filter(({ isSafe }) => isSafe));
    merged.set(menu, (now = merge.merged()));
  }
  return now;
}

/** The arrangement once these proposals are taken. In whatever order they are taken one by one, they end at the same. */
export const taking = (site: Site, menu: Menu, chosen: readonly ProposalKey[]): Arrangement =>
  settling(site, menu, (merge) => merge.take(chosen));

/** The arrangement once these proposals are declined: they do not come back until their page changes again. */
export const declining = (site: Site, menu: Menu, chosen: readonly ProposalKey[]): Arrangement =>
  settling(site, menu, (merge) => merge.decline(chosen));

function settling(site: Site, menu: Menu, settle: (merge: MenuMerge) => void): Arrangement {
  const { entries, settled } = arrangedNow(site, menu);
  const merge = new MenuMerge(site, { ...menu, arranged: { entries, settled } });
  settle(merge);
  const { entries: next, settled: nowSettled } = merge.merged();
  return { entries: next, settled: nowSettled };
}

/** What the menu's range is now, as what is settled is kept. */
export function settledNow(site: Site, menu: Menu): SettledPage[] {
  const derived = derivedOf(site);
  const { outline } = derived;
  const { language } = site.settings;
  const range = menuRange(site, menu, derived, null);
  const pages: SettledPage[] = [];
  const read = (rows: readonly number[], under: PageId | null) => {
    for (const row of rows) {
      const { id: page, label, title, order } = outline.nodes[row]!;
      pages.push({ page, under, order, name: textIn(label, language) || textIn(title, language) });
      read(range.below(row), page);
    }
  };
  read(range.top, null);
  return pages;
}

/** What is still to be settled, page by page. */
interface Pending {
  readonly came: ReadonlySet<PageId>;
  readonly moved: ReadonlySet<PageId>;
  readonly went: ReadonlySet<PageId>;
  readonly renamed: ReadonlySet<PageId>;
  /** The pages of the range whose entries belong below that one, in the tree's order. */
  readonly siblings: ReadonlyMap<PageId | null, readonly PageId[]>;
}

/**
 * The three-way merge of ordered trees: the tree as it was when last settled, the tree now, and the menu as arranged.
 *
 * What has changed in the tree since is pending, unless the menu has it so already. A page that came or moved belongs
 * below the nearest page above it that has, or is proposed to have, an entry; there it stands after the nearest page
 * before it in the tree that is settled, else before the nearest one after it, else last. What is pending is never a
 * neighbour to go by: so the places do not depend on the order in which proposals are taken.
 */
class MenuMerge {
  readonly #site: Site;
  /** The range now, in the menu's order. */
  readonly #tree: ReadonlyMap<PageId, SettledPage>;
  readonly #settled: Map<PageId, SettledPage>;
  readonly #entries: ArrangedTree;
  #pending: Pending;

  constructor(site: Site, menu: Menu) {
    this.#site = site;
    this.#tree = new Map(settledNow(site, menu).map((one) => [one.page, one]));
    this.#settled = new Map((menu.arranged?.settled ?? []).map((one) => [one.page, one]));
    this.#entries = new ArrangedTree(menu.arranged?.entries ?? []);
    this.#pending = this.#differences();
  }

  /** What is left to settle: what went first, then in the tree's order. */
  proposals(): Proposal[] {
    const { came, moved, went, renamed } = this.#pending;
    const found: Proposal[] = [];
    for (const page of went) found.push(this.#went(page));
    for (const [page, { name }] of this.#tree) {
      if (came.has(page) || moved.has(page)) {
        const kind = came.has(page) ? 'came' : 'moved';
        const above = this.#above(page, came);
        const along = above !== null && came.has(above) ? above : null;
        found.push({ page, kind, isSafe: this.#isSafe(page), ...this.#place(page), along, because: null, name });
      }
      if (renamed.has(page)) found.push({ page, kind: 'renamed', isSafe: false, ...NO_PLACE, because: null, name });
    }
    return found;
  }

  merged(): Merged {
    const { came, moved, went, renamed } = this.#pending;
    const settled: SettledPage[] = [];
    for (const [page, now] of this.#tree) {
      const before = this.#settled.get(page);
      if (came.has(page) || moved.has(page)) {
        if (before) settled.push(before);
      } else settled.push(renamed.has(page) ? { ...now, name: before!.name } : now);
    }
    for (const page of went) settled.push(this.#settled.get(page)!);
    return { entries: this.#entries.entries(), settled, proposals: this.proposals() };
  }

  take(chosen: readonly ProposalKey[]): void {
    const wanted = new Set(chosen.map(keyOf));
    for (const { page, kind } of this.proposals()) if (wanted.has(keyOf({ page, kind }))) this.#take(page, kind);
  }

  decline(chosen: readonly ProposalKey[]): void {
    const wanted = new Set(chosen.map(keyOf));
    for (const { page, kind } of this.proposals()) if (wanted.has(keyOf({ page, kind }))) this.#settle(page, kind);
    this.#pending = this.#differences();
  }

  #take(page: PageId, kind: ProposalKind): void {
    if (kind === 'came' || kind === 'moved') {
      for (let first = this.#upheaval(); first; first = this.#upheaval()) this.#takeWithAbove(first.page, first.kind);
      this.#takeWithAbove(page, kind);
    } else this.#takeAlone(page, kind);
  }

  /**
   * A proposal that brings entries which are settled below another one than before, and so changes what others stand
   * beside: an entry that is removed from above others, or one that would come to stand below itself.
   */
  #upheaval(): ProposalKey | undefined {
    const { came, went, moved } = this.#pending;
    for (const page of went) if (this.#entries.below(entryOf(page)).length > 0) return { page, kind: 'went' };
    /** What an entry stands below once all is taken. */
    const aboveAtLast = (entry: EntryId): EntryId | null => {
      const page = entry as string as PageId;
      if (!moved.has(page) && !came.has(page)) return this.#entries.parent(entry);
      const above = this.#above(page, came);
      return above === null ? null : entryOf(above);
    };
    for (const page of moved) {
      const entry = entryOf(page);
      const passed = new Set<EntryId>();
      for (let at = aboveAtLast(entry); at !== null && !passed.has(at); at = aboveAtLast(at)) {
        if (at === entry) return { page, kind: 'moved' };
        passed.add(at);
      }
    }
    return undefined;
  }

  /** A page's place hangs on what is proposed of the pages above it. */
  #takeWithAbove(page: PageId, kind: ProposalKind): void {
    const above: PageId[] = [];
    for (let at = this.#tree.get(page)?.under ?? null; at !== null; at = this.#tree.get(at)!.under) above.unshift(at);
    for (const one of above) for (const first of ['came', 'moved'] as const) this.#takeAlone(one, first);
    this.#takeAlone(page, kind);
  }

  #takeAlone(page: PageId, kind: ProposalKind): void {
    if (!this.#pending[kind].has(page)) return;
    const entry = entryOf(page);
    if (kind === 'went') this.#entries.dissolve(entry);
    else if (kind === 'renamed') this.#entries.change(entry, (one) => ({ ...one, label: {} }));
    else {
      const { under, after } = this.#place(page);
      if (kind === 'came')
        this.#entries.add({ id: entry, label: {}, target: { page }, only: null, below: [] }, under, after);
      else this.#entries.move(entry, under, after);
    }
    this.#settle(page, kind);
    this.#pending = this.#differences();
  }

  #settle(page: PageId, kind: ProposalKind): void {
    const now = this.#tree.get(page);
    const before = this.#settled.get(page);
    if (!now) this.#settled.delete(page);
    else if (kind === 'renamed') this.#settled.set(page, { ...before!, name: now.name });
    else this.#settled.set(page, before && kind === 'moved' ? { ...now, name: before.name } : now);
  }

  #differences(): Pending {
    const came = new Set<PageId>();
    const mayHaveMoved = new Set<PageId>();
    const went = new Set<PageId>();
    const renamed = new Set<PageId>();
    for (const [page, now] of this.#tree) {
      const before = this.#settled.get(page);
      const isElsewhere = before !== undefined && (before.under !== now.under || before.order !== now.order);
      const entry = this.#entries.maybe(entryOf(page));
      if (!entry) {
        if (!before || isElsewhere || before.name !== now.name) came.add(page);
        continue;
      }
      if (isElsewhere) mayHaveMoved.add(page);
      if (before && before.name !== now.name && Object.keys(entry.label).length > 0) renamed.add(page);
    }
    for (const page of this.#settled.keys())
      if (!this.#tree.has(page) && this.#entries.has(entryOf(page))) went.add(page);
    const siblings = new Map<PageId | null, PageId[]>();
    for (const page of this.#tree.keys()) {
      const above = this.#above(page, came);
      const list = siblings.get(above);
      if (list) list.push(page);
      else siblings.set(above, [page]);
    }
    const pending = { came, moved: mayHaveMoved, went, renamed, siblings };
    if (mayHaveMoved.size === 0) return pending;
    const moved = new Set(mayHaveMoved);
    for (const page of mayHaveMoved) {
      // While one is looked at, those before it are judged already: what stands as in the tree is settled.
      if (this.#standsAsInTree(page, { ...pending, moved })) moved.delete(page);
    }
    return { ...pending, moved };
  }

  /** The nearest page above one that has an entry, or is proposed to. */
  #above(page: PageId, came: ReadonlySet<PageId>): PageId | null {
    let above = this.#tree.get(page)!.under;
    while (above !== null && !this.#entries.has(entryOf(above)) && !came.has(above))
      above = this.#tree.get(above)!.under;
    return above;
  }

  /** The nearest settled pages before and after one that stand below the same entry. */
  #neighbours(page: PageId, { came, moved, went, siblings }: Pending): { before: PageId | null; after: PageId | null } {
    const above = this.#above(page, came);
    const list = siblings.get(above)!;
    const at = list.indexOf(page);
    const under = above === null ? null : entryOf(above);
    const isSettled = (one: PageId) =>
      !came.has(one) && !moved.has(one) && this.#entries.has(entryOf(one)) && this.#parent(one, went) === under;
    let before: PageId | null = null;
    for (let i = at - 1; i >= 0 && before === null; i--) if (isSettled(list[i]!)) before = list[i]!;
    let after: PageId | null = null;
    for (let i = at + 1; i < list.length && after === null; i++) if (isSettled(list[i]!)) after = list[i]!;
    return { before, after };
  }

  /** What an entry stands below, as if what has gone were taken away already. */
  #parent(page: PageId, went: ReadonlySet<PageId>): EntryId | null {
    let above = this.#entries.parent(entryOf(page));
    while (above !== null && went.has(above as string as PageId)) above = this.#entries.parent(above);
    return above;
  }

  #standsAsInTree(page: PageId, pending: Pending): boolean {
    const above = this.#above(page, pending.came);
    if (above !== null && pending.came.has(above)) return false;
    if (this.#parent(page, pending.went) !== (above === null ? null : entryOf(above))) return false;
    const { before, after } = this.#neighbours(page, pending);
    const isBefore = (a: PageId, b: PageId) => this.#entries.comesBefore(entryOf(a), entryOf(b));
    return (before === null || isBefore(before, page)) && (after === null || isBefore(page, after));
  }

  #place(page: PageId): { under: EntryId | null; after: EntryId | null } {
    const above = this.#above(page, this.#pending.came);
    const under = above === null || !this.#entries.has(entryOf(above)) ? null : entryOf(above);
    const { before, after } = this.#neighbours(page, this.#pending);
    if (before !== null) return { under, after: entryOf(before) };
    const list = this.#entries.below(under).filter((id) => id !== entryOf(page));
    if (after !== null) return { under, after: list[list.indexOf(entryOf(after)) - 1] ?? null };
    return { under, after: list.at(-1) ?? null };
  }

  #isSafe(page: PageId): boolean {
    const { under } = this.#tree.get(page)!;
    const before = this.#settled.get(page);
    const { came, went } = this.#pending;
    if (this.#above(page, came) !== under) return false;
    if (!this.#entries.has(entryOf(page))) return before === undefined;
    // It moved in the tree: did it stand in the menu as the tree had it before?
    return (
      this.#parent(page, went) === (before!.under === null ? null : entryOf(before!.under)) && this.#keptOrder(before!)
    );
  }

  /** Whether an entry stands among its neighbours as these stood in the tree when last settled. */
  #keptOrder(before: SettledPage): boolean {
    const { moved } = this.#pending;
    const entry = entryOf(before.page);
    for (const one of this.#settled.values()) {
      if (one.under !== before.under || one.page === before.page || moved.has(one.page)) continue;
      const other = entryOf(one.page);
      if (!this.#entries.has(other) || this.#entries.parent(other) !== this.#entries.parent(entry)) continue;
      if (one.order < before.order !== this.#entries.comesBefore(other, entry)) return false;
    }
    return true;
  }

  #went(page: PageId): Proposal {
    const derived = derivedOf(this.#site);
    const row = derived.outline.rowOf.get(page);
    const answer = row === undefined ? 'removed' : answerOfRow(derived, row);
    const { label, only, below } = this.#entries.at(entryOf(page));
    const stays = (one: ArrangedEntry) => !this.#pending.went.has(one.id as string as PageId);
    return {
      page,
      kind: 'went',
      isSafe: Object.keys(label).length === 0 && only === null && !below.some(stays),
      ...NO_PLACE,
      because: answer === 'in' ? 'out of range' : answer,
      name: this.#settled.get(page)!.name,
    };
  }
}

const NO_PLACE = { under: null, after: null, along: null };
const keyOf = ({ page, kind }: ProposalKey): string => `${kind} ${page}`;
