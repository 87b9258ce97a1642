import type { Lens } from '../workbench/lenses.ts';
import { ACCESS_LENS } from './access/access-lens.tsx';
import { CHECKS_LENS } from './checks/checks-lens.tsx';
import type { LensDefinition } from './lens-definition.ts';
import { MENUS_LENS } from './menus/menus-lens.tsx';
import { PLAN_LENS } from './plan/plan-lens.tsx';
import { PUBLISH_LENS } from './publish/publish-lens.tsx';
import { WRITE_LENS } from './write/write-lens.tsx';

/** The lenses by their names in the address; `LENSES` has their order. */
export const ALL_LENSES: Readonly<Record<Lens, LensDefinition>> = {
  plan: PLAN_LENS,
  write: WRITE_LENS,
  access: ACCESS_LENS,
  menus: MENUS_LENS,
  publish: PUBLISH_LENS,
  checks: CHECKS_LENS,
};
