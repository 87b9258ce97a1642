import type { PageId } from '#core/model/ids.ts';
import { NO_PERMISSION, type PermissionSet } from '#core/model/permission.ts';
import type { NodeType } from '#core/model/page-fields.ts';
import { textIn } from '#core/model/texts.ts';
import type { Marks, Workbench } from '../workbench/workbench-context.tsx';
import type { Column, Plain } from './columns.tsx';
import { type RailsData, railsOf } from './rails-data.ts';

/** All that one row shows, as plain values. */
export interface RowData {
  readonly page: PageId;
  readonly title: string;
  readonly type: NodeType;
  readonly index: number;
  readonly place: number;
  readonly count: number;
  readonly hasBelow: boolean;
  readonly isOpen: boolean;
  readonly isChosen: boolean;
  readonly isActive: boolean;
  /** The column that the keyboard is in, 0 for the title; -1 where the row as a whole has it. */
  readonly activeColumn: number;
  readonly isQuiet: boolean;
  readonly isCut: boolean;
  readonly isHome: boolean;
  readonly isPractice: boolean;
  /** Who else has it selected: their names, a line each; empty for nobody. */
  readonly here: string;
  readonly isRenaming: boolean;
  /** What may be done at the page; nothing where nothing can be changed. */
  readonly permissions: PermissionSet;
  /** How many comments wait here; for a closed branch also how many below. */
  readonly talk: number;
  readonly talkBelow: number;
  /** How it is marked: a column says why. */
  readonly mark: 'none' | 'faint' | 'full';
  readonly rails: RailsData;
  readonly columns: readonly Column[];
  readonly values: readonly (readonly Plain[])[];
}

/** What the sheet knows of a row that shows. */
export interface ShownRow {
  readonly row: number;
  readonly isContext: boolean;
}

export function rowData(
  workbench: Workbench,
  columns: readonly Column[],
  { row, isContext }: ShownRow,
  index: number,
  activeColumn: number,
): RowData {
  const { derived, site, selection, open, editing, found, marks, cut } = workbench;
  const { outline } = derived;
  const node = outline.nodes[row]!;
  const hasBelow = outline.end[row]! > row + 1;
  const isOpen = hasBelow && (found !== null ? !workbench.isFlat : open.has(node.id));
  const siblings = site.children.get(node.parent) ?? [];
  const isActive = node.id === selection.active && editing?.kind !== 'add';
  return {
    page: node.id,
    title: textIn(node.title, site.settings.language),
    type: node.type,
    index,
    place: siblings.indexOf(node.id) + 1,
    count: siblings.length,
    hasBelow,
    isOpen,
    isChosen: selection.chosen.has(node.id),
    isActive,
    activeColumn: isActive ? activeColumn : -1,
    isQuiet: isContext || derived.hiddenBy[row] !== -1,
    isCut: cut.has(node.id),
    isHome: derived.home === node.id,
    isPractice: site.practice === node.id,
    here: workbench.here.get(node.id) ?? '',
    isRenaming: editing?.kind === 'rename' && editing.page === node.id,
    permissions: heldToEdit(workbench, row),
    talk: workbench.talk?.open[row] ?? 0,
    talkBelow: isOpen ? 0 : (workbench.talk?.openInBranch[row] ?? 0) - (workbench.talk?.open[row] ?? 0),
    mark: markOf(marks, node.id),
    rails: railsOf(workbench, row, isOpen),
    columns,
    values: columns.map((column) => column.values(workbench, row)),
  };
}

/** What is held at a row of the tree for changing it. */
export const heldToEdit = ({ mayEdit, held }: Pick<Workbench, 'mayEdit' | 'held'>, row: number): PermissionSet =>
  mayEdit ? held.permissions[row]! : NO_PERMISSION;

export const markOf = (marks: Marks | null, page: PageId): RowData['mark'] =>
  marks?.words.has(page) !== true ? 'none' : marks.isFaint?.(page) ? 'faint' : 'full';

/** Whether two rows look the same. */
export function sameRow(a: RowData, b: RowData): boolean {
  for (const key in a) {
    const name = key as keyof RowData;
    if (name === 'rails') {
      if (a.rails.signature !== b.rails.signature) return false;
    } else if (name === 'values') {
      if (!a.values.every((values, at) => sameValues(values, b.values[at]))) return false;
    } else if (a[name] !== b[name]) return false;
  }
  return true;
}

const sameValues = (a: readonly Plain[], b: readonly Plain[] | undefined): boolean =>
  b !== undefined && a.length === b.length && a.every((value, at) => value === b[at]);
