import type { Outline } from '../derive/outline.ts';
import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import { pathOfOldAddress } from './old-address.ts';
import type { Settled } from './settle.ts';

/** Whose sections are gone through: the branches of the plan, or the parts of the old site. */
export type SectionsOf = 'plan' | 'old';

/** A part of the carry-over that is looked at by itself. */
export interface CarryOverSection {
  /** The page at the top of the branch, or what the old addresses begin with. */
  readonly key: string;
  readonly name: string;
  readonly planned: ReadonlySet<PageId>;
  readonly old: ReadonlySet<string>;
  /** How many of its own pages there are, planned or old ones, and how many of these are settled. */
  readonly all: number;
  readonly settled: number;
}

type Lines = readonly { readonly old: string; readonly planned: PageId }[];

/** What the addresses of pages begin with that stand in no folder. */
const NO_FOLDER = '/';

/**
 * The sections of the plan or of the old site, in their order. On the other side stand the pages that their pages come from or become,
 * by what is settled and what is proposed (`lines`), and those without a line in a section that mostly belongs to this one: there
 * the missing partner is likely.
 */
export function sectionsOf(
  site: Site,
  outline: Outline,
  oldPages: readonly { readonly address: string }[],
  lines: Lines,
  { withoutSource, withoutPlace }: Pick<Settled, 'withoutSource' | 'withoutPlace'>,
  of: SectionsOf,
): CarryOverSection[] {
  const branchOf = branches(outline);
  const planned = groups(
    outline.nodes.flatMap((node, row) => (node.type === 'page' ? [[node.id, branchOf[row]!] as const] : [])),
  );
  const old = groups(oldPages.map(({ address }) => [address, folderOf(address)] as const));
  const nameOf = (key: string) => {
    const row = outline.rowOf.get(key as PageId);
    return row === undefined ? '' : textIn(outline.nodes[row]!.title, site.settings.language);
  };
  const sources = new Set<string>(withoutSource);
  const places = new Set<string>(withoutPlace);
  return of === 'plan'
    ? [...planned.members].map(([key, own]) => {
        const others = partners(
          own,
          lines.map(({ old: there, planned: here }) => [here, there] as const),
          old,
          planned,
        );
        return section(key, nameOf(key), own, sources, { planned: own, old: others });
      })
    : [...old.members].sort(byKey).map(([key, own]) => {
        const others = partners(
          own,
          lines.map(({ old: here, planned: there }) => [here, there] as const),
          planned,
          old,
        );
        return section(key, key === NO_FOLDER ? 'In no folder' : key, own, places, { planned: others, old: own });
      });
}

interface Groups<Key extends string> {
  readonly members: ReadonlyMap<string, ReadonlySet<Key>>;
  readonly groupOf: ReadonlyMap<Key, string>;
}

function groups<Key extends string>(pairs: readonly (readonly [key: Key, group: string])[]): Groups<Key> {
  const members = new Map<string, Set<Key>>();
  for (const [key, group] of pairs) {
    const known = members.get(group);
    if (known) known.add(key);
    else members.set(group, new Set([key]));
  }
  return { members, groupOf: new Map(pairs) };
}

/** The partners of pages, and the pages without a partner of sections that mostly have theirs among these. */
function partners<Here extends string, There extends string>(
  own: ReadonlySet<Here>,
  lines: readonly (readonly [here: Here, there: There])[],
  others: Groups<There>,
  ours: Groups<Here>,
): ReadonlySet<There> {
  const found = new Set<There>();
  const hasLine = new Set<There>();
  const mine = new Map<string, number>();
  const all = new Map<string, number>();
  for (const [here, there] of lines) {
    const group = others.groupOf.get(there);
    if (group === undefined || !ours.groupOf.has(here)) continue;
    hasLine.add(there);
    all.set(group, (all.get(group) ?? 0) + 1);
    if (!own.has(here)) continue;
    found.add(there);
    mine.set(group, (mine.get(group) ?? 0) + 1);
  }
  for (const [group, count] of mine) {
    if (2 * count <= all.get(group)!) continue;
    for (const one of others.members.get(group)!) if (!hasLine.has(one)) found.add(one);
  }
  return found;
}

function section(
  key: string,
  name: string,
  own: ReadonlySet<string>,
  open: ReadonlySet<string>,
  sides: Pick<CarryOverSection, 'planned' | 'old'>,
): CarryOverSection {
  let settled = 0;
  for (const one of own) if (!open.has(one)) settled += 1;
  return { key, name, ...sides, all: own.size, settled };
}

/** The top of the branch that each row stands in. Where all stands below one page, its children are the branches. */
function branches({ nodes, parent, depth, end }: Outline): readonly PageId[] {
  const isOneTree = nodes.length > 1 && end[0] === nodes.length;
  const top = isOneTree ? 1 : 0;
  const result: PageId[] = [];
  nodes.forEach((node, row) => {
    result.push(depth[row]! <= top ? node.id : result[parent[row]!]!);
  });
  return result;
}

/** The first folder of an old address; the script, where pages are told apart by what stands behind a question mark. */
function folderOf(address: string): string {
  const [path = '', query] = pathOfOldAddress(address).split('?');
  const steps = path.split('/').filter((step) => step !== '');
  if (steps.length > 1) return `/${steps[0]!}/`;
  return query === undefined || steps.length === 0 ? NO_FOLDER : `/${steps[0]!}`;
}

const byKey = ([a]: readonly [string, unknown], [b]: readonly [string, unknown]): number =>
  a < b ? -1 : a > b ? 1 : 0;
