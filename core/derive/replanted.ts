import type { PageId } from '../model/ids.ts';
import type { SiteNode } from '../model/node.ts';
import type { Site } from '../model/site.ts';
import type { Outline } from './outline.ts';
import { rowLists, setColumns } from './outline-columns.ts';

/**
 * The outline of a site whose tree has another shape than that of an earlier outline. `touched` are the nodes that
 * differ. Only the lists of siblings in which one of these stood or stands are walked; every branch beside them is
 * copied in one piece. The columns of touched nodes are for the caller to set.
 */
export function replanted(before: Outline, site: Site, touched: ReadonlySet<PageId>): Outline {
  const dirty = dirtyParents(before, site, touched);
  const { language } = site.settings;
  // No node beside the touched ones is new, so there are at most so many rows.
  const most = before.nodes.length + touched.size;
  const nodes: SiteNode[] = [];
  const parent = new Int32Array(most);
  const depth = new Uint8Array(most);
  const end = new Int32Array(most);
  const rowOf = new Map<PageId, number>();
  const slugs: (string | null)[] = [];
  const isPage = new Uint8Array(most);
  const inMenus = new Uint8Array(most);
  const hidden = new Uint8Array(most);

  /** Copies a branch in which nothing has changed its place. */
  const copy = (from: number, parentRow: number, level: number) => {
    const to = before.end[from]!;
    const first = nodes.length;
    const [byRow, byLevel] = [first - from, level - before.depth[from]!];
    for (let row = from; row < to; row++) {
      const node = before.nodes[row]!;
      rowOf.set(node.id, nodes.length);
      nodes.push(node);
      slugs.push(before.slugs[row]!);
      parent[row + byRow] = before.parent[row]! + byRow;
      depth[row + byRow] = before.depth[row]! + byLevel;
      end[row + byRow] = before.end[row]! + byRow;
    }
    parent[first] = parentRow;
    isPage.set(before.isPage.subarray(from, to), first);
    inMenus.set(before.inMenus.subarray(from, to), first);
    hidden.set(before.hidden.subarray(from, to), first);
  };
  const walk = (above: PageId | null, aboveRow: number, level: number) => {
    for (const id of site.children.get(above) ?? []) {
      const old = before.rowOf.get(id);
      if (old !== undefined && !dirty.has(id)) {
        copy(old, aboveRow, level);
        continue;
      }
      const node = site.nodes.get(id)!;
      const row = nodes.length;
      nodes.push(node);
      rowOf.set(id, row);
      parent[row] = aboveRow;
      depth[row] = level;
      setColumns({ slugs, isPage, inMenus, hidden }, row, node, language);
      walk(id, row, level + 1);
      end[row] = nodes.length;
    }
  };
  walk(null, -1, 0);
  const count = nodes.length;
  return {
    nodes,
    parent: parent.subarray(0, count),
    depth: depth.subarray(0, count),
    end: end.subarray(0, count),
    rowOf,
    slugs,
    isPage: isPage.slice(0, count),
    inMenus: inMenus.slice(0, count),
    hidden: hidden.slice(0, count),
    ...rowLists(nodes),
  };
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
