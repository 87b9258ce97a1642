import { useEffect, useState } from 'react';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import type { SharedPlanAnswer } from '#contract/sharing.ts';
import { wordsOfFault } from '../api/client.ts';
import { giveVerdict } from '../api/shared-plan.ts';
import { DragLayer } from '../drag/drag-layer.tsx';
import { PageMap } from '../map/page-map.tsx';
import { TreeSheet } from '../tree/tree-sheet.tsx';
import { TrailStrip } from '../workbench/trail-strip.tsx';
import { WorkbenchProvider } from '../workbench/workbench-context.tsx';
import { GuestDialog } from './guest-dialog.tsx';
import { SharedBar } from './shared-bar.tsx';
import { SharedBoards } from './shared-boards.tsx';
import { SharedPanel } from './shared-panel.tsx';
import { useSharedWorkbench } from './use-shared-workbench.ts';
import { toast } from '../ui/toast.ts';

/** A plan as it is seen by a link: the tree as rows or as a map, and beside it one page with what to say of it. */
export function SharedScreen({
  token,
  plan,
  site,
}: {
  readonly token: string;
  readonly plan: SharedPlanAnswer;
  readonly site: Site;
}) {
  // What was meant to be done before a name was given.
  const [meant, setMeant] = useState<(() => void) | null>(null);
  /** Does it under the guest's name, which is asked for first where there is none. */
  const named = (work: () => void) => (plan.guest === null ? setMeant(() => work) : work());
  const give = (pages: readonly PageId[], verdict: Parameters<typeof giveVerdict>[2]) =>
    named(
      () =>
        void giveVerdict(token, pages, verdict).catch((fault: unknown) => {
          toast.error(wordsOfFault(fault));
        }),
    );
  const workbench = useSharedWorkbench(site, plan, give);
  useEffect(() => {
    document.title = `The plan for ${plan.site} – Spur`;
  }, [plan.site]);
  // Boards stand in the place of the page until another one is selected.
  const [isOnBoards, setOnBoards] = useState(false);
  const { active } = workbench.selection;
  useEffect(() => setOnBoards(false), [active]);
  const isEmpty = workbench.derived.outline.nodes.length === 0;
  return (
    <WorkbenchProvider value={workbench}>
      <DragLayer>
        <div className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)_auto]">
          <SharedBar
            plan={plan}
            isOnBoards={isOnBoards}
            onBoards={() => setOnBoards(!isOnBoards)}
            onName={() => setMeant(() => () => undefined)}
          />
          <main className="grid min-h-0 max-md:short:block max-md:short:overflow-y-auto grid-cols-[minmax(0,1fr)] max-md:grid-rows-[minmax(0,1fr)_minmax(0,1.2fr)] md:grid-cols-[minmax(0,1fr)_20rem] lg:grid-cols-[minmax(0,1fr)_24rem]">
            <h1 className="sr-only">The plan for {plan.site}</h1>
            <section aria-label="Page tree" className="flex min-h-0 min-w-0 flex-col max-md:short:h-[75dvh]">
              {isEmpty ? (
                <p className="m-auto max-w-sm p-8 text-center text-quiet">
                  This plan has no pages yet. They will appear here.
                </p>
              ) : workbench.view === 'map' ? (
                <PageMap />
              ) : (
                <TreeSheet />
              )}
            </section>
            {isOnBoards && site.boards.length > 0 ? (
              <SharedBoards token={token} plan={plan} named={named} onClose={() => setOnBoards(false)} />
            ) : (
              <SharedPanel token={token} plan={plan} named={named} />
            )}
          </main>
          <TrailStrip />
        </div>
      </DragLayer>
      {meant && <GuestDialog token={token} onNamed={meant} onClose={() => setMeant(null)} />}
    </WorkbenchProvider>
  );
}
