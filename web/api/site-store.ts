import { writeText } from '#core/arrange/write-text.ts';
import { customAlphabet, nanoid } from 'nanoid';
import { z } from 'zod';
import type { SiteKey } from '#core/model/ids.ts';
import type { TextDocument } from '#core/model/content.ts';
import { restoreOverruled, toSave } from '#core/arrange/overruled.ts';
import type { ContentId, PageId } from '#core/model/ids.ts';
import type { LabelId } from '#core/model/access.ts';
import type { FieldId } from '#core/model/kind-field.ts';
import type { AudienceId } from '#core/model/audience.ts';
import type { FactId } from '#core/model/fact.ts';
import type { SharedId } from '#core/model/shared-section.ts';
import type { FormId } from '#core/model/site-form.ts';
import type { LayoutId } from '#core/model/layout.ts';
import type { EntryId, MenuId } from '#core/model/menu.ts';
import type { GoalId, SketchId } from '#core/model/plan.ts';
import type { BoardId, PieceId } from '#core/model/board.ts';
import type { BoxId, VariantId } from '#core/model/sketch.ts';
import type { RedirectId } from '#core/model/redirect.ts';
import type { Refusal } from '#core/model/refusal.ts';
import type { Site } from '#core/model/site.ts';
import { fetchTransliteration } from '#core/model/transliterate-later.ts';
import { type TextPlace, isSamePlace, pageOfText } from '#core/model/text-place.ts';
import { textIn } from '#core/model/texts.ts';
import { applyOperations, cellsOf } from '#core/operations/apply.ts';
import { type Operation, operationSchema } from '#core/operations/operation.ts';
import { forbiddenIn, forbiddenWords } from '#core/people/forbidden.ts';
import type { RoleId } from '#core/people/role.ts';
import { NO_POWERS, type Powers, powersOf } from '#core/people/powers.ts';
import type { CommittedEdit, OperationsBody } from '#contract/api.ts';
import { type MadeRelease, type ReleaseBody, releaseProgress } from '#contract/releases.ts';
import { hereNews } from '#contract/presence.ts';
import { JOINT_REQUEST, jointNews } from '#contract/joint-text.ts';
import { writingNews } from '#contract/writing.ts';
import { readTree } from '#contract/sent-tree.ts';
import { problemSentence } from '#contract/problems.ts';
import { treeOf } from './ahead.ts';
import { type OpenText, TAB } from './open-text.ts';
import { Presence } from './presence.ts';
import {
  AGAIN_AFTER_MS,
  ServerProblem,
  call,
  callUntilKnown,
  isUnknown,
  outlivesPage,
  wordsOfFault,
} from './client.ts';
import { holdChanges } from './held-changes.ts';

interface Pending {
  /** The site that it was made on, and what it made of it. */
  readonly before: Site;
  readonly after: Site;
  readonly request: string;
  readonly operations: OperationsBody['operations'];
  readonly contents: OperationsBody['contents'];
}

/** What the workbench shows of a site. */
export interface Shown {
  readonly site: Site;
  readonly revision: number;
  /** Whether changes of this browser are still on their way. */
  readonly isSaving: boolean;
  /** Whether something that was written here cannot be saved: where it was written, it says why. */
  readonly isRefused: boolean;
  readonly isConnected: boolean;
  /** What may be done here: by whoever is signed in, or by the colleague as whom the workbench is seen. */
  readonly powers: Powers;
  /** The colleague as whom the workbench is seen; null for oneself. Nothing is changed meanwhile. */
  readonly seenAs: string | null;
}

/** A way to have again what was lost; `have` takes it. */
export interface Again {
  readonly operations: OperationsBody['operations'];
  readonly contents: OperationsBody['contents'];
  /** Whether the operations were refused: then what can be saved of them is worked out when that is wanted. */
  readonly wasRefused: boolean;
}

export type Notice =
  | { readonly kind: 'fault'; readonly words: string; readonly again: Again | null }
  /** What somebody else did; `again` where it took the place of what was done here a moment ago. */
  | { readonly kind: 'others'; readonly by: string; readonly words: string; readonly again: Again | null };

/** What can be saved where it is refused because what it builds on is gone. */
const SAVABLE: readonly string[] = ['page.add', 'page.copy', 'page.set'];
/** So long somebody who did something is told when somebody else's edit takes its place. */
const RECENT_MS = 60_000;
/** So many of all pages of a release are written. */
export interface Progress {
  readonly done: number;
  readonly total: number;
}

