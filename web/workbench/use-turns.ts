import useSWR from 'swr';
import type { SiteKey } from '#core/model/ids.ts';
import { call } from '../api/client.ts';
import type { Shown } from '../api/site-store.ts';
import { useSettled } from '../ui/use-settled.ts';

/** An edit is looked at once it has arrived, and no other has followed at once. */
const AFTER_MS = 300;

/** Whether there is something to undo, and to redo. While it is not known there may be. */
export function useTurns(site: SiteKey, { revision, isSaving }: Shown, mayEdit: boolean) {
  const settled = useSettled(revision, AFTER_MS);
  const { data, isValidating } = useSWR(mayEdit ? ['turns', site, settled] : null, () => call('showTurns', { site }), {
    keepPreviousData: true,
  });
  // What was just done can be undone; whether it can be redone is as it was, until the answer is here.
  const isAsking = isValidating || isSaving || settled !== revision;
  return {
    mayUndo: mayEdit && (isAsking || data?.undo !== null),
    mayRedo: mayEdit && data?.redo !== null,
  };
}
