import { memo } from 'react';
import { useWorkbench } from '../workbench/workbench-context.tsx';

/** The side sheet: the selected page through the lens. */
export const LensPanel = memo(function LensPanel() {
  const { lensParts, selection, derived } = useWorkbench();
  const { active } = selection;
  const { Panel } = lensParts;
  return (
    <aside
      aria-label="Selected page"
      tabIndex={-1}
      className="min-h-0 flex-1 overflow-y-auto border-l border-rule bg-paper p-4 max-md:border-l-0"
    >
      <Panel page={active !== null && derived.outline.rowOf.has(active) ? active : null} />
    </aside>
  );
});
