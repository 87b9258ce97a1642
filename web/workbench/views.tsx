import { type FocusEvent, type ReactNode, useEffect, useRef } from 'react';
import { Group, type GroupImperativeHandle, Panel, Separator } from 'react-resizable-panels';
import { FoundBar } from '../find/found-bar.tsx';
import { LensPanel } from '../lenses/lens-panel.tsx';
import { CarryOverView } from '../lenses/plan/carry-over/carry-over-view.tsx';
import { ScheduleView } from '../lenses/plan/schedule/schedule-view.tsx';
import { PageMap } from '../map/page-map.tsx';
import { HistoryPanel } from '../past/history-panel.tsx';
import { PastBar } from '../past/past-bar.tsx';
import { TreeSheet } from '../tree/tree-sheet.tsx';
import { useMedia } from '../ui/use-media.ts';
import { SheetBar } from './sheet-bar.tsx';
import { TREE_VIEW, type View, isTreeView } from './lenses.ts';
import { useArrangement } from './use-view.ts';
import { type Workbench, WorkbenchProvider, useWorkbench } from './workbench-context.tsx';

interface ViewsProps {
  readonly onFocus: (view: HTMLElement) => void;
  /** The workbench as the side sheet sees it, which may lag behind the tree by a moment. */
  readonly later: Workbench;
}

const VIEW_PARTS: Readonly<Record<View, ReactNode>> = {
  sheet: <TreeSheet />,
  map: <PageMap />,
  split: <Split />,
  schedule: <ScheduleView />,
  'carry-over': <CarryOverView />,
};

/** The tree in its view, what can be done with it above, and the side sheet beside. */
export function Views({ onFocus, later }: ViewsProps) {
  const { site, lensParts, view, isHistoryOpen } = useWorkbench();
  const { Bar } = lensParts;
  const [{ withoutSide }] = useArrangement();
  const isTree = isTreeView(view);
  const hasSide = isHistoryOpen || (isTree && !withoutSide.includes(view));
  const follow = (event: FocusEvent) => {
    const tree = event.target.closest<HTMLElement>(TREE_VIEW);
    if (tree) onFocus(tree);
  };
  return (
    <main
      className={`relative grid min-h-0 grid-cols-[minmax(0,1fr)] ${hasSide && view !== 'split' ? 'md:grid-cols-[minmax(0,1fr)_20rem] lg:grid-cols-[minmax(0,1fr)_24rem]' : ''} ${hasSide ? 'max-md:grid-rows-[minmax(0,1.35fr)_minmax(0,1fr)]' : ''}`}
    >
      <h1 className="sr-only">The page tree of {site.settings.name}</h1>
      <section aria-label="Page tree" onFocus={follow} className="flex min-h-0 min-w-0 flex-col">
        {isTree && <SheetBar />}
        {Bar && <Bar />}
        <PastBar />
        {isTree && <FoundBar />}
        {VIEW_PARTS[view]}
      </section>
      {hasSide && (
        <div
          className={`flex min-h-0 flex-col ${view === 'split' ? 'md:absolute md:inset-y-0 md:right-0 md:z-20 md:w-96 md:shadow-sheet' : ''}`}
        >
          <WorkbenchProvider value={later}>{isHistoryOpen ? <HistoryPanel /> : <LensPanel />}</WorkbenchProvider>
        </div>
      )}
    </main>
  );
}

/** Sheet and map beside each other; the bar between them is dragged, and stays where it was put. */
function Split() {
  const isNarrow = useMedia('(max-width: 767px)');
  const [arrangement, keep] = useArrangement();
  const group = useRef<GroupImperativeHandle>(null);
  const { split } = arrangement;
  useEffect(() => {
    const now = group.current?.getLayout().sheet;
    if (now !== undefined && Math.abs(now - split) > 0.5) group.current?.setLayout({ sheet: split, map: 100 - split });
  }, [split]);
  return (
    <Group
      groupRef={group}
      orientation={isNarrow ? 'vertical' : 'horizontal'}
      className="min-h-0 flex-1"
      defaultLayout={{ sheet: split, map: 100 - split }}
      onLayoutChanged={({ sheet }, { isUserInteraction }) => {
        if (isUserInteraction && sheet !== undefined) keep({ ...arrangement, split: Math.max(5, Math.min(95, sheet)) });
      }}
    >
      <Panel id="sheet" minSize="20%" className="flex min-h-0 min-w-0 flex-col">
        <TreeSheet />
      </Panel>
      <Separator
        aria-label="Between sheet and map"
        className="flex items-center justify-center bg-rule outline-accent hover:bg-accent data-[separator=active]:bg-accent md:w-1.5 max-md:h-1.5"
      />
      <Panel id="map" minSize="20%" className="flex min-h-0 min-w-0 flex-col">
        <PageMap />
      </Panel>
    </Group>
  );
}
