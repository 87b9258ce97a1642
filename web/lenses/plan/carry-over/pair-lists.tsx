import { useDroppable } from '@dnd-kit/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { LET_GO, ROW, useCarryOverState } from './carry-over-context.ts';
import { type OldOrder, inOrder, linesBySide } from './list-order.ts';
import { OldRow } from './old-row.tsx';
import { PairLines } from './pair-lines.tsx';
import { PlannedRow } from './planned-row.tsx';

const ORDERS: readonly { readonly value: OldOrder; readonly words: string }[] = [
  { value: 'plan', words: 'As the plan' },
  { value: 'visits', words: 'By visits' },
  { value: 'address', words: 'By address' },
];
type Left = 'all' | 'open';

/** Both lists, each scrolled for itself, and the lines between them. */
export function PairLists({ dragged }: { readonly dragged: string | null }) {
  const { derived } = useWorkbench();
  const { pages, lines, settled, chosen, choose, section } = useCarryOverState();
  const { outline } = derived;
  const [order, setOrder] = useState<OldOrder>('plan');
  const [left, setLeft] = useState<Left>('all');
  const sides = useMemo(() => linesBySide(lines), [lines]);
  const old = useMemo(() => {
    const open = new Set(settled.withoutPlace);
    const shown = pages.filter(
      ({ address }) => (left === 'all' || open.has(address)) && (section === null || section.old.has(address)),
    );
    return inOrder(shown, order, (address) => sides.ofOld.get(address)?.[0]?.planned, outline.rowOf);
  }, [pages, settled, left, order, sides, outline, section]);
  const planned = useMemo(() => {
    const open = new Set(settled.withoutSource);
    return outline.nodes.filter((node) => {
      const isLeft = () => open.has(node.id) || sides.ofPlanned.get(node.id)?.some(({ pair }) => pair !== null);
      return node.type === 'page' && (section === null || section.planned.has(node.id)) && (left === 'all' || isLeft());
    });
  }, [outline, settled, left, sides, section]);
  const oldAt = useMemo(() => new Map(old.map((page, at) => [page.address, at])), [old]);
  const plannedAt = useMemo(() => new Map(planned.map((node, at) => [node.id, at])), [planned]);

  const oldScroller = useRef<HTMLDivElement>(null);
  const plannedScroller = useRef<HTMLDivElement>(null);
  const oldRows = useVirtualizer({
    count: old.length,
    getScrollElement: () => oldScroller.current,
    estimateSize: () => ROW,
    overscan: 8,
  });
  const plannedRows = useVirtualizer({
    count: planned.length,
    getScrollElement: () => plannedScroller.current,
    estimateSize: () => ROW,
    overscan: 8,
  });
  const [offsets, setOffsets] = useState({ old: 0, planned: 0, height: 600 });
  const follow = useCallback(() => {
    const [one, other] = [oldScroller.current, plannedScroller.current];
    if (one && other) setOffsets({ old: one.scrollTop, planned: other.scrollTop, height: one.clientHeight });
  }, []);
  useEffect(() => {
    // What stands above and beside the lists changes how high they are, and the window does.
    const watch = new ResizeObserver(follow);
    if (oldScroller.current) watch.observe(oldScroller.current);
    return () => watch.disconnect();
  }, [follow]);

  /** Brings the partner to the same height as what was chosen, where it is not in sight. */
  const bringBeside = (scroller: HTMLDivElement | null, at: number | undefined, top: number) => {
    if (!scroller || at === undefined) return;
    const y = at * ROW - scroller.scrollTop;
    if (y < 0 || y > scroller.clientHeight - ROW) scroller.scrollTop = at * ROW - top;
  };
  const chooseOld = (address: string) => {
    const partner = sides.ofOld.get(address)?.[0]?.planned ?? null;
    choose({ old: address, planned: partner });
    const top = oldAt.get(address)! * ROW - (oldScroller.current?.scrollTop ?? 0);
    bringBeside(plannedScroller.current, partner === null ? undefined : plannedAt.get(partner), top);
  };
  const choosePlanned = (page: PageId) => {
    const partner = sides.ofPlanned.get(page)?.[0]?.old ?? null;
    choose({ old: partner, planned: page });
    const top = plannedAt.get(page)! * ROW - (plannedScroller.current?.scrollTop ?? 0);
    bringBeside(oldScroller.current, partner === null ? undefined : oldAt.get(partner), top);
  };
  const keys = (event: KeyboardEvent, count: number, at: number, go: (index: number) => void) => {
    const step = { ArrowDown: 1, ArrowUp: -1, PageDown: 10, PageUp: -10, Home: -count, End: count }[event.key];
    if (step === undefined || count === 0) return;
    event.preventDefault();
    event.stopPropagation();
    go(Math.max(0, Math.min(count - 1, (at === -1 ? -1 : at) + step)));
  };
  const oldIndex = chosen.old === null ? -1 : (oldAt.get(chosen.old) ?? -1);
  const plannedIndex = chosen.planned === null ? -1 : (plannedAt.get(chosen.planned) ?? -1);
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)] bg-raised md:grid-cols-[minmax(0,1fr)_5rem_minmax(0,1fr)]">
      <div className="flex flex-wrap items-center gap-2 border-b border-rule px-3 py-1.5">
        <h2 className="font-display text-large font-semibold">Old site</h2>
        <label className="ml-auto flex items-center gap-1.5 text-small text-quiet">
          <span className="sr-only">Order of the old pages</span>
          <select
            value={order}
            onChange={(event) => setOrder(event.target.value as OldOrder)}
            className="h-7 rounded border border-edge bg-paper px-1"
          >
            {ORDERS.map(({ value, words }) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
          </select>
        </label>
      </div>
      <div className="border-b border-rule max-md:hidden" />
      <div className="flex flex-wrap items-center gap-2 border-b border-rule px-3 py-1.5 max-md:hidden">
        <h2 className="font-display text-large font-semibold">Plan</h2>
        <label className="ml-auto flex items-center gap-1.5 text-small">
          <input
            type="checkbox"
            className="size-4 accent-accent"
            checked={left === 'open'}
            onChange={(event) => setLeft(event.target.checked ? 'open' : 'all')}
          />
          Only unmatched ones
        </label>
      </div>
      <div className="relative flex min-h-0 flex-col">
        <div
          ref={oldScroller}
          role="grid"
          aria-label="Old pages"
          aria-rowcount={old.length}
          tabIndex={0}
          aria-activedescendant={oldIndex === -1 ? undefined : `old-${oldIndex}`}
          onScroll={follow}
          onKeyDown={(event) =>
            keys(event, old.length, oldIndex, (index) => {
              oldRows.scrollToIndex(index);
              chooseOld(old[index]!.address);
            })
          }
          className="min-h-0 flex-1 overflow-y-auto outline-none focus-visible:outline-2 focus-visible:-outline-offset-2 focus-visible:outline-accent"
        >
          <div role="presentation" style={{ height: oldRows.getTotalSize(), position: 'relative' }}>
            {oldRows.getVirtualItems().map(({ index, start }) => (
              <OldRow
                key={old[index]!.address}
                index={index}
                page={old[index]!}
                lines={sides.ofOld.get(old[index]!.address) ?? NO_LINES}
                top={start}
                isChosen={chosen.old === old[index]!.address}
                onChoose={chooseOld}
              />
            ))}
          </div>
          {old.length === 0 && (
            <p className="p-4 text-quiet">
              {section !== null && left === 'all'
                ? 'No old page belongs to this section.'
                : 'Every old page has a place or has been let go.'}
            </p>
          )}
        </div>
        {dragged !== null && <LetGoZone />}
      </div>
      <PairLines lines={lines} oldAt={oldAt} plannedAt={plannedAt} offsets={offsets} chosen={chosen} />
      <div
        ref={plannedScroller}
        role="listbox"
        aria-label="Planned pages"
        tabIndex={0}
        aria-activedescendant={plannedIndex === -1 ? undefined : `planned-${plannedIndex}`}
        onScroll={follow}
        onKeyDown={(event) =>
          keys(event, planned.length, plannedIndex, (index) => {
            plannedRows.scrollToIndex(index);
            choosePlanned(planned[index]!.id);
          })
        }
        className="min-h-0 overflow-x-hidden overflow-y-auto outline-none focus-visible:outline-2 focus-visible:-outline-offset-2 focus-visible:outline-accent max-md:hidden"
      >
        <div role="presentation" style={{ height: plannedRows.getTotalSize(), position: 'relative' }}>
          {plannedRows.getVirtualItems().map(({ index, start }) => {
            const node = planned[index]!;
            return (
              <PlannedRow
                key={node.id}
                id={`planned-${index}`}
                node={node}
                depth={outline.depth[outline.rowOf.get(node.id)!]!}
                lines={sides.ofPlanned.get(node.id) ?? NO_LINES}
                top={start}
                isChosen={chosen.planned === node.id}
                onChoose={choosePlanned}
              />
            );
          })}
        </div>
        {planned.length === 0 && (
          <p className="p-4 text-quiet">
            {section !== null && left === 'all'
              ? 'No planned page belongs to this section.'
              : 'Every planned page has a source or is new.'}
          </p>
        )}
      </div>
    </div>
  );
}

const NO_LINES: readonly never[] = [];

function LetGoZone() {
  const { setNodeRef, isOver } = useDroppable({ id: LET_GO });
  return (
    <p
      ref={setNodeRef}
      className={`border-t-2 border-dashed px-4 py-4 text-center font-medium ${isOver ? 'border-attention bg-attention-soft text-attention' : 'border-edge bg-paper text-quiet'}`}
    >
      Drop here to let it go
    </p>
  );
}
