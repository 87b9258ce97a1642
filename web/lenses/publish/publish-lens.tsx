import { ArchiveX } from 'lucide-react';
import { IconButton } from '../../ui/button.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import type { LensDefinition } from '../lens-definition.ts';
import { PublishBar } from './publish-bar.tsx';
import { PUBLISH_COLUMNS } from './publish-columns.tsx';
import { PUBLISH_FILTERS } from './publish-filters.ts';
import { PublishPanel } from './publish-panel.tsx';
import { publishWaiting } from './publish-waiting.ts';

/** What visitors have, and what waits to go live. */
export const PUBLISH_LENS: LensDefinition = {
  name: 'Publish',
  columns: { key: 'publish', of: () => PUBLISH_COLUMNS },
  filters: PUBLISH_FILTERS,
  Bar: PublishBar,
  Panel: PublishPanel,
  waiting: publishWaiting,
  asksFor: 'changes',
  SelectionActions: TakeDown,
};

function TakeDown() {
  const { setDialog, mayPublish } = useWorkbench();
  if (!mayPublish) return null;
  return (
    <IconButton name="Take down…" onClick={() => setDialog('retire')}>
      <ArchiveX size={16} aria-hidden />
    </IconButton>
  );
}
