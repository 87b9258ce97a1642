import { useState } from 'react';
import { editsOfProposal, proposalWords } from '#core/arrange/proposal.ts';
import { MAX_COMMENT_LENGTH } from '#core/model/feedback.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { applyOperations } from '#core/operations/apply.ts';
import type { CommentAnswer } from '#contract/sharing.ts';
import { wordsOfFault } from '../api/client.ts';
import { acceptProposal, answerComment } from '../api/sharing.ts';
import { type Edit, refusalWords } from '../api/site-store.ts';
import { DraftField } from '../fields/draft-field.tsx';
import { SAID_WORDS } from '../tree/feedback-words.tsx';
import { dayWords } from '../tree/plan-words.tsx';
import { aboutWords } from '#core/board/about-words.ts';
import { Button } from '../ui/button.tsx';
import { usePreview } from '../workbench/use-preview.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { toast } from '../ui/toast.ts';

/** A comment, a question or a proposal of somebody whom the plan is shared with, and what its manager does about it. */
export function GuestComment({ comment }: { readonly comment: CommentAnswer }) {
  const { site } = useWorkbench();
  const { id, kind, text, proposes, about, isAccepted, by, at, answer, settledBy } = comment;
  const save = (answered: string, isSettled: boolean) =>
    void answerComment(site.key, id, { answer: answered.trim(), isSettled }).catch((fault: unknown) =>
      toast.error(wordsOfFault(fault)),
    );
  const said = (
    <>
      {proposes && <p className="font-medium">Proposal: {proposalWords(site, proposes)}</p>}
      {about && <p className="text-small font-medium">About {aboutWords(site, about)}</p>}
      {text !== '' && <p className="whitespace-pre-wrap">{text}</p>}
    </>
  );
  if (settledBy !== null)
    return (
      <div className="border-l-2 border-rule pl-3">
        {said}
        {answer !== '' && <p className="whitespace-pre-wrap text-quiet">{answer}</p>}
        <p className="text-small text-quiet">
          {by}, {dayWords(at)}. {isAccepted ? 'Accepted' : proposes ? 'Not accepted; settled' : 'Settled'} by{' '}
          {settledBy}.{' '}
          <button type="button" className="text-accent hover:underline" onClick={() => save(answer, false)}>
            Reopen
          </button>
        </p>
      </div>
    );
  return (
    <div className="rounded-md border border-edge bg-raised px-3 py-2">
      {said}
      <p className="mb-2 text-small text-quiet">
        {by} {SAID_WORDS[kind]} on {dayWords(at)}
      </p>
      {proposes && <Acceptance comment={{ ...comment, proposes }} />}
      <DraftField
        label="Answer"
        isLong
        saved={answer}
        longest={MAX_COMMENT_LENGTH}
        onSave={(answered) => save(answered, false)}
      />
      <Button className="mt-2" onClick={() => save(answer, true)}>
        {proposes ? 'Settle it without accepting' : 'Settle it'}
      </Button>
    </div>
  );
}

/** One press makes the page what is proposed; what that changes shows in the trail strip before. */
function Acceptance({
  comment: { id, page, proposes },
}: {
  readonly comment: CommentAnswer & { readonly proposes: NonNullable<CommentAnswer['proposes']> };
}) {
  const { site, store, mayEdit } = useWorkbench();
  const consider = usePreview();
  const [isSending, setSending] = useState(false);
  // A proposal is about a page.
  const { operations, obstacle } = possibilityOf(site, page!, proposes);
  const show = () => consider(operations.length > 0 ? operations : null);
  const hide = () => consider(null);
  const accept = () => {
    hide();
    setSending(true);
    void acceptProposal(store, id)
      .catch((fault: unknown) => toast.error(wordsOfFault(fault)))
      .finally(() => setSending(false));
  };
  return (
    <div className="mb-2 flex flex-wrap items-center gap-2">
      <Button
        look="main"
        disabled={obstacle !== null || isSending || !mayEdit}
        onMouseEnter={show}
        onMouseLeave={hide}
        onFocus={show}
        onBlur={hide}
        onClick={accept}
      >
        Accept
      </Button>
      <p className="min-w-0 flex-1 text-small text-quiet">
        {obstacle ?? (operations.length === 0 ? 'The page is so already.' : '')}
      </p>
    </div>
  );
}

/** What accepting would do, or why it cannot be done, in words. */
function possibilityOf(
  site: Site,
  page: PageId,
  proposes: NonNullable<CommentAnswer['proposes']>,
): { readonly operations: readonly Edit[]; readonly obstacle: string | null } {
  const edits = editsOfProposal(site, page, proposes);
  if (!edits.ok) return { operations: [], obstacle: refusalWords(edits, site) };
  const outcome = applyOperations(site, edits.operations);
  if (!outcome.ok) return { operations: [], obstacle: refusalWords(outcome, site) };
  return { operations: edits.operations as readonly Edit[], obstacle: null };
}
