import { useEffect, useRef } from 'react';
import { Group, type GroupImperativeHandle, Panel, Separator } from 'react-resizable-panels';
import { PageMap } from '../map/page-map.tsx';
import { TreeSheet } from '../tree/tree-sheet.tsx';
import { useNarrow } from './use-compact.ts';
import { useArrangement } from './use-view.ts';

/** Sheet and map beside each other; the bar between them is dragged, and stays where it was put. */
export function SplitView() {
  const isNarrow = useNarrow();
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
        className="relative flex items-center justify-center bg-rule outline-accent before:absolute md:before:-inset-x-2.5 md:before:inset-y-0 max-md:before:-inset-y-2.5 max-md:before:inset-x-0 hover:bg-accent data-[separator=active]:bg-accent md:w-1.5 max-md:h-1.5"
      />
      <Panel id="map" minSize="20%" className="flex min-h-0 min-w-0 flex-col">
        <PageMap />
      </Panel>
    </Group>
  );
}
