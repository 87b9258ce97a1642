import type { PageId } from '../model/ids.ts';
import type { SiteNode } from '../model/node.ts';
import type { LiveNode, Site } from '../model/site.ts';

/**
 * The tree in tree order, as flat arrays: what is derived from the tree is one pass over these. Row `i` stands before
 * all below it, which are the rows from `i + 1` to `end[i] - 1`.
 */
export interface Outline {
  readonly nodes: readonly SiteNode[];
  /** The row of the parent, -1 at the top. */
  readonly parent: Int32Array;
  readonly depth: Uint8Array;
  readonly end: Int32Array;
  readonly rowOf: ReadonlyMap<PageId, number>;
  /** What visitors have of each node. */
  readonly live: readonly (LiveNode | undefined)[];
}

const known = new WeakMap<Site['nodes'], { of: Site['live']; outline: Outline }>();

/** The outline of a site; the same object again while the tree and what is live are the same. */
export function outlineOf(site: Site): Outline {
  const before = known.get(site.nodes);
  if (before?.of === site.live) return before.outline;
  const outline = before ? { ...before.outline, live: liveColumn(site, before.outline.nodes) } : makeOutline(site);
  known.set(site.nodes, { of: site.live, outline });
  return outline;
}

const liveColumn = ({ live }: Site, nodes: readonly SiteNode[]): (LiveNode | undefined)[] =>
  live.size === 0 ? new Array<undefined>(nodes.length) : nodes.map((node) => live.get(node.id));

/** The row of a node. @throws where the node does not stand in the tree. */
export function rowOf(outline: Outline, id: PageId): number {
  const row = outline.rowOf.get(id);
  if (row === undefined) throw new Error(`No node '${id}' in the outline; ask outline.rowOf where it may be missing.`);
  return row;
}

/** The outline made anew, in one walk down the tree. */
export function makeOutline(site: Site): Outline {
  const size = site.nodes.size;
  const nodes: SiteNode[] = [];
  const parent = new Int32Array(size);
  const depth = new Uint8Array(size);
  const end = new Int32Array(size);
  const rows = new Map<PageId, number>();
  const walk = (above: PageId | null, aboveRow: number, level: number) => {
    const below = site.children.get(above);
    if (!below) return;
    for (const id of below) {
      const row = nodes.length;
      nodes.push(site.nodes.get(id)!);
      rows.set(id, row);
      parent[row] = aboveRow;
      depth[row] = level;
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
    rowOf: rows,
    live: liveColumn(site, nodes),
  };
}
