import { PLAN_VIEWS } from '../../workbench/lenses.ts';
import type { LensDefinition } from '../lens-definition.ts';
import { PlanSays, usePlanActions } from './plan-bar.tsx';
import { planColumns } from './plan-columns.tsx';
import { PLAN_FILTERS } from './plan-filters.ts';
import { planNotes } from './plan-map-notes.ts';
import { PlanPanel } from './plan-panel.tsx';
import { planWaiting } from './plan-waiting.ts';
import { SetPlanFields } from './set-plan-fields.tsx';

/** What the pages are for, who writes them by when, and what becomes of the old site. */
export const PLAN_LENS: LensDefinition = {
  name: 'Plan',
  edits: 'plan',
  columns: { key: 'plan', of: planColumns },
  filters: PLAN_FILTERS,
  Says: PlanSays,
  useActions: usePlanActions,
  Panel: PlanPanel,
  waiting: planWaiting,
  notesOf: planNotes,
  views: PLAN_VIEWS,
  SetFields: SetPlanFields,
};
