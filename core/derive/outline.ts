import type { PageId } from '../model/ids.ts';
import type { SiteNode } from '../model/node.ts';
import { type Site, addsStep } from '../model/site.ts';
import { type State, stateOf } from './state.ts';

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
  /** What each node's slug is in the site's language, or null where its type adds no step to addresses. */
  readonly slugs: readonly (string | null)[];
  readonly isPage: Uint8Array;
  readonly inMenus: Uint8Array;
  /** 0: not hidden by itself; 1: the page; 2: its branch. */
  readonly hidden: Uint8Array;
  /** The rows of links that lead to a page of the tree. */
  readonly aliases: readonly number[];
  /** How each node stands to what visitors have of it. */
  readonly states: readonly State[];
}

interface Known {
  readonly nodes: Site['nodes'];
  readonly live: Site['live'];
  readonly language: string;
  readonly outline: Outline;
}
/** The latest outline of each shape of the tree: edits that move nothing share one shape. */
const known = new WeakMap<Site['children'], Known>();

/**
 * The outline of a site; the same object again while the tree, what is live and the language are the same. After an
 * edit that leaves every node at its place only the columns are made anew, by copying what has not changed.
 */
export function outlineOf(site: Site): Outline {
  const { nodes, live } = site;
  const { language } = site.settings;
  const before = known.get(site.children);
  if (before?.nodes === nodes && before.live === live && before.language === language) return before.outline;
  const outline = before?.language === language ? patched(site, before) : makeOutline(site);
  known.set(site.children, { nodes, live, language, outline });
  return outline;
}

/** The outline of a site whose tree has the shape that it had before. */
function patched(site: Site, { nodes: nodesBefore, live: liveBefore, outline }: Known): Outline {
  if (site.nodes === nodesBefore) return { ...outline, states: statesOf(site, outline.nodes) };
  const nodes = outline.nodes.slice();
  const changed: number[] = [];
  for (let row = 0; row < nodes.length; row++) {
    const node = site.nodes.get(nodes[row]!.id)!;
    if (node === nodes[row]) continue;
    nodes[row] = node;
    changed.push(row);
  }
  if (changed.length > nodes.length / 8) {
    return { ...outline, nodes, ...columnsOf(nodes, site.settings.language), states: statesOf(site, nodes) };
  }
  const columns = {
    slugs: outline.slugs.slice(),
    isPage: outline.isPage.slice(),
    inMenus: outline.inMenus.slice(),
    hidden: outline.hidden.slice(),
  };
  let aliases = outline.aliases;
  for (const row of changed) {
    setColumns(columns, row, nodes[row]!, site.settings.language);
    const isAlias = leadsToPage(nodes[row]!);
    if (isAlias !== aliases.includes(row))
      aliases = isAlias ? [...aliases, row].sort((a, b) => a - b) : aliases.filter((one) => one !== row);
  }
  let states: State[];
  if (site.live === liveBefore) {
    states = outline.states.slice();
    for (const row of changed) states[row] = stateOf(site.live.get(nodes[row]!.id), nodes[row]!);
  } else states = statesOf(site, nodes);
  return { ...outline, nodes, ...columns, aliases, states };
}

const statesOf = ({ live }: Site, nodes: readonly SiteNode[]): State[] =>
  nodes.map((node) => stateOf(live.get(node.id), node));

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
    ...columnsOf(nodes, site.settings.language),
    states: statesOf(site, nodes),
  };
}

type Columns = Pick<Outline, 'slugs' | 'isPage' | 'inMenus' | 'hidden' | 'aliases'>;

function columnsOf(nodes: readonly SiteNode[], language: string): Columns {
  const columns = {
    slugs: new Array<string | null>(nodes.length),
    isPage: new Uint8Array(nodes.length),
    inMenus: new Uint8Array(nodes.length),
    hidden: new Uint8Array(nodes.length),
  };
  const aliases: number[] = [];
  for (let row = 0; row < nodes.length; row++) {
    const node = nodes[row]!;
    setColumns(columns, row, node, language);
    if (leadsToPage(node)) aliases.push(row);
  }
  return { ...columns, aliases };
}

function setColumns(
  columns: { slugs: (string | null)[]; isPage: Uint8Array; inMenus: Uint8Array; hidden: Uint8Array },
  row: number,
  node: SiteNode,
  language: string,
): void {
  columns.slugs[row] = addsStep(node, null) ? ((node.slug[language] ?? firstOf(node.slug))?.text ?? node.id) : null;
  columns.isPage[row] = node.type === 'page' ? 1 : 0;
  columns.inMenus[row] = node.inMenus ? 1 : 0;
  columns.hidden[row] = node.hidden === 'no' ? 0 : node.hidden === 'branch' ? 2 : 1;
}

const leadsToPage = (node: SiteNode): boolean => node.target !== null && 'page' in node.target;

function firstOf<Value>(values: Readonly<Record<string, Value>>): Value | undefined {
  for (const key in values) return values[key];
  return undefined;
}
