import { useVirtualizer } from '@tanstack/react-virtual';
import {
  type KeyboardEvent,
  type MouseEvent,
  useCallback,
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import type { Outline } from '#core/derive/outline.ts';
import { visibleRows } from '#core/derive/visible-rows.ts';
import type { PageId } from '#core/model/ids.ts';
import { useDrag } from '../drag/drag-context.ts';
import { LandingRail } from '../drag/landing-rail.tsx';
import { useSheetTarget } from '../drag/use-sheet-target.ts';
import { Button } from '../ui/button.tsx';
import { type Editing, type Selection, useWorkbench } from '../workbench/workbench-context.tsx';
import { isTyping } from '../workbench/keys.ts';
import { columnsWithRoom, tracksOf, useColumnLayout } from './column-layout.ts';
import { practiceBranch } from '#core/model/practice.ts';
import { EmptyTree } from './empty-tree.tsx';
import { HeaderRow } from './header-row.tsx';
import { markColumn } from './mark-column.tsx';
import { NewRow } from './new-row.tsx';
import { ROW_HEIGHT } from './rails.tsx';
import { rowData } from './row-data.ts';
import { Items, type NewItem } from './items.ts';
import { range, toggled, treeKey } from './tree-keys.ts';
import { TreeRow, cellDomId, rowDomId } from './tree-row.tsx';
import { useLatest } from '../ui/use-latest.ts';
import { useWidth } from '../ui/use-width.ts';

/** The tree as rows with the lens's columns: a WAI-ARIA treegrid with one tab stop, drawn as far as it shows. */
export function TreeSheet() {
  const workbench = useWorkbench();
  const { site, derived, lensParts, selection, open, found, isFlat, editing, latest } = workbench;
  const { outline } = derived;
  const [column, setColumn] = useState(-1);
  const scroller = useRef<HTMLDivElement>(null);
  const { columns, layout } = useColumnLayout(lensParts.columns, workbench.site, workbench.filter);
  const [measureWidth, width] = useWidth();
  const markName = workbench.marks?.name ?? null;
  const shownColumns = useMemo(
    () => columnsWithRoom(markName === null ? columns : [markColumn(markName), ...columns], layout, width),
    [columns, layout, width, markName],
  );

  const rows = useMemo(
    () => (found ? (isFlat ? [...found.matches] : found.rows) : visibleRows(outline, open)),
    [outline, open, found, isFlat],
  );
  const items = useMemo(
    () => new Items(outline, rows, found?.matches, editing?.kind === 'add' ? newItem(outline, editing) : null),
    [outline, rows, found, editing],
  );
  const itemsNow = useLatest(items);

  const virtual = useVirtualizer({
    count: items.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 6,
    useFlushSync: false,
    initialRect: { width: 900, height: 640 },
  });
  // Rows that come into sight by the wheel are made in small pieces, so that no frame waits for all of them.
  const [isWheeling, setWheeling] = useState(false);
  const rowsNow = virtual.getVirtualItems();
  const rowsLater = useDeferredValue(rowsNow);
  const shownRows = isWheeling ? rowsLater : rowsNow;
  const { isScrolling } = virtual;
  useEffect(() => {
    if (!isScrolling) setWheeling(false);
  }, [isScrolling]);
  const activeIndex = editing?.kind === 'add' ? items.indexOfNew : items.indexOf(selection.active);
  useEffect(() => {
    if (activeIndex !== -1) virtual.scrollToIndex(activeIndex, { align: 'auto' });
  }, [activeIndex, virtual]);

  const onPoint = useCallback(
    (event: MouseEvent, page: PageId) => {
      // A cell's menu hangs elsewhere in the document, though its events come through here.
      if (event.button !== 0 || !(event.target instanceof Element) || !event.currentTarget.contains(event.target))
        return;
      const now = latest();
      const hasModifier = event.shiftKey || event.ctrlKey || event.metaKey;
      const isOneOfSeveral = now.selection.chosen.has(page) && now.selection.chosen.size > 1;
      // Several selected rows can be dragged together, and a control in one of them is for all: pressing keeps them.
      const isControl = event.target.closest('button, input') !== null;
      if (isControl && now.selection.chosen.has(page)) return;
      if (event.type === 'click' ? !isOneOfSeveral || hasModifier : isOneOfSeveral && !hasModifier) return;
      setColumn(-1);
      now.select(selectionAfterPointing(now.selection, itemsNow(), page, event));
    },
    [latest, itemsNow],
  );
  const { drag } = useDrag();
  const onKeyDown = (event: KeyboardEvent) => {
    // While something is carried Escape is for that.
    if (isTyping(event.target) || drag !== null) return;
    // What a cell has opened, such as a menu, stands elsewhere in the document: its keys are its own.
    if (!event.currentTarget.contains(event.target as Node)) return;
    const isOurs = treeKey(event, {
      workbench,
      items,
      columnCount: shownColumns.length,
      column,
      setColumn,
      page: pageSize(scroller.current),
      press: (page, at) => document.getElementById(cellDomId(page, at))?.querySelector('button')?.click(),
    });
    if (isOurs) {
      event.preventDefault();
      event.stopPropagation();
    }
  };
  const landing = useSheetTarget(scroller, items);
  const activeId =
    selection.active !== null && activeIndex !== -1
      ? column === -1
        ? rowDomId(selection.active)
        : cellDomId(selection.active, column)
      : undefined;

  // A place to practise is no page of the site yet.
  if (practiceBranch(site).length === outline.nodes.length && editing === null) return <EmptyTree />;
  return (
    <div
      ref={measureWidth}
      data-tree-view
      role="treegrid"
      aria-label="Pages"
      aria-multiselectable
      aria-rowcount={items.length + 1}
      aria-colcount={shownColumns.length + 1}
      aria-activedescendant={activeId}
      tabIndex={0}
      onKeyDown={onKeyDown}
      className="group/tree flex min-h-0 flex-1 flex-col bg-raised outline-none"
      style={{ ['--columns' as string]: tracksOf(shownColumns, layout, width) }}
    >
      <HeaderRow columns={shownColumns} />
      <div
        ref={scroller}
        role="rowgroup"
        onWheel={() => setWheeling(true)}
        onTouchMove={() => setWheeling(true)}
        className="min-h-0 flex-1 overflow-x-hidden overflow-y-auto"
        style={{ scrollbarGutter: 'stable' }}
      >
        <div role="presentation" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {shownRows.map((shown) => {
            const item = items.at(shown.index);
            if (!item) return null;
            return (
              <div
                key={item.kind === 'new' ? 'new' : outline.nodes[item.row]!.id}
                role="presentation"
                // A row changes nothing outside of itself: what is drawn anew stays small.
                style={{
                  position: 'absolute',
                  top: shown.start,
                  left: 0,
                  right: 0,
                  height: ROW_HEIGHT,
                  contain: 'strict',
                }}
              >
                {item.kind === 'new' ? (
                  editing?.kind === 'add' && <NewRow adding={editing} depth={item.depth} />
                ) : (
                  <TreeRow
                    data={rowData(workbench, shownColumns, item, shown.index, column)}
                    latest={latest}
                    onPoint={onPoint}
                  />
                )}
              </div>
            );
          })}
          {landing && <LandingRail {...landing} />}
        </div>
        {items.length === 0 && <NothingFound />}
      </div>
    </div>
  );
}

function NothingFound() {
  const { query, clearFind } = useWorkbench();
  return (
    <div className="px-5 py-6">
      <p className="text-quiet">
        {query.trim() === ''
          ? 'No page matches this filter.'
          : `No page has ‘${query.trim()}’ in its title, address or text, within this filter.`}
      </p>
      <Button className="mt-3" onClick={clearFind}>
        Show the whole tree
      </Button>
    </div>
  );
}

/** The row that is being typed, where the page will stand. */
function newItem(outline: Outline, adding: Extract<Editing, { kind: 'add' }>): NewItem {
  const rowOf = (page: PageId | null) => (page === null ? -1 : (outline.rowOf.get(page) ?? -1));
  const parentRow = rowOf(adding.parent);
  const afterRow = rowOf(adding.after);
  const depth = parentRow === -1 ? 0 : outline.depth[parentRow]! + 1;
  return { before: afterRow !== -1 ? outline.end[afterRow]! : parentRow + 1, depth };
}

const pageSize = (scroller: HTMLDivElement | null): number =>
  Math.max(1, Math.floor((scroller?.clientHeight ?? 320) / ROW_HEIGHT) - 1);

function selectionAfterPointing(selection: Selection, items: Items, page: PageId, event: MouseEvent): Selection {
  if (event.shiftKey && selection.anchor !== null)
    return { active: page, chosen: range(items, selection.anchor, page), anchor: selection.anchor };
  if (event.ctrlKey || event.metaKey) return toggled(selection, page);
  return { active: page, chosen: new Set([page]), anchor: page };
}
