import { subDays } from 'date-fns';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { mayAt } from '#core/people/powers.ts';
import { concernedBy, pagesOf } from '#core/talk/concerned.ts';
import { isInHands } from '#core/talk/in-hands.ts';
import { mentionedIn } from '#core/talk/mentions.ts';
import type { About } from '#core/talk/thread.ts';
import type { Account } from '#contract/api.ts';
import type { BodyOf } from '#contract/routes.ts';
import type { ConcernsAnswer, Thread, ThreadsAnswer } from '#contract/talk.ts';
import type { Database } from '../database/connect.ts';
import { colleaguesOf } from '../people/people-repository.ts';
import { ProblemError } from '../problem.ts';
import { tellFeedback } from '../sharing/feedback-repository.ts';
import {
  type Talker,
  countFollows,
  editsTo,
  followsOf,
  insertConcerns,
  mailsOf,
  readBy,
  saidTo,
  setFollow,
  setRead,
  setSaidRead,
  talkersOf,
  toldOf,
} from './concern-repository.ts';
import { handedOverMail } from './talk-mails.ts';
import { type TellingParts, tellConcerned } from './tell-concerned.ts';
import {
  type StoredThread,
  countSettled,
  countThreads,
  deleteComment,
  deleteThread,
  handThreads,
  insertComment,
  insertThread,
  lockThread,
  setCommentText,
  setSettled,
  threadsOf,
} from './thread-repository.ts';

/** A page takes so many threads, a thread so many comments, and somebody follows so many pages at most. */
const MAX_THREADS = 1000;
const MAX_COMMENTS = 500;
const MAX_FOLLOWS = 500;
/** Edits to somebody's pages concern them for so many days. */
const EDITS_FOR_DAYS = 30;

/** What colleagues say of pages, and whom it concerns. What is said of a page is for those who may read it. */
export class TalkService {
  readonly #parts: TellingParts;

  constructor(parts: TellingParts) {
    this.#parts = parts;
  }

  /** Those that are open, on the pages that somebody may read; or all of one page. */
  async threads(key: SiteKey, account: Account, page: PageId | null): Promise<ThreadsAnswer> {
    const { database, people } = this.#parts;
    const { site } = await this.#parts.cache.current(key);
    const powers = await people.powersOf(key, account);
    const isReadable = (one: { readonly page: PageId }) =>
      site.nodes.has(one.page) && mayAt(site, powers, 'read', one.page);
    const threads = await threadsOf(database, key, page === null ? 'open' : { page });
    return {
      threads: threads.filter(isReadable).map((one) => threadFor(one, account)),
      settled: (await countSettled(database, key)).filter(isReadable),
    };
  }

  /** @throws ProblemError `page-unknown`, `talk-full`, `thread-unknown` where the id is that of another thread */
  async start(
    key: SiteKey,
    account: Account,
    page: PageId,
    { id, about, text }: BodyOf<'startThread'>,
  ): Promise<Thread> {
    const { database, now } = this.#parts;
    const { site } = await this.#parts.cache.current(key);
    if (!site.nodes.has(page)) throw new ProblemError('page-unknown', { page });
    return database.transaction(async (trx) => {
      if ((await countThreads(trx, key, page)) >= MAX_THREADS)
        throw new ProblemError('talk-full', { limit: `${MAX_THREADS} comments on a page` });
      const at = now();
      if (await insertThread(trx, { id, site: key, page, about: about as About }, at))
        await this.#say(trx, site, account, { thread: { id, page }, comment: id, text, earlier: [] }, at);
      const [thread] = await threadsOf(trx, key, { id });
      // Whoever sends the id of another's thread is not told what stands there.
      if (thread?.page !== page || thread.comments[0]!.account !== account.id) throw new ProblemError('thread-unknown');
      return threadFor(thread, account);
    });
  }

