import { Check, Pencil, RotateCcw, Trash2 } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { momentWords } from '#core/model/moment-words.ts';
import type { Thread, ThreadComment } from '#contract/talk.ts';
import { answerThread, changeThreadComment, deleteThreadComment, settleThread } from '../api/talk.ts';
import { wordsOfFault } from '../api/client.ts';
import { useKept } from '../fields/use-kept.ts';
import { listOf } from '../tree/words.ts';
import { Button, IconButton } from '../ui/button.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { aboutWords } from './about-words.ts';
import { CommentField } from './comment-field.tsx';
import { CommentText } from './comment-text.tsx';
import { toast } from '../ui/toast.ts';

const tell = (fault: unknown): void => void toast.error(wordsOfFault(fault));

/** Brings the words or the section that a thread is about into sight, where the text is open. */
function showInText(thread: string): void {
  const there = document.querySelector(`.talked-about[data-thread="${thread}"]`);
  if (there) return there.scrollIntoView({ block: 'center' });
  toast(
    document.querySelector('.text-of-page')
      ? 'These words no longer stand in the text.'
      : 'Open the text in the Write lens to see where this stands.',
  );
}

/** What colleagues say of one thing: the first comment, the answers, and what can be done about it. */
export function OneThread({ thread, isShown }: { readonly thread: Thread; readonly isShown: boolean }) {
  const { site, setLens, past, mayEdit } = useWorkbench();
  const { id, about, comments, handed, settledBy } = thread;
  const handedTo = [...new Set(handed.map(({ to }) => to))];
  const whole = useRef<HTMLElement>(null);
  useEffect(() => {
    if (!isShown) return;
    whole.current?.scrollIntoView({ block: 'nearest' });
    whole.current?.focus({ preventScroll: true });
  }, [isShown]);
  const words = aboutWords(about);
  const settle = (isSettled: boolean) => void settleThread(site.key, id, isSettled).catch(tell);
  return (
    <article
      ref={whole}
      tabIndex={-1}
      aria-label={`Comment by ${comments[0]!.by}`}
      className={`flex flex-col gap-2 rounded-md px-3 py-2 ${settledBy === null ? 'border border-edge bg-raised' : 'border border-rule text-quiet'} ${isShown ? 'shadow-marked' : ''}`}
    >
      {words !== null && (
        <p className="border-l-2 border-attention pl-2 text-small text-quiet wrap-anywhere">
          {about && 'lens' in about ? (
            <button type="button" className="text-accent hover:underline" onClick={() => setLens(about.lens)}>
              {words}
            </button>
          ) : (
            <button
              type="button"
              className="text-left hover:text-accent hover:underline"
              onClick={() => showInText(id)}
            >
              {words}
            </button>
          )}
        </p>
      )}
      <ol className="flex flex-col gap-2">
        {comments.map((comment, at) => (
          <OneComment
            key={comment.id}
            thread={thread}
            comment={comment}
            isLast={at === comments.length - 1}
            mayChange={mayEdit && comment.isOwn && settledBy === null}
          />
        ))}
      </ol>
      {handedTo.length > 0 && <p className="text-small text-quiet">Handed over to {listOf(handedTo)}.</p>}
      {settledBy === null ? (
        mayEdit && <Answering thread={id} onSettle={() => settle(true)} />
      ) : (
        <p className="text-small">
          Settled by {settledBy}.{' '}
          {mayEdit && past === null && (
            <button
              type="button"
              className="inline-flex items-center gap-1 text-accent hover:underline"
              onClick={() => settle(false)}
            >
              <RotateCcw size={12} aria-hidden /> Reopen
            </button>
          )}
        </p>
      )}
    </article>
  );
}

function OneComment({
  thread,
  comment: { id, by, text, at, editedAt },
  isLast,
  mayChange,
}: {
  readonly thread: Thread;
  readonly comment: ThreadComment;
  readonly isLast: boolean;
  readonly mayChange: boolean;
}) {
  const { site } = useWorkbench();
  const [changed, setChanged] = useState<string | null>(null);
  const save = () => {
    if (changed === null || changed.trim() === '') return;
    void changeThreadComment(site.key, thread.id, id, changed.trim()).then(() => setChanged(null), tell);
  };
  return (
    <li>
      <div className="flex min-h-6 items-center gap-1">
        <p className="min-w-0 flex-1 text-small text-quiet">
          <span className="font-medium text-ink">{by}</span>, {momentWords(at, site.settings.timeZone)}
          {editedAt !== null && ', changed'}
        </p>
        {mayChange && changed === null && (
          <>
            <IconButton name="Change your comment" className="size-6" onClick={() => setChanged(text)}>
              <Pencil size={13} aria-hidden />
            </IconButton>
            {isLast && (
              <IconButton
                name="Delete your comment"
                className="size-6"
                onClick={() => void deleteThreadComment(site.key, thread.id, id).catch(tell)}
              >
                <Trash2 size={13} aria-hidden />
              </IconButton>
            )}
          </>
        )}
      </div>
      {changed === null ? (
        <CommentText site={site.key} text={text} />
      ) : (
        <form
          aria-label="Change your comment"
          className="flex flex-col gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            save();
          }}
        >
          <CommentField
            site={site.key}
            label="Your comment"
            value={changed}
            onType={setChanged}
            onSend={save}
            onLeave={() => setChanged(null)}
          />
          <div className="flex gap-2">
            <Button look="main" type="submit" disabled={changed.trim() === ''}>
              Save
            </Button>
            <Button onClick={() => setChanged(null)}>Cancel</Button>
          </div>
        </form>
      )}
    </li>
  );
}

function Answering({ thread, onSettle }: { readonly thread: string; readonly onSettle: () => void }) {
  const { site } = useWorkbench();
  const [text, setText] = useKept(`answer.${thread}`);
  const [isSending, setSending] = useState(false);
  const send = () => {
    if (text.trim() === '' || isSending) return;
    setSending(true);
    void answerThread(site.key, thread, text.trim())
      .then(() => setText(''), tell)
      .finally(() => setSending(false));
  };
  return (
    <form
      aria-label="Answer"
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
    >
      <CommentField site={site.key} label="Answer" value={text} onType={setText} onSend={send} />
      <div className="flex gap-2">
        {text.trim() !== '' && (
          <Button look="main" type="submit" disabled={isSending} title="Ctrl+Enter">
            Answer
          </Button>
        )}
        <Button look={text.trim() === '' ? 'plain' : 'quiet'} disabled={isSending} onClick={onSettle}>
          <Check size={14} aria-hidden /> Settle it
        </Button>
      </div>
    </form>
  );
}