/** An edit comes by the stream within this time, or the stream is cut off. */
const ARRIVES_WITHIN_MS = 3000;

/**
 * One site in the browser: as the server has confirmed it, and on top of that what was done here and is on its way.
 * Changes show at once; one that the server refuses is taken back, with its reason told.
 *
 *   loaded ──apply──▶ pending ──confirmed by the stream──▶ gone into the confirmed site
 *                        └──────refused by the server────▶ dropped, and told
 */
export class SiteStore {
  readonly key: SiteKey;
  readonly presence: Presence;
  #confirmed: Site;
  #revision: number;
  #pending: Pending[] = [];
  #shown: Shown;
  #powers: Powers;
  #seenAs: { readonly name: string; readonly powers: Powers } | null = null;
  /** The requests that the server has taken, with the revision that each made. */
  readonly #accepted = new Map<string, number>();
  #isSending = false;
  #isConnected = true;
  #stream: EventSource | null = null;
  /** Whether the stream is to be open: the page is seen. */
  #isFollowing = false;
  #isReloading = false;
  readonly #subscribers = new Set<() => void>();
  readonly #listeners = new Set<(told: Notice) => void>();
  readonly #feedbackListeners = new Set<() => void>();
  readonly #answerListeners = new Set<() => void>();
  readonly #peopleListeners = new Set<() => void>();
  /** The texts that are written here. */
  readonly #texts = new Set<OpenText>();
  #releasing: { readonly request: string; readonly progress: Progress | null } | null = null;
  readonly #ownRequests = new Set<string>();
  /** What was done here and confirmed a moment ago. */
  #recent: (Pick<Pending, 'operations' | 'contents'> & { readonly at: number })[] = [];

  private constructor(key: SiteKey, site: Site, revision: number, powers: Powers) {
    this.key = key;
    this.presence = new Presence(key);
    this.#confirmed = site;
    this.#revision = revision;
    this.#powers = powers;
    this.#shown = { site, revision, isSaving: false, isRefused: false, isConnected: true, powers, seenAs: null };
  }

  /** Fetches the tree. @throws ServerProblem, NoAnswer */
  static async open(key: SiteKey): Promise<SiteStore> {
    const [packed, powers] = await Promise.all([treeOf(key), ownPowers(key)]);
    return new SiteStore(key, readTree(packed), packed.revision, powers);
  }

  /** A site that is looked at and not changed. */
  static still(site: Site, revision: number): SiteStore {
    return new SiteStore(site.key, site, revision, NO_POWERS);
  }

  /** Has slugs made of any letters from now on; where some were guessed before, the tree is fetched again. */
  async knowAllLetters(): Promise<void> {
    const isToBeCorrected = await fetchTransliteration();
    if (isToBeCorrected) await this.#reload();
  }

