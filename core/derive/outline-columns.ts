import { isShownWhenNeeded } from '../model/access.ts';
import type { SiteNode } from '../model/node.ts';
import { addsStep } from '../model/site.ts';
import type { Outline } from './outline.ts';
import { rowThrough } from './row-runs.ts';

type Columns = Pick<Outline, 'slugs' | 'isPage' | 'inMenus' | 'hidden' | 'aliases' | 'ruled'>;

/** The columns of an outline that say what each node is by itself. */
export function columnsOf(nodes: readonly SiteNode[], language: string): Columns {
  const columns = {
    slugs: new Array<string | null>(nodes.length),
    isPage: new Uint8Array(nodes.length),
    inMenus: new Uint8Array(nodes.length),
    hidden: new Uint8Array(nodes.length),
  };
  for (let row = 0; row < nodes.length; row++) setColumns(columns, row, nodes[row]!, language);
  return { ...columns, ...rowLists(nodes) };
}

/**
 * The columns with some rows set anew. A column in which these rows are as they were is the same object: what follows from it stays.
 * @param was the outline before, whose lists of rows are gone on from @param before the same with its rows where they are now
 */
export function refreshedColumns(
  was: Pick<Outline, 'rowOf' | 'aliases' | 'ruled'>,
  before: Columns & Pick<Outline, 'rowOf'>,
  nodes: readonly SiteNode[],
  rows: readonly number[],
  language: string,
): Columns {
  const columns = {
    slugs: before.slugs.slice(),
    isPage: before.isPage.slice(),
    inMenus: before.inMenus.slice(),
    hidden: before.hidden.slice(),
  };
  for (const row of rows) setColumns(columns, row, nodes[row]!, language);
  const kept = <Name extends keyof typeof columns>(name: Name): Columns[Name] =>
    rows.every((row) => columns[name][row] === before[name][row]) ? before[name] : (columns[name] as Columns[Name]);
  const isSameShape = before.rowOf === was.rowOf;
  const runs = before.rowOf.runsFrom(was.rowOf)!;
  const set = new Set(rows);
  const listAfter = (name: 'aliases' | 'ruled', isListed: (node: SiteNode) => boolean): readonly number[] => {
    const added = rows.filter((row) => isListed(nodes[row]!));
    const left = was[name].flatMap((row) => rowThrough(runs, row) ?? []);
    const stay = left.filter((row) => !set.has(row));
    if (isSameShape && stay.length === left.length && added.length === 0) return was[name];
    return [...stay, ...added].sort((a, b) => a - b);
  };
  return {
    slugs: kept('slugs'),
    isPage: kept('isPage'),
    inMenus: kept('inMenus'),
    hidden: kept('hidden'),
    aliases: listAfter('aliases', isAlias),
    ruled: listAfter('ruled', isRuled),
  };
}

/** Sets the columns of one row. */
function setColumns(
  columns: { slugs: (string | null)[]; isPage: Uint8Array; inMenus: Uint8Array; hidden: Uint8Array },
  row: number,
  node: SiteNode,
  language: string,
): void {
  columns.slugs[row] = stepOf(node, language);
  columns.isPage[row] = node.type === 'page' ? 1 : 0;
  columns.inMenus[row] = node.inMenus && !isShownWhenNeeded(node) ? 1 : 0;
  columns.hidden[row] = node.hidden === 'no' ? 0 : node.hidden === 'branch' ? 2 : 1;
}

/** The step that a node adds to addresses unless it is home: its slug in the language, or else in another one; null where its type adds none. */
export const stepOf = (node: SiteNode, language: string): string | null =>
  addsStep(node, null) ? ((node.slug[language] ?? firstOf(node.slug))?.text ?? node.id) : null;

/** The rows of links that lead to a page of the tree, and those of nodes with a rule of access. */
function rowLists(nodes: readonly SiteNode[]): { aliases: number[]; ruled: number[] } {
  const aliases: number[] = [];
  const ruled: number[] = [];
  for (let row = 0; row < nodes.length; row++) {
    const node = nodes[row]!;
    if (isAlias(node)) aliases.push(row);
    if (isRuled(node)) ruled.push(row);
  }
  return { aliases, ruled };
}

const isAlias = ({ target }: SiteNode): boolean => target !== null && 'page' in target;
const isRuled = ({ access }: SiteNode): boolean => access !== null;

function firstOf<Value>(values: Readonly<Record<string, Value>>): Value | undefined {
  for (const key in values) return values[key];
  return undefined;
}
