import type { Outline } from '#core/derive/outline.ts';
import type { PageId } from '#core/model/ids.ts';

/** A row of the sheet: a node of the tree, or the one that is being typed. */
export type Item =
  | { readonly kind: 'node'; readonly row: number; readonly isContext: boolean }
  | { readonly kind: 'new'; readonly depth: number };

/** A row that is being typed: before which row of the outline, and how deep. */
export interface NewItem {
  readonly before: number;
  readonly depth: number;
}

/** The rows of the sheet from top to bottom. There can be as many as the site has pages: one is made when it is asked for. */
export class Items {
  /** The rows of the outline that show, in tree order. */
  readonly rows: readonly number[];
  readonly #outline: Outline;
  readonly #matches: ReadonlySet<number> | null;
  readonly #adding: { readonly index: number; readonly depth: number } | null;

  /** @param matches where something is asked for, the rows that match; all others show for where these stand */
  constructor(
    outline: Outline,
    rows: readonly number[],
    matches: ReadonlySet<number> | null = null,
    adding: NewItem | null = null,
  ) {
    this.rows = rows;
    this.#outline = outline;
    this.#matches = matches;
    this.#adding = adding && { index: this.#countBefore(adding.before), depth: adding.depth };
  }

  get length(): number {
    return this.rows.length + (this.#adding === null ? 0 : 1);
  }

  at(index: number): Item | undefined {
    const adding = this.#adding;
    if (adding?.index === index) return { kind: 'new', depth: adding.depth };
    const row = this.rows[adding !== null && index > adding.index ? index - 1 : index];
    return row === undefined
      ? undefined
      : { kind: 'node', row, isContext: this.#matches !== null && !this.#matches.has(row) };
  }

  /** The page of an item; null for one that is being typed, and where there is none. */
  pageAt(index: number): PageId | null {
    const item = this.at(index);
    return item?.kind === 'node' ? this.#outline.nodes[item.row]!.id : null;
  }

  /** Where what is being typed stands; -1 where nothing is. */
  get indexOfNew(): number {
    return this.#adding?.index ?? -1;
  }

  /** Where a row of the outline shows; -1 where it does not. */
  indexOfRow(row: number): number {
    const index = this.#countBefore(row);
    if (this.rows[index] !== row) return -1;
    return this.#adding !== null && index >= this.#adding.index ? index + 1 : index;
  }

  indexOf(page: PageId | null): number {
    const row = page === null ? undefined : this.#outline.rowOf.get(page);
    return row === undefined ? -1 : this.indexOfRow(row);
  }

  /** The pages of all items between two, or of all where nothing is said. */
  pages(from = 0, to = this.length - 1): PageId[] {
    const pages: PageId[] = [];
    for (let index = Math.max(from, 0); index <= to; index++) {
      const page = this.pageAt(index);
      if (page !== null) pages.push(page);
    }
    return pages;
  }

  /** How many rows show that stand before a row of the outline, which need not show itself. */
  #countBefore(row: number): number {
    let [low, high] = [0, this.rows.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.rows[middle]! < row) low = middle + 1;
      else high = middle;
    }
    return low;
  }
}
