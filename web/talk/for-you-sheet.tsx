import {
  AtSign,
  CalendarClock,
  CircleCheck,
  Forward,
  MessageSquare,
  MessagesSquare,
  PencilLine,
  SearchCheck,
  Undo2,
  UserCheck,
} from 'lucide-react';
import { type ReactNode, useMemo, useState } from 'react';
import { PAGE_CHECKS } from '#core/checks/page-checks.ts';
import type { PageId } from '#core/model/ids.ts';
import { momentWords } from '#core/model/moment-words.ts';
import { maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { type ConcernKind, MAIL_WISHES, type MailWish } from '#core/talk/thread.ts';
import type { BodyOf } from '#contract/routes.ts';
import { wordsOfFault } from '../api/client.ts';
import { followPage, readConcerns, setMails } from '../api/talk.ts';
import { MarkedRows } from '../settings/marked-rows.tsx';
import type { WholeKind } from '../settings/settings-kind.ts';
import { ShowRows } from '../settings/show-rows.tsx';
import { useMarkRows } from '../settings/use-mark-rows.ts';
import { dayWords } from '../tree/plan-words.tsx';
import { pages } from '../tree/words.ts';
import { Button, IconButton } from '../ui/button.tsx';
import { Radios } from '../ui/field.tsx';
import { type Marks, useWorkbench } from '../workbench/workbench-context.tsx';
import { showThread } from './begun-comment.ts';
import { type ForYou, useForYou } from './use-for-you.ts';
import { toast } from '../ui/toast.ts';

/** What concerns whoever is signed in, read and unread, and how they hear of it. */
export const FOR_YOU: WholeKind = {
  title: 'For you',
  Sign: AtSign,
  description:
    'Who mentions, asks or answers you, what is said of and changed on the pages that name you as owner or that you follow, and what is due. These pages are marked in the tree.',
  Whole: Whole,
};

const MAIL_WORDS: Readonly<Record<MailWish, string>> = { 'at-once': 'At once', daily: 'Once a day', never: 'Never' };
const KIND_WORDS: Readonly<Record<ConcernKind, string>> = {
  mention: 'mentions you',
  review: 'asks for your approval',
  returned: 'returns your proposal',
  approved: 'approves your proposal',
  answer: 'answers',
  comment: 'comments',
  'handed over': 'hands this over to you',
};
const KIND_SIGNS = {
  mention: AtSign,
  review: UserCheck,
  returned: Undo2,
  approved: CircleCheck,
  answer: MessagesSquare,
  comment: MessageSquare,
  'handed over': Forward,
};

/** What is marked as read. */
type Read = Partial<Pick<BodyOf<'readConcerns'>, 'said' | 'edits' | 'others'>>;

function Whole() {
  const forYou = useForYou();
  return forYou === null ? <p className="text-quiet">Loading …</p> : <Everything forYou={forYou} />;
}

function Everything({ forYou }: { readonly forYou: ForYou }) {
  const { site, setBeside } = useWorkbench();
  const [isAll, setAll] = useState(false);
  const { answer, said, edits, due, findings, reviews, unread } = forYou;
  const shows = (one: { readonly isRead: boolean }) => isAll || !one.isRead;
  const marks = useMemo<Marks>(() => ({ name: 'For you', words: marksOf(forYou) }), [forYou]);
  useMarkRows(marks.words.size > 0 ? marks : null);
  const read = (isRead: boolean, what: Read) =>
    void readConcerns(site.key, { asOf: answer.asOf, isRead, said: [], edits: [], others: [], ...what }).catch(
      (fault: unknown) => toast.error(wordsOfFault(fault)),
    );
  const { timeZone } = site.settings;
  const all: Read = {
    said: said.map(({ id }) => id),
    edits: edits.map(({ page }) => page),
    others: [...due, ...findings].map(({ name }) => name).slice(0, 1000),
  };
  const count = said.length + edits.length + due.length + findings.length;
  return (
    <div className="flex flex-col gap-4">
      <div className="flex flex-wrap items-center gap-2">
        <p className="flex-1 font-medium">
          {unread === 0 ? 'You have read everything.' : unread === 1 ? 'One is new.' : `${unread} are new.`}
        </p>
        {unread > 0 && (
          <Button onClick={() => read(true, all)}>
            <CircleCheck size={14} aria-hidden /> Mark all as read
          </Button>
        )}
        {count > unread && (
          <Button look="quiet" aria-pressed={isAll} onClick={() => setAll(!isAll)}>
            {isAll ? 'Only what is new' : `Show ${count - unread} that ${count - unread === 1 ? 'is' : 'are'} read`}
          </Button>
        )}
      </div>
      {marks.words.size > 0 && (
        <MarkedRows count={marks.words.size}>{pages(marks.words.size)} marked in the tree.</MarkedRows>
      )}
      <Part title="Waiting for your approval" isEmpty={reviews.length === 0}>
        {reviews.map(({ id, by, pages: [page], note, at, count }) => (
          <One
            key={id}
            page={page!}
            isRead={false}
            sign={<UserCheck size={15} aria-hidden />}
            head={`${by} proposes ${pages(count)}`}
            says={note}
            foot={momentWords(at, timeZone)}
            onOpen={() => setBeside({ kind: 'proposals', id })}
          />
        ))}
      </Part>
      <Part title="Said to you and on your pages" isEmpty={!said.some(shows)}>
        {said.filter(shows).map((one) => {
          const Sign = KIND_SIGNS[one.kind];
          return (
            <One
              key={one.id}
              page={one.page}
              isRead={one.isRead}
              sign={<Sign size={15} aria-hidden />}
              head={`${one.by} ${KIND_WORDS[one.kind]}`}
              says={one.words}
              foot={momentWords(one.at, timeZone)}
              onRead={(isRead) => read(isRead, { said: [one.id] })}
              onOpen={() => {
                if (!one.isRead) read(true, { said: [one.id] });
                if (one.proposal !== null) return setBeside({ kind: 'proposals', id: one.proposal });
                setBeside({ kind: 'comments', id: one.page });
                if (one.thread !== null) showThread(one.page, one.thread);
              }}
            />
          );
        })}
      </Part>
      <Part title="Changed on your pages" isEmpty={!edits.some(shows)}>
        {edits.filter(shows).map((one) => (
          <One
            key={one.page}
            page={one.page}
            isRead={one.isRead}
            sign={<PencilLine size={15} aria-hidden />}
            head={one.count === 1 ? one.by.join(', ') : `${one.by.join(', ')}, ${one.count} changes`}
            says={one.words}
            foot={momentWords(one.at, timeZone)}
            onRead={(isRead) => read(isRead, { edits: [one.page] })}
          />
        ))}
      </Part>
      <Part title="Due" isEmpty={!due.some(shows)}>
        {due.filter(shows).map((one) => (
          <One
            key={one.name}
            page={one.page}
            isRead={one.isRead}
            sign={<CalendarClock size={15} aria-hidden />}
            head={one.isLate ? `Was due on ${dayWords(one.due)}` : `Due on ${dayWords(one.due)}`}
            isUrgent={one.isLate}
            onRead={(isRead) => read(isRead, { others: [one.name] })}
          />
        ))}
      </Part>
      <Part title="Found by the checks" isEmpty={!findings.some(shows)}>
        {findings.filter(shows).map((one) => (
          <One
            key={one.name}
            page={one.page}
            isRead={one.isRead}
            sign={<SearchCheck size={15} aria-hidden />}
            head={PAGE_CHECKS[one.finding.fault].called}
            onRead={(isRead) => read(isRead, { others: [one.name] })}
          />
        ))}
      </Part>
      <Follows follows={answer.follows} />
      <div className="border-t border-rule pt-3">
        <Radios
          legend="Tell me by mail"
          choices={MAIL_WISHES.map((value) => ({ value, words: MAIL_WORDS[value] }))}
          value={answer.mails}
          onChoose={(wish) => void setMails(site.key, wish).catch((fault: unknown) => toast.error(wordsOfFault(fault)))}
        />
        <p className="mt-1 text-small text-quiet">
          {answer.mails === 'never'
            ? 'You see it here alone, on every site that you work on.'
            : answer.mails === 'daily'
              ? 'One mail in the morning for each site, when there is something new.'
              : 'What is said, as it is said. Changes and what is due come once a day.'}
        </p>
      </div>
    </div>
  );
}

/** The pages that something unread is about, each with what it is. */
function marksOf({ said, edits, due, findings, reviews }: ForYou): ReadonlyMap<PageId, string> {
  const words = new Map<PageId, string>();
  const add = (page: PageId, word: string) =>
    words.set(page, [words.get(page), word].filter((one) => one !== undefined).join(', '));
  for (const [list, word] of [
    [said, 'a comment'],
    [edits, 'changed'],
    [due, 'due'],
    [findings, 'a finding'],
  ] as const)
    for (const page of new Set(list.filter(({ isRead }) => !isRead).map((one) => one.page))) add(page, word);
  for (const { pages: of } of reviews) for (const page of of) add(page, 'to approve');
  return words;
}

function Part({
  title,
  isEmpty,
  children,
}: {
  readonly title: string;
  readonly isEmpty: boolean;
  readonly children: ReactNode;
}) {
  if (isEmpty) return null;
  return (
    <section aria-label={title}>
      <h3 className="mb-1 font-medium">{title}</h3>
      <ul className="divide-y divide-rule rounded-md border border-rule bg-raised">{children}</ul>
    </section>
  );
}

/** One thing that concerns somebody: the page it is about, what it is, and whether it is read. */
function One({
  page,
  isRead,
  sign,
  head,
  says = '',
  foot = '',
  isUrgent = false,
  onRead,
  onOpen,
}: {
  readonly page: PageId;
  readonly isRead: boolean;
  readonly sign: ReactNode;
  readonly head: string;
  readonly says?: string;
  readonly foot?: string;
  readonly isUrgent?: boolean;
  /** Left out for what stays until it is done. */
  readonly onRead?: (isRead: boolean) => void;
  readonly onOpen?: () => void;
}) {
  const { site } = useWorkbench();
  const title = textIn(maybeNodeAt(site, page)?.title ?? {}, site.settings.language);
  return (
    <li className={`flex gap-2.5 px-3 py-2 ${isRead ? 'text-quiet' : ''}`}>
      <span className={`mt-0.5 shrink-0 ${isRead ? '' : 'text-accent'}`}>{sign}</span>
      <div className="min-w-0 flex-1">
        <p className={isUrgent ? 'font-medium text-attention' : isRead ? '' : 'font-medium'}>{head}</p>
        {says !== '' && <p className="line-clamp-3 wrap-anywhere">{says}</p>}
        <p className="flex flex-wrap items-baseline gap-x-3 text-small text-quiet">
          <ShowRows pages={[page]}>{title}</ShowRows>
          {foot !== '' && <span>{foot}</span>}
          {onOpen && (
            <button type="button" className="min-h-6 text-accent hover:underline" onClick={onOpen}>
              {onRead ? 'Read and answer' : 'Look and decide'}
            </button>
          )}
        </p>
      </div>
      {onRead && (
        <IconButton
          name={isRead ? `Mark as unread: ${title}` : `Mark as read: ${title}`}
          className="size-7 shrink-0"
          onClick={() => onRead(!isRead)}
        >
          {isRead ? (
            <CircleCheck size={15} aria-hidden />
          ) : (
            <span aria-hidden className="size-2.5 rounded-full bg-accent" />
          )}
        </IconButton>
      )}
    </li>
  );
}

function Follows({ follows }: { readonly follows: readonly PageId[] }) {
  const { site } = useWorkbench();
  const standing = follows.filter((page) => site.nodes.has(page));
  return (
    <section aria-label="You follow" className="border-t border-rule pt-3">
      <h3 className="font-medium">You follow</h3>
      {standing.length === 0 ? (
        <p className="text-small text-quiet">
          No page yet. <em>Follow</em> beside the comments of a page follows it with all below it.
        </p>
      ) : (
        <ul>
          {standing.map((page) => (
            <li key={page} className="flex items-center gap-2">
              <span className="min-w-0 flex-1">
                <ShowRows pages={[page]}>{textIn(maybeNodeAt(site, page)!.title, site.settings.language)}</ShowRows>
              </span>
              <Button
                look="quiet"
                isTight
                onClick={() =>
                  void followPage(site.key, page, false).catch((fault: unknown) => toast.error(wordsOfFault(fault)))
                }
              >
                Stop following
              </Button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
