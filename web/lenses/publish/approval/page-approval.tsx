import type { PageId } from '#core/model/ids.ts';
import { differencesOf } from '#core/derive/state.ts';
import { useColleagues } from '../../../api/people.ts';
import { Button } from '../../../ui/button.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { STANDING_WORDS, decidersWords } from './approval-words.ts';

/** How the selected page stands with those who approve it; nothing where it needs no approval. */
export function PageApproval({ page }: { readonly page: PageId }) {
  const { site, approvals, may, setBeside } = useWorkbench();
  const people = useColleagues(site.key);
  if (approvals === null) return null;
  const { standing, rule, by } = approvals.standing(page);
  if (rule === null) return null;
  const differs = differencesOf(site, page).length > 0;
  const proposal = approvals.answer.proposals.find(({ state, pages }) => state === 'open' && pages.includes(page));
  return (
    <section aria-label="Approval">
      <h3 className="font-display text-large font-semibold">Approval</h3>
      <p>
        {differs ? (
          <span className={standing === 'approved' ? 'font-medium text-accent' : 'font-medium text-attention'}>
            {STANDING_WORDS[standing]}.{' '}
          </span>
        ) : null}
        It goes live when approved by {decidersWords(rule.by, rule.count, people)}.
        {differs && proposal && ` ${by.length} of ${rule.count} so far.`}
      </p>
      {differs && (
        <div className="mt-2 flex gap-2">
          {proposal ? (
            <Button onClick={() => setBeside({ kind: 'proposals', id: proposal.id })}>See the proposal</Button>
          ) : (
            may('write', page) && <Button onClick={() => setBeside({ kind: 'proposing', id: null })}>Propose…</Button>
          )}
        </div>
      )}
    </section>
  );
}
