import { memo } from 'react';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { AccessPanel } from './access/access-panel.tsx';
import { ChecksPanel } from './checks/checks-panel.tsx';
import { MenusPanel } from './menus/menus-panel.tsx';
import { PlanPanel } from './plan/plan-panel.tsx';
import { PublishPanel } from './publish/publish-panel.tsx';
import { WritePanel } from './write/write-panel.tsx';

/** The side sheet: the selected page through the lens. */
export const LensPanel = memo(function LensPanel() {
  const { lens, selection, derived, mayEdit } = useWorkbench();
  const { active } = selection;
  const hasPage = active !== null && derived.outline.rowOf.has(active);
  return (
    <aside
      aria-label="Selected page"
      tabIndex={-1}
      className="min-h-0 flex-1 overflow-y-auto border-l border-rule bg-paper p-4 max-md:border-t max-md:border-l-0"
    >
      {lens === 'plan' ? (
        <PlanPanel page={hasPage ? active : null} />
      ) : lens === 'access' ? (
        <AccessPanel key={active} page={hasPage ? active : null} />
      ) : lens === 'menus' ? (
        <MenusPanel page={hasPage ? active : null} />
      ) : lens === 'publish' ? (
        <PublishPanel page={hasPage ? active : null} />
      ) : lens === 'checks' ? (
        <ChecksPanel page={hasPage ? active : null} />
      ) : hasPage ? (
        <fieldset disabled={!mayEdit} className="contents">
          <WritePanel key={active} page={active} />
        </fieldset>
      ) : (
        <p className="text-quiet">Select a page in the tree to see its fields and text.</p>
      )}
    </aside>
  );
});
