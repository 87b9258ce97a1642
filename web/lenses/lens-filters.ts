import { COMMON_FILTERS, type FilterField } from '#core/derive/filters.ts';
import type { Lens } from '../workbench/lenses.ts';
import { ACCESS_FILTERS } from './access/access-filters.ts';
import { CHECKS_FILTERS } from './checks/checks-filters.ts';
import { MENUS_FILTERS } from './menus/menus-filters.ts';
import { PLAN_FILTERS } from './plan/plan-filters.ts';
import { PUBLISH_FILTERS } from './publish/publish-filters.ts';
import { WRITE_FILTERS } from './write/write-filters.ts';

/** The filters that each lens brings; a new lens adds its own here. */
export const LENS_FILTERS: Readonly<Record<Lens, readonly FilterField[]>> = {
  plan: PLAN_FILTERS,
  write: WRITE_FILTERS,
  access: ACCESS_FILTERS,
  menus: MENUS_FILTERS,
  publish: PUBLISH_FILTERS,
  checks: CHECKS_FILTERS,
};

/** Every filter there is: one that was set in a lens goes on in the others until it is cleared. */
export const ALL_FILTERS: readonly FilterField[] = [...COMMON_FILTERS, ...Object.values(LENS_FILTERS).flat()];
