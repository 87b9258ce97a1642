import { STANDINGS } from '#core/derive/feedback-totals.ts';
import type { PageId } from '#core/model/ids.ts';
import { branchOf } from '#core/model/site.ts';
import type { VerdictAnswer } from '#contract/sharing.ts';
import { wordsOfFault } from '../api/client.ts';
import { settleFeedback } from '../api/sharing.ts';
import { STANDING_WORDS, VERDICT_WORDS, VerdictSign } from '../tree/feedback-words.tsx';
import { dayWords } from '../tree/plan-words.tsx';
import { Button } from '../ui/button.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { GuestComment } from './guest-comment.tsx';
import { toast } from '../ui/toast.ts';

/** What those whom the plan is shared with say of the page and its branch; nothing while nobody has said anything. */
export function GuestsSay({ page }: { readonly page: PageId }) {
  const { site, derived, feedback } = useWorkbench();
  if (feedback === null || feedback.said.verdicts.length + feedback.said.comments.length === 0) return null;
  const { said, totals } = feedback;
  const row = derived.outline.rowOf.get(page);
  if (row === undefined) return null;
  const verdicts = said.verdicts.filter((one) => one.page === page);
  const comments = said.comments.filter((one) => one.page === page);
  const open = totals.open[row]!;
  const hasBelow = derived.outline.end[row]! > row + 1;
  if (verdicts.length + comments.length === 0 && !hasBelow) return null;
  const settle = (pages: PageId[], isSettled: boolean) =>
    void settleFeedback(site.key, pages, isSettled).catch((fault: unknown) => toast.error(wordsOfFault(fault)));
  return (
    <section aria-label="What guests say" className="flex flex-col gap-2 border-t border-rule pt-3">
      <h4 className="font-medium">What guests of the plan say</h4>
      {verdicts.length + comments.length === 0 && <p className="text-quiet">Nothing on this page yet.</p>}
      {verdicts.length > 0 && (
        <ul className="flex flex-col gap-1">
          {verdicts.map((one) => (
            <GivenVerdict key={one.guest} given={one} />
          ))}
        </ul>
      )}
      {comments.map((one) => (
        <GuestComment key={one.id} comment={one} />
      ))}
      {(open > 0 || verdicts.some(({ settledBy }) => settledBy !== null)) && (
        <div className="flex flex-wrap gap-2">
          {open > 0 ? (
            <Button onClick={() => settle([page], true)}>
              {open === 1 ? 'Settle everything here' : `Settle all ${open} here`}
            </Button>
          ) : (
            <Button look="quiet" onClick={() => settle([page], false)}>
              Reopen
            </Button>
          )}
        </div>
      )}
      {hasBelow && <BranchFeedback row={row} onSettle={() => settle(branchOf(site, page), true)} />}
    </section>
  );
}

function GivenVerdict({ given: { verdict, by, at, settledBy } }: { readonly given: VerdictAnswer }) {
  const isOpen = verdict !== 'agreed' && settledBy === null;
  return (
    <li className={`flex items-baseline gap-2 ${isOpen ? '' : 'text-quiet'}`}>
      <span className={`inline-flex items-center gap-1 font-medium ${isOpen ? 'text-attention' : ''}`}>
        <VerdictSign verdict={verdict} /> {VERDICT_WORDS[verdict]}
      </span>
      <span className="min-w-0 truncate">{by}</span>
      <span className="ml-auto shrink-0 text-small text-quiet">
        {settledBy === null || verdict === 'agreed' ? dayWords(at) : `settled by ${settledBy}`}
      </span>
    </li>
  );
}

function BranchFeedback({ row, onSettle }: { readonly row: number; readonly onSettle: () => void }) {
  const { totals } = useWorkbench().feedback!;
  const open = totals.openInBranch[row]!;
  const counts = STANDINGS.map((standing, at) => ({ standing, count: totals.pages[row * STANDINGS.length + at]! }));
  return (
    <div className="rounded-md bg-sunken px-3 py-2 text-small">
      <p>
        <span className="font-medium">Pages of the branch:</span>{' '}
        {counts
          .filter(({ count }) => count > 0)
          .map(({ standing, count }) => `${count} ${STANDING_WORDS[standing]}`)
          .join(' · ')}
      </p>
      {open > totals.open[row]! && (
        <Button className="mt-2" onClick={onSettle}>
          Settle all {open} in the branch
        </Button>
      )}
    </div>
  );
}
