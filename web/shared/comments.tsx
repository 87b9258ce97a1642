import { proposalWords } from '#core/arrange/proposal.ts';
import type { BoardId } from '#core/model/board.ts';
import type { PageId } from '#core/model/ids.ts';
import type { CommentAnswer, SharedPlanAnswer } from '#contract/sharing.ts';
import { wordsOfFault } from '../api/client.ts';
import { takeBackComment } from '../api/shared-plan.ts';
import { SAID_WORDS, VERDICT_WORDS } from '../tree/feedback-words.tsx';
import { aboutWords } from '#core/board/about-words.ts';
import { dayWords } from '../tree/plan-words.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { type CommentDraft, NewComment } from './new-comment.tsx';
import { toast } from '../ui/toast.ts';

interface CommentsProps {
  readonly token: string;
  readonly plan: SharedPlanAnswer;
  /** Null for what is said of a board. */
  readonly page: PageId | null;
  /** The board, where it is about one. */
  readonly board?: BoardId;
  readonly named: (work: () => void) => void;
  readonly draft: CommentDraft;
  readonly onDraft: (draft: CommentDraft) => void;
}

/** What was said of a page by the link, and the form in which the guest says something. */
export function Comments({ token, plan, page, board, ...writing }: CommentsProps) {
  const comments = plan.feedback.comments.filter(({ page: of, about }) =>
    board === undefined ? of === page : about !== null && 'board' in about && about.board === board,
  );
  const others = plan.feedback.verdicts.filter((one) => one.page === page && one.guest !== plan.guest?.id);
  return (
    <section aria-label="Comments" className="flex flex-col gap-2 border-t border-rule pt-4">
      <h3 className="font-display text-large font-semibold">Comments</h3>
      {others.length > 0 && (
        <p className="text-small text-quiet">
          {others.map(({ by, verdict }) => `${by}: ${VERDICT_WORDS[verdict].toLowerCase()}`).join(' · ')}
        </p>
      )}
      {comments.map((one) => (
        <OneComment key={one.id} token={token} comment={one} isMine={one.guest === plan.guest?.id} />
      ))}
      <NewComment page={page} token={token} {...writing} />
    </section>
  );
}

function OneComment({
  token,
  comment,
  isMine,
}: {
  readonly token: string;
  readonly comment: CommentAnswer;
  readonly isMine: boolean;
}) {
  const { site } = useWorkbench();
  const { id, kind, text, proposes, about, isAccepted, by, at, answer, answeredBy, settledBy } = comment;
  return (
    <article className="rounded-md border border-rule bg-raised px-3 py-2">
      {proposes && <p className="font-medium">Proposal: {proposalWords(site, proposes)}</p>}
      {about && <p className="text-small font-medium">About {aboutWords(site, about)}</p>}
      {text !== '' && <p className="whitespace-pre-wrap">{text}</p>}
      <p className="text-small text-quiet">
        {isMine ? 'You' : by} {SAID_WORDS[kind]} on {dayWords(at)}
        {settledBy !== null && `, ${isAccepted ? 'accepted' : 'settled'} by ${settledBy}`}
        {isMine && answeredBy === null && !isAccepted && (
          <>
            {'. '}
            <button
              type="button"
              className="text-accent hover:underline"
              onClick={() =>
                void takeBackComment(token, id).catch((fault: unknown) => toast.error(wordsOfFault(fault)))
              }
            >
              Take it back
            </button>
          </>
        )}
      </p>
      {answer !== '' && (
        <p className="mt-2 border-l-2 border-accent pl-2 whitespace-pre-wrap">
          <span className="font-medium">{answeredBy}:</span> {answer}
        </p>
      )}
    </article>
  );
}
