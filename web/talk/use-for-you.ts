import { useMemo } from 'react';
import type { PageFinding } from '#core/checks/page-checks.ts';
import type { PageId } from '#core/model/ids.ts';
import { dayIn } from '#core/model/moment-words.ts';
import { sameName } from '#core/talk/concerned.ts';
import { dueFor } from '#core/talk/due.ts';
import type { ConcernsAnswer, EditConcern, SaidConcern } from '#contract/talk.ts';
import { useSession } from '../api/session.ts';
import { useConcerns } from '../api/talk.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';

interface OfTheTree {
  /** Under which name it is read. */
  readonly name: string;
  readonly page: PageId;
  readonly isRead: boolean;
}
export interface DueConcern extends OfTheTree {
  readonly due: string;
  readonly isLate: boolean;
}
export interface FindingConcern extends OfTheTree {
  readonly finding: PageFinding;
}

/** All that concerns whoever is signed in. */
export interface ForYou {
  readonly answer: ConcernsAnswer;
  readonly said: readonly SaidConcern[];
  readonly edits: readonly EditConcern[];
  readonly due: readonly DueConcern[];
  readonly findings: readonly FindingConcern[];
  readonly unread: number;
}

/** What concerns whoever is signed in: what the server tells, and what follows from the tree; null until it is known. */
export function useForYou(): ForYou | null {
  const { store, shown, derived, findings } = useWorkbench();
  const { site } = shown;
  const answer = useConcerns(store.key);
  const name = useSession()?.account?.name;
  const { ofPages } = findings;
  const own = useMemo(
    () =>
      name === undefined
        ? []
        : derived.outline.nodes.filter(({ plan }) => plan !== null && plan.owner !== '' && sameName(plan.owner, name)),
    [derived.outline, name],
  );
  return useMemo(() => {
    if (!answer) return null;
    const read = new Set(answer.read);
    const today = dayIn(site.settings.timeZone, Date.now());
    const due = dueFor(own, name ?? '', today).map(({ page, due: day }): DueConcern => {
      const named = `due ${page} ${day}`;
      return { name: named, page, due: day, isLate: day < today, isRead: read.has(named) };
    });
    const found = own.flatMap(({ id: page }) =>
      (ofPages?.get(page) ?? []).map((finding): FindingConcern => {
        const named = `finding ${page} ${finding.fault}`;
        return { name: named, page, finding, isRead: read.has(named) };
      }),
    );
    const said = answer.said.filter(({ page }) => site.nodes.has(page));
    const edits = answer.edits.filter(({ page }) => site.nodes.has(page));
    const unread = [...said, ...edits, ...due, ...found].filter(({ isRead }) => !isRead).length;
    return { answer, said, edits, due, findings: found, unread };
  }, [answer, own, name, ofPages, site]);
}
