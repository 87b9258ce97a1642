import { Bell, BellRing, X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { About } from '#core/talk/thread.ts';
import { wordsOfFault } from '../api/client.ts';
import { followPage, startThread, useConcerns, usePageThreads } from '../api/talk.ts';
import { useKept } from '../fields/use-kept.ts';
import { Button, IconButton } from '../ui/button.tsx';
import { Allowing } from '../workbench/allowing.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { aboutWords } from './about-words.ts';
import { endBegun, useBegun } from './begun-comment.ts';
import { CommentField } from './comment-field.tsx';
import { GuestsSay } from './guests-say.tsx';
import { OneThread } from './one-thread.tsx';
import { toast } from '../ui/toast.ts';

/** What is said of a page, by colleagues and by guests of the plan, and where something more is said. */
export function PageTalk({ page, isAlone = false }: { readonly page: PageId; readonly isAlone?: boolean }) {
  const { site, may } = useWorkbench();
  const mayRead = may('read', page);
  return (
    <section aria-label="Comments" className={`flex flex-col gap-3 ${isAlone ? '' : 'mt-5 border-t border-rule pt-4'}`}>
      <div className="flex items-center gap-2">
        <h3 className="flex-1 font-display text-large font-semibold">Comments</h3>
        {mayRead && <Follow page={page} />}
      </div>
      {mayRead ? (
        <Allowing permission="comment" at={page}>
          <Threads key={`${site.key} ${page}`} page={page} />
        </Allowing>
      ) : (
        <p className="text-quiet">They are for those who may read the page.</p>
      )}
      <Allowing permission="comment" at={page} isQuiet>
        <GuestsSay page={page} />
      </Allowing>
    </section>
  );
}

function Threads({ page }: { readonly page: PageId }) {
  const { site, mayEdit } = useWorkbench();
  const threads = usePageThreads(site.key, page);
  const begun = useBegun(page);
  const [isAll, setAll] = useState(false);
  if (!threads) return <p className="text-quiet">Loading …</p>;
  const open = threads.filter(({ settledBy }) => settledBy === null);
  const settled = threads.filter(({ settledBy }) => settledBy !== null);
  const showsAll = isAll || settled.some(({ id }) => id === begun?.thread);
  return (
    <>
      {open.map((thread) => (
        <OneThread key={thread.id} thread={thread} isShown={thread.id === begun?.thread} />
      ))}
      {mayEdit && <NewComment page={page} />}
      {!mayEdit && threads.length === 0 && <p className="text-quiet">Nobody has said anything here yet.</p>}
      {settled.length > 0 && (
        <button
          type="button"
          aria-expanded={showsAll}
          className="self-start text-small text-accent hover:underline"
          onClick={() => setAll(!showsAll)}
        >
          {showsAll
            ? 'Hide what is settled'
            : settled.length === 1
              ? 'Show one that is settled'
              : `Show ${settled.length} that are settled`}
        </button>
      )}
      {showsAll &&
        settled.map((thread) => <OneThread key={thread.id} thread={thread} isShown={thread.id === begun?.thread} />)}
    </>
  );
}

/** Where a new comment is typed: on the page, on what was chosen of its text, or on what the lens shows. */
function NewComment({ page }: { readonly page: PageId }) {
  const { site, lens } = useWorkbench();
  const begun = useBegun(page);
  const isNew = begun?.thread === null;
  const [text, setText] = useKept(`comment.${site.key}.${page}`);
  const [about, setAbout] = useState<About>(null);
  const [isSending, setSending] = useState(false);
  const field = useRef<HTMLTextAreaElement>(null);
  const [turn, setTurn] = useState<number | null>(null);
  if (isNew && begun.turn !== turn) {
    setTurn(begun.turn);
    setAbout(begun.about);
  }
  useEffect(() => {
    if (turn === null) return;
    field.current?.scrollIntoView({ block: 'center' });
    field.current?.focus({ preventScroll: true });
  }, [turn]);
  const title = textIn(nodeAt(site, page).title, site.settings.language);
  const send = () => {
    if (text.trim() === '' || isSending) return;
    setSending(true);
    // In the Write lens one talks of the page; elsewhere of what the lens shows of it.
    void startThread(site.key, page, about ?? (lens === 'write' ? null : { lens }), text.trim())
      .then(
        () => {
          setText('');
          setAbout(null);
          endBegun();
        },
        (fault: unknown) => toast.error(wordsOfFault(fault)),
      )
      .finally(() => setSending(false));
  };
  return (
    <form
      aria-label="New comment"
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
    >
      {about !== null && (
        <div className="flex items-start gap-1 border-l-2 border-attention pl-2 text-small text-quiet">
          <p className="min-w-0 flex-1 wrap-anywhere">{aboutWords(about)}</p>
          <IconButton name="Comment on the whole page" className="size-6" onClick={() => setAbout(null)}>
            <X size={13} aria-hidden />
          </IconButton>
        </div>
      )}
      <CommentField
        field={field}
        site={site.key}
        label={`Comment on ‘${title}’`}
        value={text}
        onType={setText}
        onSend={send}
      />
      {text.trim() !== '' && (
        <div className="flex items-center gap-2">
          <Button look="main" type="submit" disabled={isSending} title="Ctrl+Enter">
            Comment
          </Button>
          <span className="text-small text-quiet">An @ tells a colleague.</span>
        </div>
      )}
    </form>
  );
}

/** Whether whoever looks follows the page, or a branch that it is in. */
function Follow({ page }: { readonly page: PageId }) {
  const { site } = useWorkbench();
  const follows = useConcerns(site.key)?.follows;
  if (!follows) return null;
  const isFollowing = follows.includes(page);
  const through = isFollowing ? null : followedAbove(follows, page, (at) => site.nodes.get(at)?.parent ?? null);
  const Sign = isFollowing || through !== null ? BellRing : Bell;
  const title = through === null ? '' : textIn(nodeAt(site, through).title, site.settings.language);
  return (
    <Button
      look="quiet"
      isTight
      aria-pressed={isFollowing}
      title={
        through === null
          ? 'What is said and changed here and below shows under ‘For you’'
          : `You follow it through the branch ‘${title}’`
      }
      onClick={() =>
        void followPage(site.key, page, !isFollowing).catch((fault: unknown) => toast.error(wordsOfFault(fault)))
      }
    >
      <Sign size={14} aria-hidden /> {isFollowing ? 'Following' : 'Follow'}
    </Button>
  );
}

function followedAbove(
  follows: readonly PageId[],
  page: PageId,
  above: (page: PageId) => PageId | null,
): PageId | null {
  let at = above(page);
  while (at !== null && !follows.includes(at)) at = above(at);
  return at;
}
