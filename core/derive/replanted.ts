import type { PageId } from '../model/ids.ts';
import type { SiteNode } from '../model/node.ts';
import type { Site } from '../model/site.ts';
import type { Outline } from './outline.ts';
import { type RowRun, type RowRuns, carriedColumn, carriedValues, makeRuns } from './row-runs.ts';

/**
 * The outline of a site whose tree has another shape than that of an earlier outline. `touched` are the nodes that
 * differ. Only the lists of siblings in which one of these stood or stands are walked; all rows between them are
 * copied in long pieces. The columns of touched nodes, and the lists of rows, are for the caller to set.
 */
export function replanted(before: Outline, site: Site, touched: ReadonlySet<PageId>): Outline {
  const { runs, copied, walked, count } = placesAfter(before, site, touched);
  const nodes = carriedValues(before.nodes, runs, count);
  const slugs = carriedValues(before.slugs, runs, count);
  const parent = new Int32Array(count);
  const depth = carriedColumn(before.depth, runs, new Uint8Array(count));
  const end = new Int32Array(count);
  runs.from.forEach((first, at) => {
    const [to, by] = [runs.to[at]!, runs.by[at]!];
    for (let row = first; row < to; row++) {
      parent[row + by] = before.parent[row]! + by;
      end[row + by] = before.end[row]! + by;
    }
  });
  for (const { row, parentRow, deeper } of copied) {
    parent[row] = parentRow;
    if (deeper !== 0) for (let below = row; below < end[row]!; below++) depth[below]! += deeper;
  }
  const added = new Map<PageId, number>();
  for (const { row, parentRow, rowEnd, level, node } of walked) {
    parent[row] = parentRow;
    end[row] = rowEnd;
    depth[row] = level;
    if (node === null) continue;
    nodes[row] = node;
    slugs[row] = null;
    added.set(node.id, row);
  }
  return {
    ...before,
    nodes,
    parent,
    depth,
    end,
    rowOf: before.rowOf.after(nodes, runs, added),
    slugs,
    isPage: carriedColumn(before.isPage, runs, new Uint8Array(count)),
    inMenus: carriedColumn(before.inMenus, runs, new Uint8Array(count)),
    hidden: carriedColumn(before.hidden, runs, new Uint8Array(count)),
  };
}

/** Where rows go in a new shape of the tree. */
interface Places {
  readonly runs: RowRuns;
  /** The tops of branches that are copied in one piece, `deeper` by so many levels than before. */
  readonly copied: { readonly row: number; readonly parentRow: number; readonly deeper: number }[];
  /** The rows between them; `node` where it had no row before. */
  readonly walked: {
    readonly row: number;
    readonly parentRow: number;
    readonly rowEnd: number;
    readonly level: number;
    readonly node: SiteNode | null;
  }[];
  readonly count: number;
}

function placesAfter(before: Outline, site: Site, touched: ReadonlySet<PageId>): Places {
  const dirty = dirtyParents(before, site, touched);
  const pieces: RowRun[] = [];
  const copied: Places['copied'] = [];
  const walked: Places['walked'] = [];
  let count = 0;
  const walk = (above: PageId | null, parentRow: number, level: number) => {
    for (const id of site.children.get(above) ?? []) {
      const row = count;
      const old = before.rowOf.get(id);
      if (old !== undefined && !dirty.has(id)) {
        const to = before.end[old]!;
        pieces.push({ from: old, to, by: row - old });
        copied.push({ row, parentRow, deeper: level - before.depth[old]! });
        count += to - old;
        continue;
      }
      count++;
      walk(id, row, level + 1);
      if (old !== undefined) pieces.push({ from: old, to: old + 1, by: row - old });
      walked.push({ row, parentRow, rowEnd: count, level, node: old === undefined ? site.nodes.get(id)! : null });
    }
  };
  walk(null, -1, 0);
  return { runs: makeRuns(pieces), copied, walked, count };
}

/** The nodes whose branch has to be walked: those that lost or gained one below them, and all above these. */
function dirtyParents(before: Outline, site: Site, touched: ReadonlySet<PageId>): ReadonlySet<PageId> {
  const dirty = new Set<PageId>();
  const mark = (id: PageId | null) => {
    for (let at = id; at !== null && !dirty.has(at); at = site.nodes.get(at)?.parent ?? null) dirty.add(at);
  };
  for (const id of touched) {
    const old = before.rowOf.get(id);
    const node = site.nodes.get(id);
    if (node && node.removedWith === null) mark(node.parent);
    if (old === undefined) continue;
    // Where it stood, as far as that is in the tree still; and all that stood above it there.
    for (let row = before.parent[old]!; row !== -1; row = before.parent[row]!) mark(before.nodes[row]!.id);
  }
  return dirty;
}
