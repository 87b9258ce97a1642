import { useVirtualizer } from '@tanstack/react-virtual';
import { Plus } from 'lucide-react';
import { type KeyboardEvent, type MouseEvent, type Ref, useEffect, useMemo, useRef, useState } from 'react';
import { findRows, visibleRows, withContext } from '#core/derive/visible-rows.ts';
import type { PageId } from '#core/model/ids.ts';
import { Button } from '../ui/button.tsx';
import { type Editing, type Workbench, useWorkbench } from '../workbench/workbench-context.tsx';
import { isTyping } from '../workbench/keys.ts';
import { COLUMNS } from './columns.tsx';
import { NewRow } from './new-row.tsx';
import { TreeRow, cellDomId, rowDomId } from './tree-row.tsx';

const ROW_HEIGHT = 32;
const NARROW = '(max-width: 767px)';

type Item =
  | { readonly kind: 'node'; readonly row: number; readonly isContext: boolean }
  | { readonly kind: 'new'; readonly depth: number };

/** The tree as rows with the lens's columns: a WAI-ARIA treegrid with one tab stop, drawn as far as it shows. */
export function TreeSheet({ ref }: { readonly ref: Ref<HTMLDivElement> }) {
  const workbench = useWorkbench();
  const { site, derived, lens, selection, open, query, onlyDiffering, editing, run, mayEdit } = workbench;
  const { outline } = derived;
  const [column, setColumn] = useState(-1);
  const scroller = useRef<HTMLDivElement>(null);

  const items = useMemo<Item[]>(() => {
    const found =
      query.trim() !== ''
        ? findRows(site, outline, query)
        : onlyDiffering
          ? withContext(outline, (row) => derived.states[row] === 'draft' || derived.states[row] === 'edited')
          : null;
    const rows = found?.rows ?? visibleRows(outline, open);
    const list: Item[] = rows.map((row) => ({ kind: 'node', row, isContext: found ? !found.matches.has(row) : false }));
    if (editing?.kind === 'add') insertNew(list, workbench, editing);
    return list;
    // The workbench is looked at through its parts that are listed.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [site, outline, open, query, onlyDiffering, editing]);

  const virtual = useVirtualizer({
    count: items.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 8,
    initialRect: { width: 900, height: 640 },
  });
  const activeIndex = items.findIndex((item) =>
    item.kind === 'new'
      ? editing?.kind === 'add'
      : editing?.kind !== 'add' && outline.nodes[item.row]!.id === selection.active,
  );
  useEffect(() => {
    if (activeIndex !== -1) virtual.scrollToIndex(activeIndex, { align: 'auto' });
  }, [activeIndex, virtual]);

  const point = (event: MouseEvent, page: PageId) => {
    // A cell's menu hangs elsewhere in the document, though its events come through here.
    if (event.button !== 0 || !(event.target instanceof Element) || !event.currentTarget.contains(event.target)) return;
    // A control in one of several selected rows is for all of them: the selection stays.
    const isControl = event.target.closest('button') !== null;
    if (isControl && selection.chosen.has(page)) return;
    setColumn(-1);
    workbench.select(selectionAfterPointing(workbench, items, page, event));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (isTyping(event.target)) return;
    if (treeKey(event, { workbench, items, column, setColumn, page: pageSize(scroller.current) })) {
      event.preventDefault();
      event.stopPropagation();
    }
  };
  const activeId =
    selection.active !== null && activeIndex !== -1
      ? column === -1
        ? rowDomId(selection.active)
        : cellDomId(selection.active, column)
      : undefined;
  const columns = COLUMNS[lens];
  const narrow = window.matchMedia(NARROW).matches;
  const template = [
    'minmax(13rem, 1.6fr)',
    ...columns.filter((one) => !narrow || !one.isMinor).map((one) => one.width),
  ].join(' ');

  if (outline.nodes.length === 0 && editing === null)
    return <EmptyTree onAdd={mayEdit ? () => run('addInside') : null} />;
  return (
    <div
      ref={ref}
      role="treegrid"
      aria-label="Pages"
      aria-multiselectable
      aria-rowcount={items.length + 1}
      aria-colcount={columns.length + 1}
      aria-activedescendant={activeId}
      tabIndex={0}
      onKeyDown={onKeyDown}
      className="group/tree flex min-h-0 flex-1 flex-col bg-raised outline-none"
      style={{ ['--columns' as string]: template }}
    >
      <div
        role="rowgroup"
        className="scrollbar-gutter-stable shrink-0 overflow-hidden border-b border-rule bg-paper"
        style={{ scrollbarGutter: 'stable' }}
      >
        <div
          role="row"
          aria-rowindex={1}
          className="grid h-7 items-center pr-2 text-small text-quiet"
          style={{ gridTemplateColumns: 'var(--columns)' }}
        >
          <div role="columnheader" className="pl-13.5">
            Title
          </div>
          {columns.map((one) => (
            <div key={one.name} role="columnheader" className={`truncate pr-2 ${one.isMinor ? 'max-md:hidden' : ''}`}>
              {one.name}
            </div>
          ))}
        </div>
      </div>
      <div
        ref={scroller}
        role="rowgroup"
        className="min-h-0 flex-1 overflow-y-auto"
        style={{ scrollbarGutter: 'stable' }}
      >
        <div role="presentation" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map((shown) => {
            const item = items[shown.index]!;
            return (
              <div
                key={item.kind === 'new' ? 'new' : outline.nodes[item.row]!.id}
                role="presentation"
                style={{ position: 'absolute', top: 0, left: 0, right: 0, transform: `translateY(${shown.start}px)` }}
              >
                {item.kind === 'new' ? (
                  editing?.kind === 'add' && <NewRow adding={editing} depth={item.depth} />
                ) : (
                  <TreeRow
                    row={item.row}
                    index={shown.index}
                    isActive={outline.nodes[item.row]!.id === selection.active}
                    activeColumn={column}
                    isContext={item.isContext}
                    onPoint={(event) => point(event, outline.nodes[item.row]!.id)}
                  />
                )}
              </div>
            );
          })}
        </div>
        {items.length === 0 && (
          <p className="px-5 py-6 text-quiet">
            {query.trim() === ''
              ? 'Nothing in the tree differs from what is live.'
              : `No title holds ‘${query.trim()}’. Escape in the find field shows the whole tree again.`}
          </p>
        )}
      </div>
    </div>
  );
}

function EmptyTree({ onAdd }: { readonly onAdd: (() => void) | null }) {
  return (
    <div className="flex flex-1 flex-col items-center justify-center gap-1 bg-raised p-8 text-center">
      <p className="font-display text-large font-semibold">The tree begins with one page</p>
      <p className="max-w-sm text-quiet">
        The first page becomes the home page. Type a title, press Enter, and go on with the next one.
      </p>
      {onAdd && (
        <Button look="main" className="mt-3" onClick={onAdd}>
          <Plus size={16} aria-hidden /> Add the first page
        </Button>
      )}
    </div>
  );
}

/** Puts the row that is being typed where the page will stand. */
function insertNew(list: Item[], { derived: { outline } }: Workbench, adding: Extract<Editing, { kind: 'add' }>): void {
  const rowOf = (page: PageId | null) => (page === null ? -1 : (outline.rowOf.get(page) ?? -1));
  const parentRow = rowOf(adding.parent);
  const afterRow = rowOf(adding.after);
  const depth = parentRow === -1 ? 0 : outline.depth[parentRow]! + 1;
  const end = afterRow !== -1 ? outline.end[afterRow]! : parentRow !== -1 ? parentRow + 1 : 0;
  const at = list.findIndex((item) => item.kind === 'node' && item.row >= end);
  list.splice(at === -1 ? list.length : at, 0, { kind: 'new', depth });
}

const pageSize = (scroller: HTMLDivElement | null): number =>
  Math.max(1, Math.floor((scroller?.clientHeight ?? 320) / ROW_HEIGHT) - 1);

const pageOfItem = (workbench: Workbench, item: Item | undefined): PageId | null =>
  item?.kind === 'node' ? workbench.derived.outline.nodes[item.row]!.id : null;

function selectionAfterPointing(
  workbench: Workbench,
  items: readonly Item[],
  page: PageId,
  event: MouseEvent,
): Workbench['selection'] {
  const { selection } = workbench;
  if (event.shiftKey && selection.anchor !== null)
    return { active: page, chosen: range(workbench, items, selection.anchor, page), anchor: selection.anchor };
  if (event.ctrlKey || event.metaKey) return toggled(selection, page);
  return { active: page, chosen: new Set([page]), anchor: page };
}

function toggled(selection: Workbench['selection'], page: PageId): Workbench['selection'] {
  const chosen = new Set(selection.chosen);
  if (!chosen.delete(page)) chosen.add(page);
  return { active: page, chosen, anchor: page };
}

function range(workbench: Workbench, items: readonly Item[], from: PageId, to: PageId): Set<PageId> {
  const pages = items.map((item) => pageOfItem(workbench, item));
  const [first, last] = [pages.indexOf(from), pages.indexOf(to)].sort((a, b) => a - b) as [number, number];
  return new Set(pages.slice(Math.max(first, 0), last + 1).filter((page) => page !== null));
}

interface TreeKeys {
  readonly workbench: Workbench;
  readonly items: readonly Item[];
  readonly column: number;
  readonly setColumn: (column: number) => void;
  /** So many rows make a screen. */
  readonly page: number;
}

/** The keys of the treegrid pattern; gives whether the stroke was one of them. */
function treeKey(event: KeyboardEvent, { workbench, items, column, setColumn, page }: TreeKeys): boolean {
  if (event.altKey) return false;
  const { selection, derived, open, setOpen, select, lens, query, onlyDiffering } = workbench;
  const { outline } = derived;
  const at = items.findIndex((item) => pageOfItem(workbench, item) === selection.active);
  const control = event.ctrlKey || event.metaKey;
  const go = (index: number) => {
    const next = pageOfItem(workbench, items[Math.max(0, Math.min(items.length - 1, index))]);
    if (next === null) return;
    const isRange = event.shiftKey && selection.anchor !== null;
    select({
      active: next,
      chosen: isRange ? range(workbench, items, selection.anchor!, next) : new Set([next]),
      anchor: isRange ? selection.anchor : next,
    });
  };
  if (control) {
    if (event.key.toLowerCase() !== 'a') return false;
    const all = items.map((item) => pageOfItem(workbench, item)).filter((id) => id !== null);
    select({ ...selection, chosen: new Set(all) });
    return true;
  }
  const { active } = selection;
  const row = active === null ? undefined : outline.rowOf.get(active);
  const hasBelow = row !== undefined && outline.end[row]! > row + 1;
  const isOpen = active !== null && (open.has(active) || query !== '' || onlyDiffering);
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
      else setColumn(Math.min(column + 1, COLUMNS[lens].length));
      return true;
    case 'ArrowLeft':
      if (column > -1) setColumn(column - 1);
      else if (hasBelow && isOpen && query === '' && !onlyDiffering) setOpen(active!, false);
      else if (row !== undefined && outline.parent[row] !== -1)
        go(items.findIndex((item) => item.kind === 'node' && item.row === outline.parent[row]));
      return true;
    case ' ':
      if (column > 0) pressCell(active, column);
      else if (active !== null) select(toggled(selection, active));
      return true;
    case 'Enter':
      if (column > 0) pressCell(active, column);
      else workbench.run('rename');
      return true;
    case 'Escape':
      if (query !== '') workbench.setQuery('');
      setColumn(-1);
      return true;
    default:
      return false;
  }
}

/** Presses what can be pressed in a cell. */
function pressCell(page: PageId | null, column: number): void {
  if (page !== null) document.getElementById(cellDomId(page, column))?.querySelector('button')?.click();
}
