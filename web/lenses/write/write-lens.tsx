import type { PageId } from '#core/model/ids.ts';
import { later } from '../../ui/later.tsx';
import { WRITE_VIEWS } from '../../workbench/lenses.ts';
import { useWriteActions } from './write-bar.ts';
import type { LensDefinition } from '../lens-definition.ts';
import { writeColumns } from './write-columns.tsx';
import { WRITE_FILTERS } from './write-filters.ts';
import { writeWaiting } from './write-waiting.ts';

/** What the pages are called, where they are found, and what they say. */
export const WRITE_LENS: LensDefinition = {
  name: 'Write',
  edits: 'write',
  columns: { key: 'write', of: writeColumns },
  filters: WRITE_FILTERS,
  views: WRITE_VIEWS,
  useActions: useWriteActions,
  Panel: Panel,
  waiting: writeWaiting,
};

const WritePanel = later(() => import('./write-panel.tsx').then((file) => file.WritePanel));

function Panel({ page }: { readonly page: PageId | null }) {
  if (page === null) return <p className="text-quiet">Select a page in the tree to see its fields and text.</p>;
  return <WritePanel key={page} page={page} />;
}
