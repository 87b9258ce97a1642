import type { PageId } from '../model/ids.ts';
import type { SiteNode } from '../model/node.ts';
import { type RowRuns, joinedRuns, rowThrough } from './row-runs.ts';

/** Where more pieces and nodes than these have to be looked through, the rows are gathered anew. */
const MAX_APART = 200;
/** So many shapes of the tree back another one is looked for. */
const MAX_STEPS = 64;

/**
 * The row in which each node stands, for one shape of the tree. After an edit it is not made anew: it is the map of an earlier shape,
 * with where the rows of that shape have gone.
 */
export class RowsById {
  readonly #base: ReadonlyMap<PageId, number>;
  /** Where the rows of the base stand; null for where they stood. */
  readonly #runs: RowRuns | null;
  readonly #added: ReadonlyMap<PageId, number>;
  readonly #step: { readonly before: WeakRef<RowsById>; readonly runs: RowRuns } | null;
  /** How many rows there are. */
  readonly size: number;

  private constructor(
    base: ReadonlyMap<PageId, number>,
    runs: RowRuns | null,
    added: ReadonlyMap<PageId, number>,
    size: number,
    step: { readonly before: WeakRef<RowsById>; readonly runs: RowRuns } | null,
  ) {
    this.#base = base;
    this.#runs = runs;
    this.#added = added;
    this.size = size;
    this.#step = step;
  }

  /** The rows of nodes in tree order. */
  static of(nodes: readonly Pick<SiteNode, 'id'>[]): RowsById {
    return new RowsById(baseOf(nodes), null, new Map(), nodes.length, null);
  }

  /** The rows of the tree that these have become. @param runs from these rows to the new ones @param added rows of nodes that were not there */
  after(nodes: readonly Pick<SiteNode, 'id'>[], runs: RowRuns, added: ReadonlyMap<PageId, number>): RowsById {
    const step = { before: new WeakRef(this), runs };
    const all = new Map<PageId, number>();
    for (const [id, row] of this.#added) {
      const now = rowThrough(runs, row);
      if (now !== undefined) all.set(id, now);
    }
    for (const [id, row] of added) all.set(id, row);
    const joined = this.#runs === null ? runs : joinedRuns(this.#runs, runs);
    return joined.from.length + all.size > MAX_APART
      ? new RowsById(baseOf(nodes), null, new Map(), nodes.length, step)
      : new RowsById(this.#base, joined, all, nodes.length, step);
  }

  get(id: PageId): number | undefined {
    const added = this.#added.size === 0 ? undefined : this.#added.get(id);
    if (added !== undefined) return added;
    const row = this.#base.get(id);
    return row === undefined || this.#runs === null ? row : rowThrough(this.#runs, row);
  }

  has(id: PageId): boolean {
    return this.get(id) !== undefined;
  }

  /** Where the rows of an earlier shape, or of this one, stand in this one; null where this did not come of it, or a long time ago. */
  runsFrom(before: RowsById): RowRuns | null {
    if (before === this) return { from: [0], to: [this.size], by: [0] };
    let runs: RowRuns | null = null;
    let step = this.#step;
    for (let steps = 0; steps < MAX_STEPS && step !== null; steps++) {
      runs = runs === null ? step.runs : joinedRuns(step.runs, runs);
      const at: RowsById | undefined = step.before.deref();
      if (at === before) return runs;
      step = at === undefined ? null : at.#step;
    }
    return null;
  }
}

function baseOf(nodes: readonly Pick<SiteNode, 'id'>[]): Map<PageId, number> {
  const rows = new Map<PageId, number>();
  for (let row = 0; row < nodes.length; row++) rows.set(nodes[row]!.id, row);
  return rows;
}
