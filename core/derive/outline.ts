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

const known = new WeakMap<Site['nodes'], { live: Site['live']; language: string; outline: Outline }>();

/** The outline of a site; the same object again while the tree, what is live and the language are the same. */
export function outlineOf(site: Site): Outline {
  const { live } = site;
  const { language } = site.settings;
  const before = known.get(site.nodes);
  if (before?.live === live && before.language === language) return before.outline;
  const outline =
    before?.language === language
      ? { ...before.outline, states: statesOf(site, before.outline.nodes) }
      : makeOutline(site);
  known.set(site.nodes, { live, language, outline });
  return outline;
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

function columnsOf(
  nodes: readonly SiteNode[],
  language: string,
): Pick<Outline, 'slugs' | 'isPage' | 'inMenus' | 'hidden' | 'aliases'> {
  const slugs: (string | null)[] = new Array<string | null>(nodes.length);
  const isPage = new Uint8Array(nodes.length);
  const inMenus = new Uint8Array(nodes.length);
  const hidden = new Uint8Array(nodes.length);
  const aliases: number[] = [];
  for (let row = 0; row < nodes.length; row++) {
    const node = nodes[row]!;
    slugs[row] = addsStep(node, null) ? ((node.slug[language] ?? firstOf(node.slug))?.text ?? node.id) : null;
    if (node.type === 'page') isPage[row] = 1;
    if (node.inMenus) inMenus[row] = 1;
    if (node.hidden !== 'no') hidden[row] = node.hidden === 'branch' ? 2 : 1;
    if (node.target !== null && 'page' in node.target) aliases.push(row);
  }
  return { slugs, isPage, inMenus, hidden, aliases };
}

function firstOf<Value>(values: Readonly<Record<string, Value>>): Value | undefined {
  for (const key in values) return values[key];
  return undefined;
}
