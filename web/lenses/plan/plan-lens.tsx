import { later } from '../../ui/later.tsx';
import { PLAN_VIEWS } from '../../workbench/lenses.ts';
import type { LensDefinition } from '../lens-definition.ts';
import { PlanSays, usePlanActions } from './plan-bar.tsx';
import { planColumns } from './plan-columns.tsx';
import { PLAN_FILTERS } from './plan-filters.ts';
import { planNotes } from './plan-map-notes.ts';
import { planWaiting } from './plan-waiting.ts';

/** What the pages are for, who writes them by when, and what becomes of the old site. */
export const PLAN_LENS: LensDefinition = {
  name: 'Plan',
  edits: 'plan',
  columns: { key: 'plan', of: planColumns },
  filters: PLAN_FILTERS,
  Says: PlanSays,
  useActions: usePlanActions,
  Panel: later(() => import('./plan-panel.tsx').then(({ PlanPanel }) => PlanPanel)),
  waiting: planWaiting,
  notesOf: planNotes,
  views: PLAN_VIEWS,
  SetFields: later(() => import('./set-plan-fields.tsx').then(({ SetPlanFields }) => SetPlanFields)),
};
