import { memo } from 'react';
import { PageTalk } from '../talk/page-talk.tsx';
import { Allowing } from '../workbench/allowing.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';

/** The side sheet: the selected page through the lens. */
export const LensPanel = memo(function LensPanel() {
  const { lensParts, selection, derived, past } = useWorkbench();
  const { active } = selection;
  const { Panel } = lensParts;
  const page = active !== null && derived.outline.rowOf.has(active) ? active : null;
  return (
    <aside
      aria-label="Selected page"
      tabIndex={-1}
      className="min-h-0 flex-1 overflow-y-auto border-l border-rule bg-paper p-4 max-md:border-l-0"
    >
      <Allowing permission={lensParts.edits} at={page} isQuiet={page === null}>
        <Panel page={page} />
      </Allowing>
      {page !== null && past === null && <PageTalk page={page} />}
    </aside>
  );
});
