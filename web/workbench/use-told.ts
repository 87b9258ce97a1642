import { refreshColleagues } from '../api/people.ts';
import { useEffect } from 'react';
import { refreshAnswers } from '../api/answers.ts';
import { refreshFeedback } from '../api/sharing.ts';
import { refreshApproval } from '../api/approval.ts';
import { refreshTalk } from '../api/talk.ts';
import type { Again, SiteStore } from '../api/site-store.ts';
import { toast } from '../ui/toast.ts';

/** So long somebody has to read that something was lost, and to take it back. */
const LOST_MS = 30_000;

/** Says what the store has to tell: what was refused, what others did, and how to have again what was lost by it. */
export function useTold(store: SiteStore): void {
  useEffect(() => {
    const offer = (again: Again | null, label: string) =>
      again && {
        duration: LOST_MS,
        action: { label, onClick: () => void store.have(again) },
      };
    return store.onTold((told) => {
      if (told.kind === 'fault') toast.error(told.words, offer(told.again, 'Save my work') ?? {});
      else if (told.again === null) toast(`${told.by} ${told.words}`, { duration: 3500 });
      else {
        toast.warning(`${told.by} ${told.words}. This replaced your change.`, {
          ...offer(told.again, 'Restore mine'),
        });
      }
    });
  }, [store]);
  useEffect(() => store.onPeople(() => void refreshColleagues(store.key)), [store]);
  useEffect(
    () =>
      store.onFeedback(() => {
        void refreshFeedback(store.key);
        void refreshTalk(store.key);
        void refreshApproval(store.key);
      }),
    [store],
  );
  useEffect(() => store.onAnswers(() => void refreshAnswers(store.key)), [store]);
}
