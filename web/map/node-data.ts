import { has } from '#core/model/permission.ts';
import type { MapNode } from '#core/drawing/map-nodes.ts';
import { hasGate } from '#core/derive/audience-signs.ts';
import type { State } from '#core/derive/state.ts';
import type { Hidden } from '#core/model/page-fields.ts';
import { type RowData, heldToEdit, markOf } from '../tree/row-data.ts';
import { STATE_WORDS, pages } from '../tree/words.ts';
import type { Workbench } from '../workbench/workbench-context.tsx';
import type { DrawnMap } from './use-map-layout.ts';

/** All that one node of the map shows, as plain values: it is drawn anew only when one of them has changed. */
export interface NodeData {
  readonly node: MapNode;
  readonly x: number;
  readonly y: number;
  readonly isAcross: boolean;
  readonly depth: number;
  readonly place: number;
  readonly count: number;
  readonly below: number;
  readonly isOpen: boolean;
  readonly isChosen: boolean;
  readonly isActive: boolean;
  readonly isQuiet: boolean;
  readonly isCut: boolean;
  /** How it is marked, and why. */
  readonly mark: RowData['mark'];
  readonly markWords: string | null;
  readonly isHome: boolean;
  readonly isLink: boolean;
  readonly isHeading: boolean;
  readonly isRenaming: boolean;
  /** Whether it would stand in menus, and whether it is hidden, so that it does not. */
  readonly inMenus: boolean;
  readonly isCovered: boolean;
  readonly hasGate: boolean;
  readonly hidden: Hidden;
  readonly state: State;
  /** Whether it can be moved and renamed. */
  readonly mayShape: boolean;
}

/** What a node of the map shows; null where it is no page of the tree, or not any more. */
export function nodeData(workbench: Workbench, { nodes, layout }: DrawnMap, index: number): NodeData | null {
  const node = nodes[index]!;
  const { derived, site, selection, open, found, editing, cut, marks } = workbench;
  const { outline } = derived;
  // The layout may be of a moment ago: the page is looked up in the tree of now.
  const row = node.page === null ? undefined : outline.rowOf.get(node.page);
  if (row === undefined) return null;
  const page = outline.nodes[row]!;
  const siblings = site.children.get(page.parent) ?? [];
  const below = outline.end[row]! - row - 1;
  return {
    node,
    x: layout.x[index]!,
    y: layout.y[index]!,
    isAcross: layout.direction === 'across',
    depth: outline.depth[row]!,
    place: siblings.indexOf(page.id) + 1,
    count: siblings.length,
    below,
    isOpen: below > 0 && (found !== null || open.has(page.id)),
    isChosen: selection.chosen.has(page.id),
    isActive: selection.active === page.id && editing?.kind !== 'add',
    isQuiet: (found !== null && !found.matches.has(row)) || derived.hiddenBy[row] !== -1,
    isCut: cut.has(page.id),
    mark: markOf(marks, page.id),
    markWords: marks?.words.get(page.id) ?? null,
    isHome: derived.home === page.id,
    isLink: page.type === 'link',
    isHeading: page.type === 'heading',
    isRenaming: editing?.kind === 'rename' && editing.page === page.id,
    inMenus: outline.inMenus[row] === 1,
    isCovered: derived.hiddenBy[row] !== -1,
    hasGate: hasGate(site, page),
    hidden: page.hidden,
    state: derived.states[row]!,
    mayShape: has(heldToEdit(workbench, row), 'shape'),
  };
}

export const sameNode = (a: NodeData, b: NodeData): boolean =>
  (Object.keys(a) as (keyof NodeData)[]).every((key) =>
    key === 'node' ? sameText(a.node, b.node) : a[key] === b[key],
  );

const sameText = (a: MapNode, b: MapNode): boolean =>
  a === b ||
  (a.page === b.page &&
    a.number === b.number &&
    a.mark === b.mark &&
    a.note?.origin === b.note?.origin &&
    a.note?.words === b.note?.words &&
    a.width === b.width &&
    a.lines.length === b.lines.length &&
    a.lines.every((line, at) => line === b.lines[at]));

/** A node in words, for those who do not see it. */
export function nodeWords(
  {
    node,
    state,
    inMenus,
    hasGate: isGate,
    hidden,
    below,
    isOpen,
    isHome,
    isLink,
    isHeading,
    isCovered,
    markWords,
  }: NodeData,
  title: string,
): string {
  return [
    [node.number, title, node.mark].filter(Boolean).join(' '),
    isHome && 'home page',
    isLink && 'link',
    isHeading && 'heading',
    STATE_WORDS[state].toLowerCase(),
    inMenus && !isCovered ? 'in menus' : 'off menus',
    isGate && 'access narrows here',
    hidden === 'page' && 'hidden',
    hidden === 'branch' && 'branch hidden',
    node.note?.words,
    // A map of the past has them beside the title.
    node.mark === null && markWords,
    below > 0 && !isOpen && `${pages(below)} below`,
  ]
    .filter(Boolean)
    .join(', ');
}
