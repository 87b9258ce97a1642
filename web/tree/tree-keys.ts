import type { KeyboardEvent } from 'react';
import type { PageId } from '#core/model/ids.ts';
import type { Selection, Workbench } from '../workbench/workbench-context.tsx';
import type { Items } from './items.ts';

export interface TreeKeys {
  readonly workbench: Workbench;
  readonly items: Items;
  /** How many columns stand after the title. */
  readonly columnCount: number;
  readonly column: number;
  readonly setColumn: (column: number) => void;
  /** So many rows make a screen. */
  readonly page: number;
  /** Presses what can be pressed in a cell. */
  readonly press: (page: PageId, column: number) => void;
}

/** The selection with a page taken in, or taken out of it. */
export function toggled(selection: Selection, page: PageId): Selection {
  const chosen = new Set(selection.chosen);
  if (!chosen.delete(page)) chosen.add(page);
  return { active: page, chosen, anchor: page };
}

/** The pages of all rows between two. */
export function range(items: Items, from: PageId, to: PageId): Set<PageId> {
  const [first, last] = [items.indexOf(from), items.indexOf(to)].sort((a, b) => a - b) as [number, number];
  return new Set(items.pages(first, last));
}

/** The keys of the treegrid pattern of WAI-ARIA; gives whether the stroke was one of them. */
export function treeKey(event: KeyboardEvent, keys: TreeKeys): boolean {
  if (event.altKey) return false;
  const { workbench, items, columnCount, column, setColumn, page, press } = keys;
  const { selection, derived, open, setOpen, select, found } = workbench;
  const { outline } = derived;
  const at = items.indexOf(selection.active);
  const go = (index: number) => {
    const next = items.pageAt(Math.max(0, Math.min(items.length - 1, index)));
    if (next === null) return;
    const isRange = event.shiftKey && selection.anchor !== null;
    select({
      active: next,
      chosen: isRange ? range(items, selection.anchor!, next) : new Set([next]),
      anchor: isRange ? selection.anchor : next,
    });
  };
  if (event.ctrlKey || event.metaKey) {
    if (event.key.toLowerCase() !== 'a') return false;
    select({ ...selection, chosen: new Set(items.pages()) });
    return true;
  }
  const { active } = selection;
  const row = active === null ? undefined : outline.rowOf.get(active);
  const hasBelow = row !== undefined && outline.end[row]! > row + 1;
  const isOpen = active !== null && (open.has(active) || found !== null);
  switch (event.key) {
    case 'ArrowDown':
      go(at + 1);
      return true;
    case 'ArrowUp':
      go(at === -1 ? 0 : at - 1);
      return true;
    case 'PageDown':
      go(at + page);
      return true;
    case 'PageUp':
      go(at - page);
      return true;
    case 'Home':
      go(0);
      return true;
    case 'End':
      go(items.length - 1);
      return true;
    case 'ArrowRight':
      if (column === -1 && hasBelow && !isOpen) setOpen(active!, true);
      else setColumn(Math.min(column + 1, columnCount));
      return true;
    case 'ArrowLeft':
      if (column > -1) setColumn(column - 1);
      else if (hasBelow && isOpen && found === null) setOpen(active!, false);
      else if (row !== undefined && outline.parent[row] !== -1) go(items.indexOfRow(outline.parent[row]!));
      return true;
    case ' ':
      if (active === null) return true;
      if (column > 0) press(active, column);
      else select(toggled(selection, active));
      return true;
    case 'Enter':
      if (column > 0 && active !== null) press(active, column);
      else workbench.run('rename');
      return true;
    case 'Escape':
      if (workbench.cut.size > 0) workbench.forgetClip();
      else if (found !== null) workbench.clearFind();
      setColumn(-1);
      return true;
    default:
      return false;
  }
}
