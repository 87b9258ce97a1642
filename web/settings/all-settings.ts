import { AUDIENCES } from '../lenses/access/audience-kind.tsx';
import { LABELS } from '../lenses/access/label-kind.tsx';
import { FACTS } from '../lenses/menus/fact-kind.tsx';
import { LAYOUTS } from '../lenses/menus/layout-kind.tsx';
import { MENUS } from '../lenses/menus/menu-kind.tsx';
import { GOALS } from '../lenses/plan/goal-kind.tsx';
import type { SettingsKey } from './settings-keys.ts';
import type { SettingsKind } from './settings-kind.ts';

/** Every kind of settings, under the name that the address bar holds. */
export const SETTINGS: Readonly<Record<SettingsKey, SettingsKind>> = {
  goals: GOALS,
  audiences: AUDIENCES,
  labels: LABELS,
  menus: MENUS,
  layouts: LAYOUTS,
  facts: FACTS,
};
