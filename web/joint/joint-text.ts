import * as Y from 'yjs';
import type { SiteKey } from '#core/model/ids.ts';
import type { TextPlace } from '#core/model/text-place.ts';
import { putTextIntoLines } from '#contract/joint-lines.ts';
import {
  CARET_EVERY_MS,
  CARET_FOR_MS,
  type Caret,
  JOINT_FRAGMENT,
  type JointAnswer,
  type JointBody,
  type JointNews,
} from '#contract/joint-text.ts';
import { AGAIN_AFTER_MS, ServerProblem, call, isUnknown, outlivesPage } from '../api/client.ts';
import { type OpenText, TAB } from '../api/open-text.ts';

/** What is typed is sent so long after the first letter, and where the cursor is after so long. */
const SEND_MS = 120;
const CARET_MS = 250;
/** What others have written is fetched this long after it was told. */
const HEAR_MS = 20;
/** While not all of it is saved yet, and nothing is heard, it is asked again. */
const LOOK_MS = 3_000;

/** Where somebody else is in the text, from another tab or browser. */
export interface OtherCaret extends Caret {
  readonly by: string;
}

/** How it goes with a text: `anew` where what is here belongs to an older document, `refused` with the reason. */
export interface JointShown {
  readonly state: 'open' | 'anew' | 'refused';
  /** Why nothing more is taken, or why it is not saved; '' for neither. */
  readonly words: string;
}
/** The answers to who writes where nothing is any more. */
const GONE: ReadonlySet<string> = new Set(['page-unknown', 'shared-unknown', 'label-unknown']);
const OPEN: JointShown = { state: 'open', words: '' };

/** What a text needs of the site that it belongs to. */
interface Around {
  readonly key: SiteKey;
  readonly getRevision: () => number;
  readonly openText: (text: OpenText) => () => void;
  readonly textChanged: () => void;
  readonly setConnected: (isConnected: boolean) => void;
  /** Says that the place was removed while something was written there, and offers to put it back where that is possible. */
  readonly tellPlaceGone: (place: TextPlace) => void;
}

/**
 * A text as it is written here and by others at the same time: a shared document (Yjs), whose changes are sent as they are made
 * and merged in whatever order they arrive. What could not be sent is sent as soon as the server answers again.
 *
 *   typed ──▶ waiting ──taken by the server──▶ (after a pause) saved in its place
 */
export class JointText implements OpenText {
  readonly place: TextPlace;
  readonly shared = new Y.Doc();
  readonly fragment = this.shared.getXmlFragment(JOINT_FRAGMENT);
  readonly #around: Around;
  readonly #close: () => void;
  readonly #base: string;
  #seq: number;
  /** The number of the last update that has something of here in it, the last one that is saved, and the revision that saved it. */
  #ownSeq = 0;
  #savedSeq: number;
  #savedRevision = 0;
  #waiting: Uint8Array[] = [];
  #isExchanging = false;
  #isDueAgain = false;
  /** Whether the place was removed while something here was not saved there. */
  #isPlaceGone = false;
  #wantsSave = false;
  #timer: number | undefined;
  #dueAt = Infinity;
  #caret: Caret | null = null;
  readonly #telling: number;
  readonly #carets = new Map<string, { readonly caret: OtherCaret; readonly forget: number }>();
  readonly #caretListeners = new Set<() => void>();
  readonly #ownListeners = new Set<() => void>();
  readonly #listeners = new Set<() => void>();
  #shown = OPEN;
  #isClosed = false;

  private constructor(around: Around, place: TextPlace, { base, seq, savedSeq, update, problem }: JointAnswer) {
    this.place = place;
    this.#around = around;
    this.#base = base;
    this.#seq = seq;
    this.#savedSeq = savedSeq;
    if (problem !== null) this.#shown = { state: 'open', words: problem };
    if (update !== null) Y.applyUpdate(this.shared, fromBase64(update), this);
    this.shared.on('update', (made: Uint8Array, origin: unknown) => {
      if (origin === this) return;
      this.#waiting.push(made);
      this.#ownListeners.forEach((listener) => listener());
      this.#around.textChanged();
      this.#soon(SEND_MS);
    });
    this.#close = around.openText(this);
    this.#telling = window.setInterval(() => this.#caret && this.#soon(0), CARET_EVERY_MS);
  }

