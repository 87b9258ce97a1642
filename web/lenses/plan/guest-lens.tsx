import type { LensDefinition } from '../lens-definition.ts';
import { SHARED_COLUMNS } from './plan-columns.tsx';
import { planNotes } from './plan-map-notes.ts';

/** A plan as somebody sees it by a link; what stands beside the tree is a screen of its own. */
export const GUEST_LENS: LensDefinition = {
  name: 'Plan',
  edits: 'plan',
  columns: { key: 'shared', of: () => SHARED_COLUMNS },
  filters: [],
  Panel: () => null,
  waiting: () => ({ count: 0, words: '' }),
  notesOf: planNotes,
};
