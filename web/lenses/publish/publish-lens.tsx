import { ArchiveX } from 'lucide-react';
import type { BarAction } from '../../workbench/bar-action.ts';
import { later } from '../../ui/later.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import type { LensDefinition } from '../lens-definition.ts';
import { PublishSays, SettingsThatDiffer, usePublishActions } from './publish-bar.tsx';
import { PUBLISH_COLUMNS } from './publish-columns.tsx';
import { PUBLISH_FILTERS } from './publish-filters.ts';
import { publishWaiting } from './publish-waiting.ts';

/** What visitors have, and what waits to go live. */
export const PUBLISH_LENS: LensDefinition = {
  name: 'Publish',
  edits: 'publish',
  columns: { key: 'publish', of: () => PUBLISH_COLUMNS },
  filters: PUBLISH_FILTERS,
  Says: PublishSays,
  useActions: usePublishActions,
  Below: SettingsThatDiffer,
  Panel: later(() => import('./publish-panel.tsx').then(({ PublishPanel }) => PublishPanel)),
  waiting: publishWaiting,
  asksFor: 'changes',
  useSelectionActions: useTakeDown,
};

function useTakeDown(): readonly BarAction[] {
  const { setBeside, mayPublish } = useWorkbench();
  const words = 'Take down…';
  return mayPublish
    ? [{ label: words, words, Sign: ArchiveX, shows: 'sign', run: () => setBeside({ kind: 'taking-down', id: null }) }]
    : [];
}
