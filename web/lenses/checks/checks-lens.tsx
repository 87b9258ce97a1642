import { later } from '../../ui/later.tsx';
import type { LensDefinition } from '../lens-definition.ts';
import { ChecksSays, useChecksActions } from './checks-bar.tsx';
import { CHECKS_COLUMNS } from './checks-columns.tsx';
import { CHECKS_FILTERS } from './checks-filters.ts';
import { checksWaiting } from './checks-waiting.ts';

/** Links that lead astray, and what pages lack. */
export const CHECKS_LENS: LensDefinition = {
  name: 'Checks',
  edits: 'write',
  columns: { key: 'checks', of: () => CHECKS_COLUMNS },
  filters: CHECKS_FILTERS,
  Says: ChecksSays,
  useActions: useChecksActions,
  Panel: later(() => import('./checks-panel.tsx').then(({ ChecksPanel }) => ChecksPanel)),
  waiting: checksWaiting,
  asksFor: 'findings',
};