  /**
   * Follows the site's stream of edits until the function that comes back is called. A page that is not seen does not:
   * browsers open few connections to one host, and many pages would take them all. It catches up when it is seen again.
   */
  follow(): () => void {
    const leave = () => {
      this.#isFollowing = false;
      this.#stream?.close();
    };
    const follow = () => {
      if (document.visibilityState !== 'visible') return leave();
      this.#isFollowing = true;
      this.#openStream();
    };
    follow();
    const warn = (event: BeforeUnloadEvent) => {
      if (!this.#isSafeToLeave()) event.preventDefault();
    };
    holdChanges(this.#seenAsWords);
    document.addEventListener('visibilitychange', follow);
    window.addEventListener('beforeunload', warn);
    window.addEventListener('pagehide', leave);
    window.addEventListener('pageshow', follow);
    return () => {
      document.removeEventListener('visibilitychange', follow);
      window.removeEventListener('beforeunload', warn);
      window.removeEventListener('pagehide', leave);
      window.removeEventListener('pageshow', follow);
      holdChanges(null);
      leave();
    };
  }

  /** Whether all that was done here arrives though the page is closed: one request goes on by itself, where it is short. */
  #isSafeToLeave(): boolean {
    if (![...this.#texts].every((text) => text.sendBeforeLeaving())) return false;
    const [next, ...more] = this.#pending.filter(({ request }) => !this.#accepted.has(request));
    return more.length === 0 && (!next || outlivesPage(JSON.stringify([next.operations, next.contents])));
  }

  subscribe = (subscriber: () => void): (() => void) => {
    this.#subscribers.add(subscriber);
    return () => this.#subscribers.delete(subscriber);
  };
  getShown = (): Shown => this.#shown;
  /** How far the release is that is made from here; null where there is none, or nothing is known of it. */
  getReleaseProgress = (): Progress | null => this.#releasing?.progress ?? null;

  onTold(listener: (told: Notice) => void): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  /** Is called when those whom the plan is shared with have said something. Gives the function that ends it. */
  onFeedback(listener: () => void): () => void {
    this.#feedbackListeners.add(listener);
    return () => this.#feedbackListeners.delete(listener);
  }

  /** Is called when visitors have sent a form. Gives the function that ends it. */
  onAnswers(listener: () => void): () => void {
    this.#answerListeners.add(listener);
    return () => this.#answerListeners.delete(listener);
  }

  /** Is called when colleagues or roles of the site have changed. Gives the function that ends it. */
  onPeople(listener: () => void): () => void {
    this.#peopleListeners.add(listener);
    return () => this.#peopleListeners.delete(listener);
  }

  /** Shows the workbench as a colleague sees it, in which nothing is changed; null for as oneself. */
  seeAs(seenAs: { readonly name: string; readonly powers: Powers } | null): void {
    this.#seenAs = seenAs;
    holdChanges(this.#seenAsWords);
    this.#show(this.#shown.site);
  }

  /** Makes a change: it shows at once and is sent. Gives the reason in words where the core refuses it, else null. */
  apply(
    operations: OperationsBody['operations'],
    contents?: { id: ContentId; document: TextDocument }[],
  ): string | null {
    if (operations.length === 0) return null;
    const forbidden = this.#forbidden(operations);
    if (forbidden !== null) {
      this.#tell({ kind: 'fault', words: forbidden, again: null });
      return forbidden;
    }
    const outcome = applyOperations(this.#shown.site, operations);
    if (!outcome.ok) {
      const words = refusalWords(outcome, this.#shown.site);
      this.#tell({ kind: 'fault', words, again: this.#savableOf({ operations, contents }) });
      return words;
    }
    if (outcome.site === this.#shown.site) return null;
    const request = nanoid();
    this.#ownRequests.add(request);
    this.#pending = [
      ...this.#pending,
      { before: this.#shown.site, after: outcome.site, request, operations, contents },
    ];
    this.#show(outcome.site);
    void this.#send();
    return null;
  }

  /** Why an edit may not be made, in words; null where it may. */
  #forbidden(operations: readonly Operation[]): string | null {
    const { site, powers } = this.#shown;
    const forbidden = forbiddenIn(site, powers, operations);
    if (forbidden) return forbiddenWords(powers, forbidden);
    return this.#seenAsWords;
  }

  get #seenAsWords(): string | null {
    return this.#seenAs && `You see the workbench as ${this.#seenAs.name}: nothing was changed.`;
  }

  /** Makes again what was lost, as far as it can be. Gives the reason in words where nothing can. */
  have({ operations, contents, wasRefused }: Again): string | null {
    const site = this.#shown.site;
    const made = wasRefused ? (toSave(operations, site) as Again['operations']) : operations;
    if (made.length > 0) return this.apply([...made], contents);
    const words = 'None of it can be applied to the current tree.';
    this.#tell({ kind: 'fault', words, again: null });
    return words;
  }

  /** Undoes or makes again this person's last change, when all that was done here has arrived. @throws ServerProblem */
  async turn(direction: 'undo' | 'redo', how: { anyway?: boolean; skip?: boolean } = {}): Promise<string> {
    await this.settled();
    this.#recent = [];
    const request = nanoid();
    this.#ownRequests.add(request);
    const { revision, words } = await callUntilKnown(direction, { site: this.key }, { ...how, request });
    await this.#reached(revision);
    return words;
  }

  /** Makes the draft what it was at a revision, when all that was done here has arrived. @throws ServerProblem */
  async goBack(revision: number): Promise<void> {
    await this.settled();
    const request = nanoid();
    this.#ownRequests.add(request);
    await callUntilKnown('goBack', { site: this.key }, { revision, request });
  }

  /** Makes a page what a guest proposes for it, when all that was done here has arrived. @throws ServerProblem */
  async accept(comment: string): Promise<void> {
    await this.settled();
    const request = nanoid();
    this.#ownRequests.add(request);
    await callUntilKnown('acceptProposal', { site: this.key, comment }, { request });
  }

  /** Makes a release, when all that was done here has arrived. @throws ServerProblem */
  async release(asked: ReleaseBody): Promise<MadeRelease> {
    await this.settled();
    const request = nanoid();
    this.#ownRequests.add(request);
    this.#releasing = { request, progress: null };
    try {
      return await callUntilKnown('makeRelease', { site: this.key }, { ...asked, request });
    } finally {
      this.#releasing = null;
      this.#subscribers.forEach((subscriber) => subscriber());
    }
  }

  /** Takes back a release; with `anyway` the rest of it where something stands in the way. @throws ServerProblem */
  async takeBack(release: number, anyway: boolean): Promise<MadeRelease> {
    await this.settled();
    const request = nanoid();
    this.#ownRequests.add(request);
    return callUntilKnown('takeBackRelease', { site: this.key, release: String(release) }, { anyway, request });
  }

  /** Waits until nothing of this browser is on its way. */
  async settled(): Promise<void> {
    while (this.#isSaving) {
      this.#texts.forEach((text) => text.settle());
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  }

  get #isSaving(): boolean {
    return this.#pending.length > 0 || [...this.#texts].some(({ isSettled }) => !isSettled);
  }

  get #isRefused(): boolean {
    return [...this.#texts].some(({ isRefused }) => isRefused);
  }

  getRevision = (): number => this.#revision;

  /** Takes up a text that is written here. Gives the function that ends it. */
  openText = (text: OpenText): (() => void) => {
    this.#texts.add(text);
    return () => {
      this.#texts.delete(text);
      this.textChanged();
    };
  };

  /** Is told when a text that is written here has waited for something, is saved or cannot be. */
  textChanged = (): void => {
    const { isSaving, isRefused } = this.#shown;
    if (isSaving !== this.#isSaving || isRefused !== this.#isRefused) this.#show(this.#shown.site);
  };

  setConnected = (isConnected: boolean): void => this.#setConnected(isConnected);

  tellPlaceGone = (place: TextPlace): void => {
    const page = pageOfText(place);
    const name = page !== null ? 'page' : place.of === 'shared' ? 'shared section' : 'kind';
    // The text itself comes with the page: it is kept beside it.
    const content = (page && this.#confirmed.nodes.get(page)?.content) ?? null;
    this.#tell({
      kind: 'fault',
      words: `The ${name} was removed while you were writing in it.`,
      again: page && { operations: [{ name: 'page.set', page, fields: { content } }], contents: [], wasRefused: true },
    });
  };

  /** Waits until an edit has come by the stream; not for ever, since it may be cut off. */
  async #reached(revision: number): Promise<void> {
    for (let waited = 0; this.#revision < revision && waited < ARRIVES_WITHIN_MS; waited += 20)
      await new Promise((resolve) => setTimeout(resolve, 20));
  }

  async #send(): Promise<void> {
    if (this.#isSending) return;
    this.#isSending = true;
    for (;;) {
      const next = this.#pending.find((one) => !this.#accepted.has(one.request));
      if (!next) break;
      try {
        const { revision } = await call(
          'applyOperations',
          { site: this.key },
          { request: next.request, operations: next.operations, contents: next.contents },
        );
        this.#accepted.set(next.request, revision);
        this.#dropArrived();
      } catch (fault) {
        if (isUnknown(fault)) {
          // It may have arrived: the same request is sent again, and the server applies it once.
          this.#setConnected(false);
          await new Promise((resolve) => setTimeout(resolve, AGAIN_AFTER_MS));
          continue;
        }
        this.#pending = this.#pending.filter(({ request }) => request !== next.request);
        this.#rebase();
        const words = fault instanceof ServerProblem ? `${fault.message} Your change was undone.` : wordsOfFault(fault);
        const { operations, contents } = next;
        this.#tell({ kind: 'fault', words, again: this.#savableOf({ operations, contents }) });
      }
    }
    this.#isSending = false;
  }

  /** A way to have what was refused, where something of it can be saved. */
  #savableOf({ operations, contents }: Pick<Pending, 'operations' | 'contents'>): Again | null {
    if (!operations.some(({ name }) => SAVABLE.includes(name))) return null;
    return toSave(operations, this.#shown.site).length > 0 ? { operations, contents, wasRefused: true } : null;
  }

  #openStream(): void {
    this.#stream?.close();
    const stream = new EventSource(
      `/api/sites/${encodeURIComponent(this.key)}/events?since=${this.#revision}&tab=${TAB}`,
    );
    this.#stream = stream;
    stream.addEventListener('open', () => {
      this.#setConnected(true);
      this.presence.tellAgain();
      this.#texts.forEach((text) => text.catchUp());
    });
    stream.addEventListener('here', (event) => {
      const news = hereNews.parse(JSON.parse(event.data as string));
      if (news.tab !== TAB) this.presence.hear(news);
    });
    stream.addEventListener('error', () => {
      this.#setConnected(false);
      // The browser tries again by itself, but not where it was answered that something is wrong.
      if (stream.readyState === EventSource.CLOSED && this.#stream === stream) void this.#openLater();
    });
    stream.addEventListener('feedback', () => this.#feedbackListeners.forEach((listener) => listener()));
    stream.addEventListener('people', () => void this.#readPowers());
    stream.addEventListener('answers', () => this.#answerListeners.forEach((listener) => listener()));
    stream.addEventListener('writing', (event) => {
      const news = writingNews.parse(JSON.parse(event.data as string));
      if (news.tab === TAB) return;
      if (!news.isWriting) this.#texts.forEach((text) => text.forget(news.tab));
      this.presence.hearWriting(news);
    });
    stream.addEventListener('joint', (event) => {
      const news = jointNews.parse(JSON.parse(event.data as string));
      for (const text of this.#texts) if (isSamePlace(text.place, news.text)) text.hear(news);
    });
    stream.addEventListener('release', (event) => {
      const { request, done, total } = releaseProgress.parse(JSON.parse(event.data as string));
      if (request === null || this.#releasing?.request !== request) return;
      this.#releasing = { request, progress: { done, total } };
      this.#subscribers.forEach((subscriber) => subscriber());
    });
    stream.addEventListener('edit', (event) => this.#receive(JSON.parse(event.data as string) as CommittedEdit));
  }

  /** Takes over that colleagues or roles have changed. Whoever has no role any more can do nothing. */
  async #readPowers(): Promise<void> {
    this.#powers = await ownPowers(this.key).catch(() => NO_POWERS);
    this.#show(this.#shown.site);
    this.#peopleListeners.forEach((listener) => listener());
  }

  #receive(edit: CommittedEdit): void {
    if (edit.revision <= this.#revision) return;
    const operations = z.array(operationSchema).safeParse(edit.operations).data;
    // An edit that this page does not know was made by a newer Spur.
    if (operations === undefined) return void this.#reload();
    const [first, ...others] = this.#pending;
    const own = this.#pending.find((one) => one.request === edit.request);
    if (own) this.#recent.push({ operations: own.operations, contents: own.contents, at: Date.now() });
    if (first?.request === edit.request && first.before === this.#confirmed && edit.revision === this.#revision + 1) {
      // What shows already is what was confirmed: nothing has to be worked out again.
      this.#confirmed = first.after;
      this.#revision = edit.revision;
      this.#pending = others;
      return this.#show(this.#shown.site);
    }
    const outcome = edit.revision === this.#revision + 1 ? applyOperations(this.#confirmed, operations) : null;
    if (!outcome?.ok) return void this.#reload();
    this.#confirmed = outcome.site;
    this.#revision = edit.revision;
    this.#pending = this.#pending.filter((one) => one.request !== edit.request);
    this.#rebase();
    const isJoint = edit.request?.startsWith(JOINT_REQUEST) === true;
    const cells = new Set(isJoint ? operations.flatMap(cellsOf) : []);
    const isOpen = ({ place }: OpenText) => cellsOf(writeText(place, null)).every((cell) => cells.has(cell));
    if (isJoint && [...this.#texts].some(isOpen)) {
      // What is written together stands on the screen already.
      this.#recent.push({ operations: operations as Pending['operations'], contents: [], at: Date.now() });
      return;
    }
    if (edit.request === null || !this.#ownRequests.has(edit.request))
      this.#tell({ kind: 'others', by: edit.by, words: edit.words, again: this.#lostBy(operations) });
  }

  /** What of the work of the last minute somebody else's edit has taken the place of. */
  #lostBy(theirs: readonly Operation[]): Again | null {
    const since = Date.now() - RECENT_MS;
    this.#recent = this.#recent.filter(({ at }) => at >= since);
    const mine = this.#recent.flatMap(({ operations }) => operations);
    const operations = restoreOverruled(mine, theirs, this.#shown.site) as Again['operations'];
    if (operations.length === 0) return null;
    return { operations, contents: this.#recent.flatMap(({ contents }) => contents ?? []), wasRefused: false };
  }

  /** Forgets what the confirmed site has already: it came with the stream, or with a tree that was fetched again. */
  #dropArrived(): void {
    const left = this.#pending.filter(({ request }) => (this.#accepted.get(request) ?? Infinity) > this.#revision);
    if (left.length === this.#pending.length) return;
    this.#pending = left;
    this.#rebase();
  }

  /** Fetches the whole tree again, where the stream does not fit what is here. */
  async #reload(): Promise<void> {
    this.#stream?.close();
    if (this.#isReloading) return;
    this.#isReloading = true;
    try {
      const packed = await call('showTree', { site: this.key });
      this.#confirmed = readTree(packed);
      this.#revision = packed.revision;
      this.#rebase();
      this.#dropArrived();
      if (this.#isFollowing) this.#openStream();
    } catch {
      this.#setConnected(false);
      void this.#openLater();
    } finally {
      this.#isReloading = false;
    }
  }

  /** Opens the stream after a pause; what it brings then is taken in, or the tree is fetched once more. */
  async #openLater(): Promise<void> {
    await new Promise((resolve) => setTimeout(resolve, AGAIN_AFTER_MS));
    if (this.#isFollowing) this.#openStream();
  }

  /** What is on its way, applied again on the confirmed site. */
  #rebase(): void {
    let site = this.#confirmed;
    this.#pending = this.#pending.map((one) => {
      const outcome = applyOperations(site, one.operations);
      const before = site;
      if (outcome.ok) site = outcome.site;
      return { ...one, before, after: site };
    });
    this.#show(site);
  }

  #setConnected(isConnected: boolean): void {
    if (this.#isConnected === isConnected) return;
    this.#isConnected = isConnected;
    this.#show(this.#shown.site);
  }

  #show(site: Site): void {
    this.#shown = {
      site,
      revision: this.#revision,
      isSaving: this.#isSaving,
      isRefused: this.#isRefused,
      isConnected: this.#isConnected,
      powers: this.#seenAs?.powers ?? this.#powers,
      seenAs: this.#seenAs?.name ?? null,
    };
    for (const subscriber of this.#subscribers) subscriber();
  }

  #tell(told: Notice): void {
    for (const listener of this.#listeners) listener(told);
  }
}

/** What whoever is signed in may do on a site. @throws ServerProblem, NoAnswer */
const ownPowers = async (site: SiteKey): Promise<Powers> => {
  const { roles, rolesAt } = await call('showOwnRoles', { site });
  return powersOf(roles, rolesAt);
};

/** A refusal of the core in words, with the title of the page that it speaks of. */
export function refusalWords(refusal: Refusal, site: Site): string {
  const node = refusal.params.page === undefined ? undefined : site.nodes.get(refusal.params.page as PageId);
  const params = node ? { ...refusal.params, pageTitle: textIn(node.title, site.settings.language) } : refusal.params;
  return problemSentence(refusal.code, params);
}

/** An operation that a browser may make. */
export type Edit = OperationsBody['operations'][number] & Operation;

const newLetters = customAlphabet('0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz', 12);

/** A new id for a page, an audience, a goal or a question: 12 letters and digits, 71 bits of chance. */
export const newPageId = (): PageId => newLetters() as PageId;
export const newGoalId = (): GoalId => newLetters() as GoalId;
export const newAudienceId = (): AudienceId => newLetters() as AudienceId;
export const newMenuId = (): MenuId => newLetters() as MenuId;
export const newEntryId = (): EntryId => newLetters() as EntryId;
export const newLayoutId = (): LayoutId => newLetters() as LayoutId;
export const newFactId = (): FactId => newLetters() as FactId;
export const newSharedId = (): SharedId => newLetters() as SharedId;
export const newFormId = (): FormId => newLetters() as FormId;
export const newRedirectId = (): RedirectId => newLetters() as RedirectId;
export const newLabelId = (): LabelId => newLetters() as LabelId;
export const newFieldId = (): FieldId => newLetters() as FieldId;
export const newRoleId = (): RoleId => newLetters() as RoleId;
export const newSketchId = (): SketchId => newLetters() as SketchId;
export const newVariantId = (): VariantId => newLetters() as VariantId;
export const newBoardId = (): BoardId => newLetters() as BoardId;
export const newPieceId = (): PieceId => newLetters() as PieceId;
export const newBoxId = (): BoxId => newLetters() as BoxId;
export const newQuestionId = (): string => newLetters();
