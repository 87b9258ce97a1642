import { accessTable, accessTableAfter, membershipsOf } from '#core/derive/access.ts';
import { derivedOf } from '#core/derive/derived.ts';
import { menuTable } from '#core/derive/menu-table.ts';
import { outlineOf } from '#core/derive/outline.ts';
import { type Site, homeOf, makeSite } from '#core/model/site.ts';
import { type SiteNode, isNodeDifferent } from '#core/model/node.ts';
import { applyOperation } from '#core/operations/apply.ts';
import type { Operation } from '#core/operations/operation.ts';
import { generateSite } from './generate-site.ts';
import { type Result, median, ms } from './measure.ts';

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

const AT = Date.parse('2026-11-25T00:00:00Z');

/**
 * Derives everything for 1k, 10k and 100k pages: of a site that nothing is known of yet, and once more after one edit, each
 * beside a bare pass over flat arrays that makes the same columns, of the whole or of what the edit reaches. No round
 * meets a site that an earlier one has met, so that none is answered from a cache.
 */
export function benchDerive(): Result[] {
  return [1000, 10_000, 100_000].flatMap((size) => {
    const rounds = size > 50_000 ? 7 : 25;
    const site = generateSite(size);
    const rows = [...site.nodes.values()];
    const flat = flatten(site);
    const pages = `${size.toLocaleString('en')} pages`;
    const [cold, bareCold] = timePrepared(rounds, [
      [() => makeSite(site.key, site.settings, rows, [...site.live.values()], site.liveSettings), deriveAll],
      [() => null, () => barePass({ ...flat, ...bareOrder(rows) }, 0, size)],
    ]);
    return [
      row(
        `Derive everything of a site that is new, ${pages}`,
        cold!,
        bareCold!,
        'the arrays from rows, then a bare pass over them',
      ),
      ...editsOf(site).map(({ name, edit }) => afterEdit(`The same after ${name}, ${pages}`, site, flat, rounds, edit)),
    ];
  });
}

const row = (what: string, ours: number, limit: number, of: string): Result => ({
  what,
  ours: ms(ours),
  limit: `${ms(limit)}, ${of}`,
  ratio: ours / limit,
  aim: 'none set',
  isMet: true,
});

/** All that follows from a site: order, addresses, hiding, states, and the main menu's answer for each row. */
function deriveAll(site: Site): unknown {
  const derived = derivedOf(site);
  const { outline, addresses, hiddenBy, states } = derived;
  const table = menuTable(site, site.settings.menus[0]!, derived, null);
  let inMenu = 0;
  for (let at = 0; at < outline.nodes.length; at++) if (table.answerAt(at) === 'in') inMenu++;
  return [addresses, hiddenBy, states, inMenu];
}

interface Edit {
  readonly name: string;
  /** The edit of one round, which no other round makes. */
  readonly edit: (round: number) => Operation;
}

/** A rename, a branch moved and a rule, each on a branch of a typical size. */
function editsOf(site: Site): Edit[] {
  const { nodes, end, depth, parent } = outlineOf(site);
  const isTypical = (at: number) => depth[at] === 2 && nodes[at]!.type === 'page' && end[at]! - at >= 5;
  const at = nodes.findIndex((_, index) => index > nodes.length / 2 && isTypical(index));
  const page = nodes[at]!.id;
  const others = nodes.filter((_, index) => depth[index] === 1 && index !== parent[at]);
  return [
    { name: 'a rename', edit: (round) => ({ name: 'page.set', page, fields: { title: { en: `Renamed ${round}` } } }) },
    {
      name: 'a branch was moved',
      edit: (round) => ({ name: 'page.move', page, place: { parent: others[round % others.length]!.id } }),
    },
    {
      name: 'a rule was set',
      edit: (round) => ({
        name: 'page.set',
        page,
        fields: { access: { from: new Date(AT + round * 60_000).toISOString().replace('.000', '') } },
      }),
    },
  ];
}

function afterEdit(what: string, site: Site, flat: Flat, rounds: number, edit: Edit['edit']): Result {
  deriveAll(site);
  const { rowOf, end } = outlineOf(site);
  const audiences = membershipsOf(site.settings.audiences);
  const access = accessTable(outlineOf(site), site.settings, audiences, AT);
  let round = 0;
  const edited = () => {
    const outcome = applyOperation(site, edit(round++));
    if (!outcome.ok) throw new Error(outcome.code);
    return outcome;
  };
  const first = rowOf.get(edited().touched[0]!)!;
  const last = end[first]!;
  const [ours, bare] = timePrepared(rounds, [
    [
      () => edited().site,
      (after: Site) => {
        const rows = outlineOf(after);
        // As the workbench does it: where the tree is the same, only the branch that was edited.
        const isSameTree = after.children === site.children;
        return [deriveAll(after), isSameTree && accessTableAfter(access, rows, after.settings, audiences, AT, [first])];
      },
    ],
    [() => null, () => barePass(flat, first, last)],
  ]);
  return row(what, ours!, bare!, `a bare pass over the ${(last - first).toLocaleString('en')} rows of the branch`);
}

/** Work, and what makes ready what it is given. */
type Prepared = readonly [prepare: () => unknown, run: (given: never) => unknown];

/** The median milliseconds of each of several pieces of work, by turns; what each is given is made ready beforehand. */
function timePrepared(rounds: number, work: readonly Prepared[]): number[] {
  const times: number[][] = work.map(() => []);
  for (let round = 0; round < rounds + 2; round++) {
    work.forEach(([prepare, run], index) => {
      const given = prepare();
      const began = performance.now();
      run(given as never);
      // The first rounds warm up.
      if (round >= 2) times[index]!.push(performance.now() - began);
    });
  }
  return times.map(median);
}

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

/** The columns of the rows from `first` to `last`, the first of which stands at the top of what is passed over. */
function barePass({ parent, depth, slugs, type, hidden, inMenus, state }: Flat, first: number, last: number): unknown {
  const count = last - first;
  const paths: string[] = new Array<string>(count);
  const addresses: (string | null)[] = new Array<string | null>(count);
  const hiddenBy = new Int32Array(count);
  const branch = new Int32Array(count);
  const menu = new Uint8Array(count);
  const place = new Int32Array(count);
  const used = new Int32Array(count + 1);
  const states = new Uint8Array(count);
  for (let at = 0; at < count; at++) {
    const row = first + at;
    const above = Math.max(-1, parent[row]! - first);
    const before = above === -1 ? '' : paths[above]!;
    const path = type[row] === 3 ? '' : `${before}/${slugs[row]}`;
    paths[at] = path;
    addresses[at] = type[row] === 0 ? path : type[row] === 3 ? '/' : null;
    const inherited = above === -1 ? -1 : branch[above]!;
    branch[at] = inherited !== -1 ? inherited : hidden[row] === 2 ? row : -1;
    const by = inherited !== -1 ? inherited : hidden[row] === 0 ? -1 : row;
    hiddenBy[at] = by;
    if (by === -1 && inMenus[row] === 1 && depth[row]! < 2 && (above === -1 || menu[above] === 1)) {
      menu[at] = 1;
      place[at] = ++used[above + 1]!;
    }
    states[at] = state[row]!;
  }
  return { addresses, hiddenBy, menu, place, states };
}
