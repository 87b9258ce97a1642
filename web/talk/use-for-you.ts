import { useDeferredValue, useMemo } from 'react';
import type { PageFinding } from '#core/checks/page-checks.ts';
import type { PageId } from '#core/model/ids.ts';
import { dayIn } from '#core/model/moment-words.ts';
import { sameName } from '#core/talk/concerned.ts';
import { dueFor } from '#core/talk/due.ts';
import type { ConcernsAnswer, EditConcern, SaidConcern } from '#contract/talk.ts';
import { useSession } from '../api/session.ts';
import { useConcerns } from '../api/talk.ts';
import type { Approvals } from '../workbench/approvals.ts';
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

export interface Review {
  readonly id: string;
  readonly by: string;
  readonly note: string;
  readonly at: string;
  readonly pages: readonly PageId[];
  readonly count: number;
}

/** All that concerns whoever is signed in. */
export interface ForYou {
  readonly answer: ConcernsAnswer;
  readonly said: readonly SaidConcern[];
  readonly edits: readonly EditConcern[];
  readonly due: readonly DueConcern[];
  readonly findings: readonly FindingConcern[];
  /** Proposals about which they have something to decide: these stay until it is decided. */
  readonly reviews: readonly Review[];
  readonly unread: number;
}

/** What concerns whoever is signed in: what the server tells, and what follows from the tree; null until it is known. */
export function useForYou(): ForYou | null {
  const { store, shown, derived, findings, approvals } = useWorkbench();
  const outline = useDeferredValue(derived.outline);
  const { site } = shown;
  const answer = useConcerns(store.key);
  const account = useSession()?.account;
  const name = account?.name;
  const { ofPages } = findings;
  const own = useMemo(
    () =>
      name === undefined
        ? []
        : outline.nodes.filter(({ plan }) => plan !== null && plan.owner !== '' && sameName(plan.owner, name)),
    [outline, name],
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
    const said = answer.said.filter(({ page, kind }) => kind !== 'review' && site.nodes.has(page));
    const reviews = reviewsOf(approvals, account?.id);
    const edits = answer.edits.filter(({ page }) => site.nodes.has(page));
    const unread = reviews.length + [...said, ...edits, ...due, ...found].filter(({ isRead }) => !isRead).length;
    return { answer, said, edits, due, findings: found, reviews, unread };
  }, [answer, own, name, ofPages, site, approvals, account?.id]);
}

/** The open proposals with a page that waits for somebody's approval. */
function reviewsOf(approvals: Approvals | null, account: string | undefined): Review[] {
  if (approvals === null || account === undefined) return [];
  return approvals.answer.proposals.flatMap(({ toDecide, pages, id, by, note, at }) => {
    const waits = toDecide.filter((page) => {
      const { standing, by: approved } = approvals.standing(page);
      return standing !== 'approved' && !approved.includes(account);
    });
    return waits.length === 0 ? [] : [{ id, by, note, at, pages: waits, count: pages.length }];
  });
}
