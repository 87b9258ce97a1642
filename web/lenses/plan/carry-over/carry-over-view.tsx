import { DndContext, DragOverlay, pointerWithin } from '@dnd-kit/core';
import { useState } from 'react';
import { useDragSensors } from '../../../drag/use-drag-sensors.ts';
import { letGoOf, moveOldPage } from '#core/carryover/settle.ts';
import type { PageId } from '#core/model/ids.ts';
import { nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { wordsOfFault } from '../../../api/client.ts';
import type { Edit } from '../../../api/site-store.ts';
import { Notice } from '../../../ui/notice.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { CarryOverBar } from './carry-over-bar.tsx';
import { CarryOverProvider, LET_GO } from './carry-over-context.ts';
import { CarryOverPanel } from './carry-over-panel.tsx';
import { EmptyOldSite } from './empty-old-site.tsx';
import { SectionBar } from './section-bar.tsx';
import { PairLists } from './pair-lists.tsx';
import { titleOfOld } from './old-words.ts';
import { dragWords } from '../../../drag/drag-words.ts';
import { useCarryOverData } from './use-carry-over-state.ts';
import { toast } from '../../../ui/toast.ts';

/** The old site and the plan side by side, with lines from each old page to the page that it becomes. */
export function CarryOverView() {
  const { site, store, mayEdit } = useWorkbench();
  const state = useCarryOverData();
  const [dragged, setDragged] = useState<string | null>(null);
  const sensors = useDragSensors();
  const drop = (old: string, onto: string) => {
    const undo = { label: 'Undo', onClick: () => void store.turn('undo').catch(() => undefined) };
    if (onto === LET_GO) {
      if (store.apply(letGoOf(site, old, 'gone') as Edit[]) === null) toast(`Let go of ${old}.`, { action: undo });
      return;
    }
    const planned = onto as PageId;
    const title = textIn(nodeAt(site, planned).title, site.settings.language);
    if (store.apply(moveOldPage(site, old, state.pairOf(old, planned)) as Edit[]) === null) {
      state.choose({ old, planned });
      toast(`‘${title}’ takes it over.`, { action: undo });
    }
  };
  if (!state.isHere) return <p className="p-6 text-quiet">Fetching the old site …</p>;
  return (
    <CarryOverProvider value={state}>
      <div
        data-tree-view
        tabIndex={-1}
        className="flex min-h-0 min-w-0 flex-1 flex-col outline-none max-md:short:block max-md:short:overflow-y-auto"
      >
        <CarryOverBar />
        {state.pages.length > 0 && <SectionBar />}
        <div className="flex min-h-0 flex-1 max-md:flex-col max-md:short:block">
          <section aria-label="Carry-over" className="flex min-h-0 min-w-0 flex-1 flex-col max-md:short:h-[80dvh]">
            {state.fault !== undefined && (
              <div className="p-3">
                <Notice>{wordsOfFault(state.fault)}</Notice>
              </div>
            )}
            {state.pages.length === 0 ? (
              <EmptyOldSite />
            ) : (
              <DndContext
                sensors={sensors}
                collisionDetection={pointerWithin}
                accessibility={dragWords(
                  (id) => `The old page ${id}`,
                  'By keys, choose the old page, then the page that takes it over in the side sheet.',
                )}
                onDragStart={({ active }) => mayEdit && setDragged(String(active.id))}
                onDragCancel={() => setDragged(null)}
                onDragEnd={({ active, over }) => {
                  setDragged(null);
                  if (over) drop(String(active.id), String(over.id));
                }}
              >
                <PairLists dragged={dragged} />
                <DragOverlay dropAnimation={null}>
                  {dragged !== null && (
                    <p className="w-64 truncate rounded-md border border-accent bg-raised px-3 py-2 font-medium shadow-sheet">
                      {titleOfOld(state.pages.find((one) => one.address === dragged)!)}
                    </p>
                  )}
                </DragOverlay>
              </DndContext>
            )}
          </section>
          {state.pages.length > 0 && <CarryOverPanel />}
        </div>
      </div>
    </CarryOverProvider>
  );
}
