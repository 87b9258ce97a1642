import { SeenAsBar } from './seen-as-bar.tsx';
import { ArrowLeft } from 'lucide-react';
import type { FocusEvent, ReactNode } from 'react';
import { FoundBar } from '../find/found-bar.tsx';
import { LensBar } from '../lenses/lens-bar.tsx';
import { PastBar } from '../past/past-bar.tsx';
import { besideText } from '../settings/settings-keys.ts';
import { TreeSheet } from '../tree/tree-sheet.tsx';
import { MarksFieldsInUse } from '../ui/being-changed.tsx';
import { Button } from '../ui/button.tsx';
import { Contained } from '../ui/contained.tsx';
import { later as fetchedLater } from '../ui/later.tsx';
import { SideEdge } from './side-edge.tsx';
import { useFieldsOf } from './use-here.ts';
import { SheetBar } from './sheet-bar.tsx';
import { TREE_VIEW, type View, isTreeView } from './lenses.ts';
import { useCompact, useNarrow } from './use-compact.ts';
import { useSideSheet } from './use-side-sheet.ts';
import { useArrangement } from './use-view.ts';
import { type Workbench, WorkbenchProvider, useWorkbench } from './workbench-context.tsx';

interface ViewsProps {
  readonly onFocus: (view: HTMLElement) => void;
  /** The workbench as the side sheet sees it, which may lag behind the tree by a moment. */
  readonly later: Workbench;
}

const LensPanel = fetchedLater(() => import('../lenses/lens-panel.tsx').then((file) => file.LensPanel));
const SettingsSheet = fetchedLater(() => import('../settings/settings-sheet.tsx').then((file) => file.SettingsSheet));
const HistoryPanel = fetchedLater(() => import('../past/history-panel.tsx').then((file) => file.HistoryPanel));
const PageMap = fetchedLater(() => import('../map/page-map.tsx').then((file) => file.PageMap));
const Split = fetchedLater(() => import('./split-view.tsx').then((file) => file.SplitView));
const ScheduleView = fetchedLater(() =>
  import('../lenses/plan/schedule/schedule-view.tsx').then((file) => file.ScheduleView),
);
const Desk = fetchedLater(() => import('../lenses/write/desk.tsx').then((file) => file.Desk));
const CarryOverView = fetchedLater(() =>
  import('../lenses/plan/carry-over/carry-over-view.tsx').then((file) => file.CarryOverView),
);

const VIEW_PARTS: Readonly<Record<View, ReactNode>> = {
  sheet: (
    <Contained>
      <TreeSheet />
    </Contained>
  ),
  map: <PageMap />,
  split: <Split />,
  schedule: <ScheduleView />,
  desk: <Desk />,
  'carry-over': <CarryOverView />,
};

/** The tree in its view, what can be done with it above, and the side sheet beside. */
export function Views({ onFocus, later }: ViewsProps) {
  const { site, lensParts, view, isHistoryOpen, setHistoryOpen, beside, focusTree, store, selection } = useWorkbench();
  const fieldsInUse = useFieldsOf(store, selection.active, beside && besideText(beside));
  const [arrangement, keep] = useArrangement();
  const { Below } = lensParts;
  const isCompact = useCompact();
  const isNarrow = useNarrow();
  const side = useSideSheet();
  const isTree = isTreeView(view);
  const hasSide = isHistoryOpen || side.isOpen;
  const backToTree = () => {
    if (isNarrow) (isHistoryOpen && beside === null ? setHistoryOpen : side.setOpen)(false);
    // The tree is there again as soon as this is drawn.
    window.setTimeout(focusTree, 0);
  };
  const follow = (event: FocusEvent) => {
    const tree = event.target.closest<HTMLElement>(TREE_VIEW);
    if (tree) onFocus(tree);
  };
  return (
    <main
      style={{ ['--beside' as string]: `min(${arrangement.beside}px, 60vw)` }}
      className={`relative grid min-h-0 grid-cols-[minmax(0,1fr)] ${!hasSide || view === 'split' ? '' : beside ? 'md:grid-cols-[minmax(0,1fr)_var(--beside)]' : 'md:grid-cols-[minmax(0,1fr)_20rem] lg:grid-cols-[minmax(0,1fr)_24rem]'}`}
    >
      <h1 className="sr-only">The page tree of {site.settings.name}</h1>
      <section
        aria-label="Page tree"
        onFocus={follow}
        inert={isNarrow && hasSide}
        className="flex min-h-0 min-w-0 flex-col"
      >
        {isTree && <SheetBar />}
        {!isCompact && <LensBar />}
        {Below && <Below />}
        <PastBar />
        <SeenAsBar />
        {isTree && <FoundBar />}
        {VIEW_PARTS[view]}
      </section>
      {hasSide && (
        // Escape is the way back to the tree from wherever the keyboard is in there.
        // eslint-disable-next-line jsx-a11y/no-static-element-interactions
        <div
          onKeyDown={(event) => {
            const isOwn = event.currentTarget.contains(event.target as Node);
            if (event.key !== 'Escape' || !isOwn || event.isDefaultPrevented()) return;
            event.preventDefault();
            backToTree();
          }}
          className={`flex min-h-0 flex-col max-md:absolute max-md:inset-0 max-md:z-20 max-md:bg-paper ${view === 'split' ? `md:absolute md:inset-y-0 md:right-0 md:z-20 md:shadow-sheet ${beside ? 'md:w-(--beside)' : 'md:w-96'}` : 'relative'}`}
        >
          {beside && (
            <SideEdge width={arrangement.beside} onWidth={(width) => keep({ ...arrangement, beside: width })} />
          )}
          {isNarrow && (
            // The keyboard comes along: what it was in lies below now.
            <Button autoFocus look="quiet" onClick={backToTree} className="m-1 self-start">
              <ArrowLeft size={16} aria-hidden /> Back to the tree
            </Button>
          )}
          <WorkbenchProvider value={later}>
            <MarksFieldsInUse value={fieldsInUse}>
              {beside ? <SettingsSheet beside={beside} /> : isHistoryOpen ? <HistoryPanel /> : <LensPanel />}
            </MarksFieldsInUse>
          </WorkbenchProvider>
        </div>
      )}
    </main>
  );
}
