import { type Derived, derive } from '#core/derive/derived.ts';
import { menuTable } from '#core/derive/menu-table.ts';
import { makeOutline, outlineOf } from '#core/derive/outline.ts';
import { type Site, homeOf } from '#core/model/site.ts';
import { type SiteNode, isNodeDifferent } from '#core/model/node.ts';
import { generateSite } from './generate-site.ts';
import { type Result, ms, timeByTurns } from './measure.ts';

/** What the bare pass reads: flat arrays of numbers and slugs, nothing to look up. */
interface Flat {
  readonly parent: Int32Array;
  readonly depth: Uint8Array;
  readonly slugs: readonly string[];
  /** 0 page, 1 heading, 2 link, 3 home. */
  readonly type: Uint8Array;
  readonly hidden: Uint8Array;
  readonly inMenus: Uint8Array;
  /** 0 draft, 1 live, 2 edited, 3 retired. */
  readonly state: Uint8Array;
}

/** Derives everything for 1k, 10k and 100k pages beside a bare pass over flat arrays that makes the same columns. */
export function benchDerive(): Result[] {
  return [1000, 10_000, 100_000].flatMap((size) => {
    const site = generateSite(size);
    const outline = outlineOf(site);
    const flat = flatten(site);
    const rows = [...site.nodes.values()];
    const [ours, bare, oursWhole, bareWhole] = timeByTurns(size > 50_000 ? 9 : 40, [
      () => withMenu(site, derive(site, outline)),
      () => barePass(flat),
      () => withMenu(site, derive(site, makeOutline(site))),
      () => barePass({ ...flat, ...bareOrder(rows) }),
    ]) as [number, number, number, number];
    const pages = `${size.toLocaleString('en')} pages`;
    return [
      {
        what: `Derive everything, ${pages}`,
        ours: ms(ours),
        limit: `${ms(bare)}, a bare pass over flat arrays`,
        ratio: ours / bare,
        aim: '≤ 3',
        isMet: ours / bare <= 3,
      },
      {
        what: `The same from the persistent tree, ${pages}`,
        ours: ms(oursWhole),
        limit: `${ms(bareWhole)}, the arrays from rows, then the pass`,
        ratio: oursWhole / bareWhole,
        aim: 'none set',
        isMet: true,
      },
    ];
  });
}

/** The main menu with it, since the bare pass has one. */
const withMenu = (site: Site, derived: Derived): unknown => menuTable(site, site.settings.menus[0]!, derived, null);

/** The flat arrays of the tree's shape from rows in any order: siblings sorted, then one walk. */
function bareOrder(rows: readonly SiteNode[]): Pick<Flat, 'parent' | 'depth'> {
  const below = new Map<string | null, SiteNode[]>();
  for (const row of rows) {
    const siblings = below.get(row.parent);
    if (siblings) siblings.push(row);
    else below.set(row.parent, [row]);
  }
  for (const siblings of below.values()) siblings.sort((a, b) => (a.order < b.order ? -1 : 1));
  const parent = new Int32Array(rows.length);
  const depth = new Uint8Array(rows.length);
  let next = 0;
  const walk = (above: string | null, aboveRow: number, level: number) => {
    for (const node of below.get(above) ?? []) {
      const row = next++;
      parent[row] = aboveRow;
      depth[row] = level;
      walk(node.id, row, level + 1);
    }
  };
  walk(null, -1, 0);
  return { parent, depth };
}

function flatten(site: Site): Flat {
  const { nodes, parent, depth } = outlineOf(site);
  const home = homeOf(site);
  return {
    parent,
    depth,
    slugs: nodes.map((node) => node.slug.en?.text ?? ''),
    type: Uint8Array.from(nodes, (node) => (node.id === home ? 3 : ['page', 'heading', 'link'].indexOf(node.type))),
    hidden: Uint8Array.from(nodes, (node) => ['no', 'page', 'branch'].indexOf(node.hidden)),
    inMenus: Uint8Array.from(nodes, (node) => (node.inMenus ? 1 : 0)),
    state: Uint8Array.from(nodes, (node) => {
      const entry = site.live.get(node.id);
      return !entry ? 0 : entry.retired ? 3 : isNodeDifferent(node, entry.node) ? 2 : 1;
    }),
  };
}

function barePass({ parent, depth, slugs, type, hidden, inMenus, state }: Flat): unknown {
  const count = parent.length;
  const paths: string[] = new Array<string>(count);
  const addresses: (string | null)[] = new Array<string | null>(count);
  const hiddenBy = new Int32Array(count);
  const branch = new Int32Array(count);
  const menu = new Uint8Array(count);
  const place = new Int32Array(count);
  const used = new Int32Array(count + 1);
  const states = new Uint8Array(count);
  for (let row = 0; row < count; row++) {
    const above = parent[row]!;
    const before = above === -1 ? '' : paths[above]!;
    const path = type[row] === 3 ? '' : `${before}/${slugs[row]}`;
    paths[row] = path;
    addresses[row] = type[row] === 0 ? path : type[row] === 3 ? '/' : null;
    const inherited = above === -1 ? -1 : branch[above]!;
    branch[row] = inherited !== -1 ? inherited : hidden[row] === 2 ? row : -1;
    const by = inherited !== -1 ? inherited : hidden[row] === 0 ? -1 : row;
    hiddenBy[row] = by;
    if (by === -1 && inMenus[row] === 1 && depth[row]! < 2 && (above === -1 || menu[above] === 1)) {
      menu[row] = 1;
      place[row] = ++used[above + 1]!;
    }
    states[row] = state[row]!;
  }
  return { addresses, hiddenBy, menu, place, states };
}