  /** Fetches the text. @throws ServerProblem, NoAnswer */
  static async open(around: Around, place: TextPlace): Promise<JointText> {
    const body = { tab: TAB, base: null, after: 0, update: null, caret: null, save: false };
    return new JointText(around, place, await call('writeTogether', { site: around.key, ...place }, body));
  }

  subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };
  getShown = (): JointShown => this.#shown;

  /** Is called when something is written here. Gives the function that ends it. */
  onOwn(listener: () => void): () => void {
    this.#ownListeners.add(listener);
    return () => this.#ownListeners.delete(listener);
  }

  onCarets(listener: () => void): () => void {
    this.#caretListeners.add(listener);
    return () => this.#caretListeners.delete(listener);
  }
  /** Where others are, tab by tab. */
  get carets(): readonly (readonly [tab: string, caret: OtherCaret])[] {
    return [...this.#carets].map(([tab, { caret }]) => [tab, caret]);
  }

  /** Whether all that was written here is saved, as far as it is known here. */
  get isSettled(): boolean {
    if (this.#shown.state !== 'open' || this.#shown.words !== '' || this.#isPlaceGone) return true;
    return !this.hasUnsaved && this.#around.getRevision() >= this.#savedRevision;
  }
  /** Whether something that was written here is not taken, or does not come into the site. */
  get isRefused(): boolean {
    return this.hasUnsaved && (this.#shown.state !== 'open' || this.#shown.words !== '' || this.#isPlaceGone);
  }
  /** Whether something was written here that is not saved. */
  get hasUnsaved(): boolean {
    return this.#waiting.length > 0 || this.#ownSeq > this.#savedSeq;
  }

  /** Sends what waits, and has all of it saved. */
  settle(): void {
    if (this.isSettled) return;
    this.#wantsSave = true;
    this.#soon(0);
  }

  sendBeforeLeaving(): boolean {
    if (this.#shown.state !== 'open' || this.#isPlaceGone) return !this.hasUnsaved;
    if (this.#waiting.length === 0) return true;
    // All that nobody has acknowledged, also what is on its way: taken twice it is the same.
    const body = this.#body(this.#waiting.length, false);
    void call('writeTogether', { site: this.#around.key, ...this.place }, body).catch(() => undefined);
    return outlivesPage(body.update!);
  }

  /** Asks what was written elsewhere, as after a time without news. */
  catchUp(): void {
    this.#soon(0);
  }

  hear({ tab, by, seq, savedSeq, caret }: JointNews): void {
    if (tab !== TAB && caret !== null) this.#setCaret(tab, { ...caret, by });
    this.#savedSeq = Math.max(this.#savedSeq, savedSeq);
    this.#around.textChanged();
    if (seq > this.#seq) this.#soon(HEAR_MS);
  }

  /** Forgets where somebody was who has left the text. */
  forget(tab: string): void {
    const known = this.#carets.get(tab);
    if (!known) return;
    window.clearTimeout(known.forget);
    this.#carets.delete(tab);
    this.#caretListeners.forEach((listener) => listener());
  }

  /** Tells the others where the cursor is; null where it is not in the text. */
  tellCaret(caret: Caret | null): void {
    if (JSON.stringify(caret) === JSON.stringify(this.#caret)) return;
    this.#caret = caret;
    if (caret !== null) this.#soon(CARET_MS);
  }

  /** Ends it, once all that was written here is saved. */
  async leave(): Promise<void> {
    this.#caret = null;
    window.clearInterval(this.#telling);
    while (!this.isSettled || this.#isPlaceGone) {
      this.settle();
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    this.#isClosed = true;
    window.clearTimeout(this.#timer);
    for (const { forget } of this.#carets.values()) window.clearTimeout(forget);
    this.#close();
    this.shared.destroy();
  }

  #setCaret(tab: string, caret: OtherCaret): void {
    window.clearTimeout(this.#carets.get(tab)?.forget);
    this.#carets.set(tab, { caret, forget: window.setTimeout(() => this.forget(tab), CARET_FOR_MS) });
    this.#caretListeners.forEach((listener) => listener());
  }

  #show(shown: JointShown): void {
    if (shown.state === this.#shown.state && shown.words === this.#shown.words) return;
    this.#shown = shown;
    this.#listeners.forEach((listener) => listener());
    this.#around.textChanged();
  }

  #soon(wait: number): void {
    const at = Date.now() + wait;
    if (this.#isClosed || this.#shown.state !== 'open' || at >= this.#dueAt) return;
    window.clearTimeout(this.#timer);
    this.#dueAt = at;
    this.#timer = window.setTimeout(() => {
      this.#dueAt = Infinity;
      void this.#exchange();
    }, wait);
  }

  #body(count: number, save: boolean): JointBody {
    const update = count === 0 ? null : toBase64(Y.mergeUpdates(this.#waiting.slice(0, count)));
    return { tab: TAB, base: this.#base, after: this.#seq, update, caret: this.#caret, save };
  }

  async #exchange(): Promise<void> {
    if (this.#isExchanging) {
      this.#isDueAgain = true;
      return;
    }
    // Nobody else has the lines yet that were begun here.
    if (this.#waiting.length > 0) this.shared.transact(() => putTextIntoLines(this.fragment));
    this.#isExchanging = true;
    this.#isDueAgain = false;
    const count = this.#waiting.length;
    const save = this.#wantsSave;
    this.#wantsSave = false;
    try {
      const answer = await call('writeTogether', { site: this.#around.key, ...this.place }, this.#body(count, save));
      this.#isPlaceGone = false;
      this.#waiting = this.#waiting.slice(count);
      if (count > 0) this.#ownSeq = answer.seq;
      this.#seq = answer.seq;
      this.#savedSeq = Math.max(this.#savedSeq, answer.savedSeq);
      this.#savedRevision = answer.savedRevision;
      this.#around.setConnected(true);
      if (answer.update !== null) Y.applyUpdate(this.shared, fromBase64(answer.update), this);
      this.#show({ state: 'open', words: answer.problem ?? '' });
      this.#around.textChanged();
    } catch (fault) {
      if (isUnknown(fault)) {
        // It may have been taken: taken twice it is the same.
        this.#around.setConnected(false);
        this.#wantsSave ||= save;
        this.#isExchanging = false;
        this.#soon(AGAIN_AFTER_MS);
        return;
      }
      if (fault instanceof ServerProblem && GONE.has(fault.problem.code) && this.hasUnsaved) {
        // Should the place come back, what was written comes with it.
        if (!this.#isPlaceGone) this.#around.tellPlaceGone(this.place);
        this.#isPlaceGone = true;
        this.#wantsSave = true;
        this.#isExchanging = false;
        this.#around.textChanged();
        this.#soon(LOOK_MS);
        return;
      }
      const isAnew = fault instanceof ServerProblem && fault.problem.code === 'text-began-anew';
      this.#show({ state: isAnew ? 'anew' : 'refused', words: (fault as Error).message });
    }
    this.#isExchanging = false;
    if (this.#isDueAgain || this.#waiting.length > 0) this.#soon(this.#isDueAgain ? HEAR_MS : SEND_MS);
    else if (!this.isSettled) this.#soon(LOOK_MS);
  }
}

const fromBase64 = (text: string): Uint8Array => Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));
function toBase64(bytes: Uint8Array): string {
  let text = '';
  for (const byte of bytes) text += String.fromCharCode(byte);
  return btoa(text);
}
