import type { PageId } from '../model/ids.ts';
import type { SiteNode } from '../model/node.ts';
import type { Site } from '../model/site.ts';
import { knownBefore } from '../model/steps.ts';
import { columnsOf, refreshedColumns } from './outline-columns.ts';
import { replanted } from './replanted.ts';
import { RowsById } from './rows-by-id.ts';

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
  readonly rowOf: RowsById;
  /** What each node's slug is in the site's language, or null where its type adds no step to addresses. */
  readonly slugs: readonly (string | null)[];
  readonly isPage: Uint8Array;
  readonly inMenus: Uint8Array;
  /** 0: not hidden by itself; 1: the page; 2: its branch. */
  readonly hidden: Uint8Array;
  /** The rows of links that lead to a page of the tree. */
  readonly aliases: readonly number[];
  /** The rows of nodes with a rule of access of their own. */
  readonly ruled: readonly number[];
}

interface Known {
  readonly language: string;
  readonly outline: Outline;
}
/** The outlines of trees that are still looked at. */
const known = new WeakMap<Site['nodes'], Known>();
/** So many edits back an outline is looked for that can be gone on from. */
const MAX_STEPS = 64;
/** Where more nodes than these differ the outline is made anew. */
const MAX_TOUCHED = 500;

/**
 * The outline of a site; the same object again while the tree and the language are the same. After an edit it is made
 * of the outline before: what the edit did not touch is copied.
 */
export function outlineOf(site: Site): Outline {
  const { nodes } = site;
  const { language } = site.settings;
  const here = known.get(nodes);
  if (here?.language === language) return here.outline;
  const outline = fromBefore(site) ?? makeOutline(site);
  known.set(nodes, { language, outline });
  return outline;
}

/** The outline made of that of an earlier site; null where there is none, or where too much has changed since. */
function fromBefore(site: Site): Outline | null {
  const limits = { mostSteps: MAX_STEPS, mostTouched: MAX_TOUCHED };
  const found = knownBefore(site, (before) => known.get(before.nodes), limits);
  if (found?.known.language !== site.settings.language) return null;
  const { before, known: was, touched } = found;
  const moved = before.children === site.children ? was.outline : replanted(was.outline, site, touched);
  return refreshed(was.outline, moved, site, touched);
}

/** An outline with the nodes of a site in the columns, where these may differ from those that were; a column in which none does is the same object. */
function refreshed(was: Outline, outline: Outline, site: Site, touched: ReadonlySet<PageId>): Outline {
  const nodes = outline.nodes.slice();
  const rows: number[] = [];
  for (const id of touched) {
    const row = outline.rowOf.get(id);
    if (row === undefined) continue;
    nodes[row] = site.nodes.get(id)!;
    rows.push(row);
  }
  return { ...outline, nodes, ...refreshedColumns(was, outline, nodes, rows, site.settings.language) };
}

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
  const walk = (above: PageId | null, aboveRow: number, level: number) => {
    const below = site.children.get(above);
    if (!below) return;
    for (const id of below) {
      const row = nodes.length;
      nodes.push(site.nodes.get(id)!);
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
    rowOf: RowsById.of(nodes),
    ...columnsOf(nodes, site.settings.language),
  };
}