  /** An answer reopens what was settled. @throws ProblemError */
  async answer(key: SiteKey, account: Account, thread: string, { id, text }: BodyOf<'answerThread'>): Promise<Thread> {
    return this.#change(key, account, thread, async (trx, site, before, at) => {
      if (before.comments.length >= MAX_COMMENTS)
        throw new ProblemError('talk-full', { limit: `${MAX_COMMENTS} answers to a comment` });
      const earlier = [...before.comments.flatMap((one) => one.account ?? []), ...before.handed.map((one) => one.to)];
      const isNew = await this.#say(trx, site, account, { thread: before, comment: id, text, earlier }, at);
      if (isNew && before.settledBy !== null) await setSettled(trx, thread, null, at);
    });
  }

  /** Who is mentioned only now is told. @throws ProblemError */
  async changeComment(key: SiteKey, account: Account, thread: string, comment: string, text: string): Promise<Thread> {
    return this.#change(key, account, thread, async (trx, site, before, at) => {
      this.#own(before, account, comment);
      await setCommentText(trx, comment, text, at);
      const told = await toldOf(trx, comment);
      await this.#tell(
        trx,
        site,
        account,
        { thread: before, comment, text, earlier: [] },
        at,
        (kind, id) => kind === 'mention' && !told.includes(id),
      );
    });
  }

  /** The last comment of a thread can be deleted by who made it; the first one goes with the thread. @throws ProblemError */
  async deleteComment(key: SiteKey, account: Account, thread: string, comment: string): Promise<void> {
    const { database, people } = this.#parts;
    const { site } = await this.#parts.cache.current(key);
    await database.transaction(async (trx) => {
      await lockThread(trx, key, thread);
      const before = await this.#readable(trx, site, account, thread);
      await people.require(key, account, 'comment', before.page);
      this.#own(before, account, comment);
      const last = before.comments.at(-1)!;
      if (last.id !== comment) throw new ProblemError('comment-answered', { by: last.by });
      if (before.comments.length === 1) await deleteThread(trx, thread);
      else await deleteComment(trx, comment);
      await tellFeedback(trx, key);
    });
  }

  /** @throws ProblemError */
  settle(key: SiteKey, account: Account, thread: string, isSettled: boolean): Promise<Thread> {
    return this.#change(key, account, thread, async (trx, _site, before, at) => {
      if ((before.settledBy !== null) !== isSettled) await setSettled(trx, thread, isSettled ? account.name : null, at);
    });
  }

  /**
   * Puts the open conversations that are in somebody's hands into another's, who is told of them from now on. What they may not
   * read stays where it is. @throws ProblemError `colleague-unknown`
   */
  async handOver(key: SiteKey, from: string, to: string): Promise<{ handedOver: number; left: number }> {
    const { database, people, mailer, origin, now } = this.#parts;
    const { site } = await this.#parts.cache.current(key);
    return database.transaction(async (trx) => {
      const [talkers, [leaver]] = [await talkersOf(trx, key), await colleaguesOf(trx, key, from)];
      const heir = talkers.find(({ id }) => id === to);
      if (!leaver || !heir || from === to) throw new ProblemError('colleague-unknown');
      const mentionable = [...talkers.filter(({ id }) => id !== from), { id: from, name: leaver.name }];
      const theirs = (await threadsOf(trx, key, 'open')).filter(({ comments, handed }) =>
        isInHands(
          {
            isBegunByThem: comments[0]!.account === from,
            isHandedToThem: handed.some((one) => one.to === from),
            isHandedByThem: handed.some((one) => one.by === from),
            texts: comments.map(({ text }) => text),
          },
          from,
          mentionable,
        ),
      );
      const powers = await people.powersOf(key, heir);
      const going = theirs.filter(({ page }) => mayAt(site, powers, 'read', page));
      const isNew = going.filter(({ handed }) => !handed.some((one) => one.to === to));
      const ids = going.map(({ id }) => id);
      await handThreads(trx, ids, from, to);
      const at = now();
      for (const { id, page, comments } of isNew) {
        const told = { site: key, page, thread: id, comment: comments[0]!.id, by_name: leaver.name };
        await insertConcerns(trx, told, new Map([[to, 'handed over']]), at);
      }
      if (isNew.length > 0 && heir.mails === 'at-once') {
        const pages = [...new Set(isNew.map(({ page }) => page))];
        const about = { site, origin, from: leaver.name, count: isNew.length, pages };
        await mailer.send(trx, [handedOverMail(heir.email, about)], at);
      }
      await tellFeedback(trx, key);
      return { handedOver: going.length, left: theirs.length - going.length };
    });
  }

  /** @throws ProblemError `page-unknown`, `talk-full` */
  async follow(key: SiteKey, account: Account, page: PageId, isFollowing: boolean): Promise<void> {
    const { database, cache, now } = this.#parts;
    const { site } = await cache.current(key);
    if (isFollowing && site.nodes.get(page)?.removedWith !== null) throw new ProblemError('page-unknown', { page });
    if (isFollowing && (await countFollows(database, key, account.id)) >= MAX_FOLLOWS)
      throw new ProblemError('talk-full', { limit: `${MAX_FOLLOWS} pages that one follows` });
    await setFollow(database, key, account.id, page, isFollowing ? now() : null);
  }

  async concerns(key: SiteKey, account: Account): Promise<ConcernsAnswer> {
    const { database, people, now } = this.#parts;
    const { site } = await this.#parts.cache.current(key);
    const powers = await people.powersOf(key, account);
    const asOf = now();
    const follows = await followsOf(database, key, account.id);
    const own = pagesOf(site, account.name, follows, subDays(asOf, EDITS_FOR_DAYS).toISOString());
    const [said, edits, read, mails] = await Promise.all([
      saidTo(database, key, account.id),
      editsTo(database, key, account.id, own),
      readBy(database, key, account.id),
      mailsOf(database, account.id),
    ]);
    return {
      asOf: asOf.toISOString(),
      said: said.filter(({ page }) => site.nodes.has(page) && mayAt(site, powers, 'read', page)),
      edits,
      read,
      follows: follows.map(({ page }) => page),
      mails,
    };
  }

  async markRead(
    key: SiteKey,
    account: Account,
    { asOf, isRead, said, edits, others }: BodyOf<'readConcerns'>,
  ): Promise<void> {
    const { database, now } = this.#parts;
    await this.#parts.cache.current(key);
    const until = new Date(Math.min(Date.parse(asOf), now().getTime()));
    await database.transaction(async (trx) => {
      await setSaidRead(trx, key, account.id, said, isRead ? now() : null);
      await setRead(trx, key, account.id, [...edits.map((page) => `edits ${page}`), ...others], isRead ? until : null);
    });
  }

  /** Changes a thread under its lock, and tells all who look at the site. */
  async #change(
    key: SiteKey,
    account: Account,
    thread: string,
    change: (trx: Database, site: Site, before: StoredThread, at: Date) => Promise<void>,
  ): Promise<Thread> {
    const { database, people, now } = this.#parts;
    const { site } = await this.#parts.cache.current(key);
    return database.transaction(async (trx) => {
      await lockThread(trx, key, thread);
      const before = await this.#readable(trx, site, account, thread);
      await people.require(key, account, 'comment', before.page);
      await change(trx, site, before, now());
      await tellFeedback(trx, key);
      return this.#threadFor(trx, key, account, thread);
    });
  }

  /** A thread on a page that somebody may read. @throws ProblemError `thread-unknown` */
  async #readable(trx: Database, site: Site, account: Account, id: string): Promise<StoredThread> {
    const [thread] = await threadsOf(trx, site.key, { id });
    const powers = await this.#parts.people.powersOf(site.key, account);
    if (!thread || !mayAt(site, powers, 'read', thread.page)) throw new ProblemError('thread-unknown');
    return thread;
  }

  async #threadFor(trx: Database, key: SiteKey, account: Account, id: string): Promise<Thread> {
    const [thread] = await threadsOf(trx, key, { id });
    if (!thread) throw new ProblemError('thread-unknown');
    return threadFor(thread, account);
  }

  /** @throws ProblemError where a comment is not there, or is another's */
  #own({ comments }: StoredThread, account: Account, id: string): void {
    const comment = comments.find((one) => one.id === id);
    if (!comment) throw new ProblemError('thread-unknown');
    if (comment.account !== account.id) throw new ProblemError('comment-of-another', { by: comment.by });
  }

  /** Adds a comment and tells whom it concerns. Gives whether it is new. */
  async #say(trx: Database, site: Site, account: Account, said: Said, at: Date): Promise<boolean> {
    const { thread, comment, text } = said;
    const row = { id: comment, thread: thread.id, account: account.id, by_name: account.name, text };
    if (!(await insertComment(trx, row, at))) return false;
    await this.#tell(trx, site, account, said, at);
    await tellFeedback(trx, site.key);
    return true;
  }

  async #tell(
    trx: Database,
    site: Site,
    account: Account,
    { thread, comment, text, earlier }: Said,
    at: Date,
    isTold: (kind: string, id: string) => boolean = () => true,
  ): Promise<void> {
    const { page } = thread;
    const readers = await this.#readersOf(trx, site, page);
    const concerned = concernedBy(site, {
      page,
      by: account.id,
      mentioned: mentionedIn(text, readers),
      earlier,
      follows: await followsOf(trx, site.key),
      readers,
    });
    const told = readers.flatMap((one) => {
      const kind = concerned.get(one.id);
      return kind !== undefined && isTold(kind, one.id) ? [{ ...one, kind }] : [];
    });
    const said = { page, thread: thread.id, comment, by_name: account.name };
    await tellConcerned(trx, this.#parts, site, said, text, told, at);
  }

  /** Those who may read a page, so that something said there can concern them. */
  async #readersOf(trx: Database, site: Site, page: PageId): Promise<Talker[]> {
    const talkers = await talkersOf(trx, site.key);
    const powers = await Promise.all(talkers.map((one) => this.#parts.people.powersOf(site.key, one)));
    return talkers.filter((_, at) => mayAt(site, powers[at]!, 'read', page));
  }
}

interface Said {
  readonly thread: { readonly id: string; readonly page: PageId };
  readonly comment: string;
  readonly text: string;
  /** Who has said something in the thread before. */
  readonly earlier: readonly string[];
}

const threadFor = ({ comments, settledAt, handed, ...thread }: StoredThread, account: Account): Thread => ({
  ...thread,
  handed: handed.map(({ toName, byName }) => ({ to: toName, by: byName })),
  settledAt: settledAt?.toISOString() ?? null,
  comments: comments.map(({ id, account: by, at, editedAt, ...comment }) => ({
    ...comment,
    id,
    isOwn: by === account.id,
    at: at.toISOString(),
    editedAt: editedAt?.toISOString() ?? null,
  })),
});
