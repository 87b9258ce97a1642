import type { PageId } from '#core/model/ids.ts';
import { later } from '../../ui/later.tsx';
import type { LensDefinition } from '../lens-definition.ts';
import { AccessSays, useAccessActions } from './access-bar.tsx';
import { accessColumns } from './access-columns.tsx';
import { ACCESS_FILTERS } from './access-filters.ts';
import { accessNotes } from './access-map-notes.ts';

/** Who can open what. */
export const ACCESS_LENS: LensDefinition = {
  name: 'Access',
  edits: 'access',
  columns: { key: 'access', of: accessColumns },
  filters: ACCESS_FILTERS,
  Says: AccessSays,
  useActions: useAccessActions,
  Below: later(() => import('./access-timeline.tsx').then(({ AccessTimeline }) => AccessTimeline)),
  Panel,
  waiting: () => ({ count: 0, words: '' }),
  notesOf: accessNotes,
};

const AccessPanel = later(() => import('./access-panel.tsx').then((file) => file.AccessPanel));

function Panel({ page }: { readonly page: PageId | null }) {
  return <AccessPanel key={page} page={page} />;
}
