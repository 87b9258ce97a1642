import { subDays, subSeconds } from 'date-fns';
import * as Y from 'yjs';
import { contentIdOf } from '#core/model/content.ts';
import { writeText, writeTextAndFollow } from '#core/arrange/write-text.ts';
import type { SiteKey } from '#core/model/ids.ts';
import { type TextPlace, pageOfText, placeText, textAt } from '#core/model/text-place.ts';
import { needsOf } from '#core/people/needs.ts';
import type { Account } from '#contract/api.ts';
import { type JointAnswer, type JointBody, type JointNews, jointNews } from '#contract/joint-text.ts';
import { accountById } from '../accounts/account-repository.ts';
import { type StoredContent, acceptContent } from '../contents/content-service.ts';
import type { Database } from '../database/connect.ts';
import { type Done, type EditService, wordsOfAll } from '../edits/edit-service.ts';
import { SiteNews } from '../events/site-news.ts';
import { adoptFiles } from '../library/file-repository.ts';
import type { People } from '../people/people.ts';
import { ProblemError } from '../problem.ts';
import type { SiteCache } from '../sites/site-cache.ts';
import { documentIn, isSameText, isSound, seedOf, sharedOf, updateTo } from './joint-document.ts';
import {
  type JointRow,
  type Place,
  addUpdate,
  contentInPlace,
  deleteJoint,
  deleteQuiet,
  documentAt,
  insertJoint,
  jointAt,
  lastSaveAfter,
  lockJoint,
  requestOf,
  setSaved,
  tellJoint,
  unsavedBefore,
  updatesAfter,
  writersBetween,
} from './joint-repository.ts';

/** So long after the last letter the site takes what was written; while somebody writes on and on, so often. */
const PAUSE_MS = 900;
const AT_LEAST_EVERY_MS = 5_000;
/** An outline is saved less often, since all pages that follow it are given it. */
const OUTLINE_PAUSE_MS = 5_000;
const OUTLINE_AT_LEAST_EVERY_MS = 30_000;
/** What another process took and did not save within this time is saved by whichever looks next: it may have ended. */
const LEFT_AFTER_S = 10;
const LOOK_EVERY_MS = 5_000;
/** A document in which nobody has written for so long is forgotten; the next one begins with the text that the site has. */
const QUIET_FOR_DAYS = 30;
/** A document of more bytes, most of them of what was deleted since, begins anew once all of it is saved. */
const MAX_STATE = 3_000_000;
/** A document of so many bytes with what is not saved yet ends: no text is as long. */
const MAX_UNSAVED = 12_000_000;
/** So many documents are kept ready. */
const MAX_READY = 50;
/** So often it is tried to save over what the site was given meanwhile. */
const MAX_TRIES = 5;

interface Ready {
  readonly begun: string;
  readonly shared: Y.Doc;
  /** The number of the last update in it. */
  seq: number;
}

/** What the site is about to have. */
interface ToSave {
  readonly begun: string;
  /** The number of the last update in it. */
  readonly seq: number;
  /** The text that it has before. */
  readonly expected: string;
  readonly content: StoredContent | null;
  readonly writers: readonly string[];
}

interface Parts {
  readonly database: Database;
  readonly cache: SiteCache;
  readonly people: People;
  readonly edits: EditService;
  readonly now: () => Date;
}

/**
 * Texts that several people write in at once: a shared document each, in which nothing that was taken is ever lost, whoever writes
 * at the same time, and whatever process ends. What is written goes to its place in the site after a pause, as an edit of who wrote last; what
 * the place is given otherwise goes into the document.
 *
 *   update ──taken──▶ joint_update ──told──▶ the others
 *                          └──after a pause──▶ an edit of the site
 */
export class JointTexts {
  readonly news = new SiteNews<JointNews>();
  readonly #parts: Parts;
  readonly #onFault: (fault: unknown) => void;
  readonly #ready = new Map<string, Ready>();
  readonly #due = new Map<string, { readonly place: Place; readonly timer: NodeJS.Timeout; readonly first: number }>();
  /** What is being saved, text by text. */
  readonly #saving = new Map<string, Promise<void>>();
  /** Why what is written in a text is not saved, in words. */
  readonly #refused = new Map<string, string>();
  readonly #looking: NodeJS.Timeout;

  constructor(parts: Parts, onFault: (fault: unknown) => void) {
    this.#parts = parts;
    this.#onFault = onFault;
    this.#looking = setInterval(() => void this.saveLeft().catch(onFault), LOOK_EVERY_MS);
    this.#looking.unref();
  }

  /** Takes what another process, or this one, told. */
  hear(told: string): void {
    const { site, ...news } = JSON.parse(told) as JointNews & { site: SiteKey };
    this.news.tell(site, jointNews.parse(news));
  }

  /**
   * Takes what somebody has written in a text, and gives what they lack. Texts that many pages show are read by whoever reads one.
   * @throws ProblemError `page-unknown`, `shared-unknown`, `label-unknown`, `not-allowed`, `update-invalid`; `text-began-anew` where theirs is
   * another document
   */
  async exchange(key: SiteKey, account: Account, text: TextPlace, body: JointBody): Promise<JointAnswer> {
    const { database, cache, people } = this.#parts;
    const page = pageOfText(text);
    if (page !== null) await people.require(key, account, 'read', page);
    const { site } = await cache.current(key);
    if (textAt(site, text) === undefined) throw noSuchPlace(text);
    const place = { site: key, text };
    if (body.update !== null || body.caret !== null)
      for (const { permission, at } of needsOf(site, writeText(text, null)))
        await people.require(key, account, permission, at);
    if (body.update !== null) {
      await this.#take(place, account, body, Buffer.from(body.update, 'base64'));
      this.#saveSoon(place);
    }
    if (body.save) await this.save(place);
    const answer = await this.#answer(place, body);
    if (body.update === null && body.caret !== null) {
      const { seq, savedSeq } = answer;
      await tellJoint(database, key, { text, tab: body.tab, by: account.name, seq, savedSeq, caret: body.caret });
    }
    return answer;
  }

  /** Saves what is written in a text, as far as the site takes it. */
  save(place: Place): Promise<void> {
    const key = keyOf(place);
    clearTimeout(this.#due.get(key)?.timer);
    this.#due.delete(key);
    const before = this.#saving.get(key) ?? Promise.resolve();
    const saving = before
      .catch(() => undefined)
      .then(() => this.#save(place))
      .finally(() => {
        if (this.#saving.get(key) === saving) this.#saving.delete(key);
      });
    this.#saving.set(key, saving);
    return saving;
  }

  /** Saves what was written some time ago and is not saved: whoever took it is gone. */
  async saveLeft(): Promise<void> {
    const { database, now } = this.#parts;
    for (const place of await unsavedBefore(database, subSeconds(now(), LEFT_AFTER_S)))
      if (!this.#refused.has(keyOf(place))) await this.save(place);
  }

  forgetQuiet(): Promise<number> {
    const { database, now } = this.#parts;
    return deleteQuiet(database, subDays(now(), QUIET_FOR_DAYS));
  }

  /** Saves what is due, before the process ends. */
  async close(): Promise<void> {
    clearInterval(this.#looking);
    const due = [...this.#due.values()].map(({ place }) => place);
    await Promise.allSettled([...due.map((place) => this.save(place)), ...this.#saving.values()]);
  }

  #saveSoon(place: Place): void {
    const key = keyOf(place);
    const now = Date.now();
    const due = this.#due.get(key);
    clearTimeout(due?.timer);
    const first = due?.first ?? now;
    const [pause, atLeastEvery] =
      place.text.of === 'outline' ? [OUTLINE_PAUSE_MS, OUTLINE_AT_LEAST_EVERY_MS] : [PAUSE_MS, AT_LEAST_EVERY_MS];
    const wait = Math.max(0, Math.min(pause, first + atLeastEvery - now));
    const timer = setTimeout(() => void this.save(place).catch(this.#onFault), wait);
    timer.unref();
    this.#due.set(key, { place, timer, first });
  }

  async #take(place: Place, account: Account, body: JointBody, update: Uint8Array): Promise<void> {
    const { database, now } = this.#parts;
    const key = keyOf(place);
    try {
      for (;;) {
        const isTaken = await database.transaction(async (trx) => {
          const row = (await lockJoint(trx, place)) ?? (await this.#begin(trx, place, body.base));
          // Somebody else began it in the same moment.
          if (row === null) return false;
          if (body.base !== row.base || body.after > row.seq) throw new ProblemError('text-began-anew');
          if (row.state.length + row.bytes + update.length > MAX_UNSAVED) {
            // The site will not take it, or much of it is no text: who writes goes on from what the site has.
            await this.#end(trx, place, row);
            return true;
          }
          const ready = await this.#readyAt(trx, place, row);
          try {
            Y.applyUpdate(ready.shared, update);
          } catch {
            throw new ProblemError('update-invalid');
          }
          if (!isSound(ready.shared)) throw new ProblemError('update-invalid');
          ready.seq = row.seq + 1;
          await addUpdate(trx, place, { seq: ready.seq, update, account: account.id }, now());
          const { tab, caret } = body;
          await tellJoint(trx, place.site, {
            text: place.text,
            tab,
            by: account.name,
            seq: ready.seq,
            savedSeq: row.savedSeq,
            caret,
          });
          return true;
        });
        if (isTaken) return;
      }
    } catch (fault) {
      // What is ready may hold what was not taken.
      this.#ready.delete(key);
      throw fault;
    }
  }

  /** Begins the document with the text that its place has. Null where somebody else did. @throws ProblemError where the browser's began with another text */
  async #begin(trx: Database, place: Place, wanted: string | null): Promise<JointRow | null> {
    const base = await contentInPlace(trx, place);
    if (wanted !== base) throw new ProblemError('text-began-anew');
    const state = seedOf(await documentAt(trx, place.site, base));
    await insertJoint(trx, place, { base, state }, this.#parts.now());
    return lockJoint(trx, place);
  }

  /** The document up to the last update of the row. */
  async #readyAt(database: Database, place: Place, row: JointRow): Promise<Ready> {
    const key = keyOf(place);
    const known = this.#ready.get(key);
    const isUsable = known?.begun === row.begun && known.seq <= row.seq;
    const ready = isUsable ? known : { begun: row.begun, shared: sharedOf(row.state), seq: row.savedSeq };
    // Those that were asked for longest ago stand first.
    this.#ready.delete(key);
    this.#ready.set(key, ready);
    for (const [oldest] of this.#ready) {
      if (this.#ready.size <= MAX_READY) break;
      this.#ready.delete(oldest);
    }
    for (const { seq, update } of await updatesAfter(database, place, ready.seq, row.seq)) {
      Y.applyUpdate(ready.shared, update);
      ready.seq = seq;
    }
    return ready;
  }

  async #answer(place: Place, { base, after }: JointBody): Promise<JointAnswer> {
    const { database } = this.#parts;
    const row = await this.#inStep(place);
    if (row === null) {
      const content = await contentInPlace(database, place);
      if (base !== null && (base !== content || after > 0)) throw new ProblemError('text-began-anew');
      const update = base === null ? base64(seedOf(await documentAt(database, place.site, content))) : null;
      return { base: content, seq: 0, savedSeq: 0, savedRevision: 0, update, problem: null };
    }
    if (base !== null && (base !== row.base || after > row.seq)) throw new ProblemError('text-began-anew');
    const { seq, savedSeq } = row;
    const refused = this.#refused.get(keyOf(place));
    return {
      base: row.base,
      seq,
      savedSeq,
      savedRevision: row.savedRevision,
      update:
        base !== null && after >= seq ? null : base64(await this.#lacking(place, row, base === null ? null : after)),
      problem: refused !== undefined && seq > savedSeq ? refused : null,
    };
  }

  /** The updates after a number as one; the whole document for null, and where they are not kept any more. */
  async #lacking(place: Place, row: JointRow, after: number | null): Promise<Uint8Array> {
    const { database } = this.#parts;
    if (after !== null) {
      const updates = await updatesAfter(database, place, after, row.seq);
      if (updates[0]?.seq === after + 1) return Y.mergeUpdates(updates.map(({ update }) => update));
    }
    return database.transaction(async (trx) => {
      const locked = await lockJoint(trx, place);
      if (locked === null) throw new ProblemError('text-began-anew');
      return Y.encodeStateAsUpdate((await this.#readyAt(trx, place, locked)).shared);
    });
  }

  /** The row of a text, with what its place was given otherwise in its document; null where there is none. */
  async #inStep(place: Place): Promise<JointRow | null> {
    const row = await jointAt(this.#parts.database, place);
    if (row === null || row.inPlace === row.content) return row;
    return this.#parts.database.transaction(async (trx) => {
      const locked = await lockJoint(trx, place);
      return locked && this.#reconcile(trx, place, locked);
    });
  }

  /** Takes in what the place has now: what was saved of the document, and what it was given otherwise. The row is locked. */
  async #reconcile(trx: Database, place: Place, row: JointRow): Promise<JointRow> {
    if (row.inPlace === row.content) return row;
    const saved = await lastSaveAfter(trx, place, row);
    const inStep = saved && saved.seq > row.savedSeq ? await this.#adopt(trx, place, row, saved) : row;
    if (inStep.inPlace === inStep.content) return inStep;
    const { shared } = await this.#readyAt(trx, place, inStep);
    const given = await documentAt(trx, place.site, inStep.inPlace);
    if (isSound(shared) && isSameText(documentIn(shared), given)) {
      // Somebody gave it what is written here.
      const whole = { content: inStep.inPlace, seq: inStep.seq, state: Y.encodeStateAsUpdate(shared) };
      await setSaved(trx, place, { ...whole, revision: inStep.savedRevision });
      await this.#tellSaved(trx, place, inStep.seq, inStep.seq);
      return (await jointAt(trx, place))!;
    }
    const update = updateTo(inStep.state, given);
    const seq = inStep.seq + 1;
    await addUpdate(trx, place, { seq, update, account: null }, this.#parts.now());
    const savedSeq = inStep.seq === inStep.savedSeq ? seq : inStep.savedSeq;
    const state = Y.mergeUpdates([inStep.state, update]);
    await setSaved(trx, place, { content: inStep.inPlace, seq: savedSeq, state, revision: inStep.savedRevision });
    await this.#tellSaved(trx, place, seq, savedSeq);
    return (await jointAt(trx, place))!;
  }

  /** Notes that the place was given what the document said with an update. The row is locked. */
  async #adopt(
    trx: Database,
    place: Place,
    row: JointRow,
    { seq, content, revision }: { readonly seq: number; readonly content: string; readonly revision: number },
  ): Promise<JointRow> {
    const updates = await updatesAfter(trx, place, row.savedSeq, seq);
    const state = Y.mergeUpdates([row.state, ...updates.map(({ update }) => update)]);
    await setSaved(trx, place, { content, seq, state, revision });
    await this.#tellSaved(trx, place, row.seq, seq);
    return (await jointAt(trx, place))!;
  }

  #tellSaved(trx: Database, { site, text }: Place, seq: number, savedSeq: number): Promise<unknown> {
    return tellJoint(trx, site, { text, tab: '', by: '', seq, savedSeq, caret: null });
  }

  async #save(place: Place): Promise<void> {
    const key = keyOf(place);
    for (let tries = 0; tries < MAX_TRIES; tries++) {
      const toSave = await this.#toSave(place);
      const outcome = toSave === null || typeof toSave === 'string' ? toSave : await this.#edit(place, toSave);
      if (outcome === MOVED) continue;
      if (typeof outcome === 'string') this.#refused.set(key, outcome);
      else this.#refused.delete(key);
      // What is written meanwhile has its own time.
      if (outcome !== null && typeof outcome === 'object') await this.#noteSaved(place, toSave as ToSave, outcome);
      return;
    }
  }

  /** What is to be saved, and said to be; null for nothing, and the reason in words where it is no text that can be saved. */
  async #toSave(place: Place): Promise<ToSave | string | null> {
    const { database } = this.#parts;
    return database.transaction(async (trx) => {
      const locked = await lockJoint(trx, place);
      if (locked === null) return null;
      const row = await this.#reconcile(trx, place, locked);
      if (row.seq === row.savedSeq) return null;
      const { shared } = await this.#readyAt(trx, place, row);
      let document;
      try {
        document = documentIn(shared);
      } catch {
        // What somebody sent is no text at all: those who write go on from what the site has.
        await this.#end(trx, place, row);
        return null;
      }
      if (isSameText(document, await documentAt(trx, place.site, row.content))) {
        const state = Y.encodeStateAsUpdate(shared);
        await setSaved(trx, place, { content: row.content, seq: row.seq, state, revision: row.savedRevision });
        if (state.length > MAX_STATE) await this.#end(trx, place, { ...row, savedSeq: row.seq });
        else await this.#tellSaved(trx, place, row.seq, row.seq);
        return null;
      }
      let content: StoredContent | null;
      try {
        content = document && acceptContent({ id: contentIdOf(document), document });
      } catch (fault) {
        if (!(fault instanceof ProblemError)) throw fault;
        return fault.message;
      }
      const writers = await writersBetween(trx, place, row.savedSeq, row.seq);
      return { begun: row.begun, seq: row.seq, expected: row.content, content, writers };
    });
  }

  /**
   * Makes the edit, as one of whoever wrote last and still may. Gives the reason in words where nobody may, or it cannot be; null where the
   * place is not there: what is written in it is saved should it come back.
   */
  async #edit(
    place: Place,
    { begun, seq, expected, content, writers }: ToSave,
  ): Promise<Done | string | typeof MOVED | null> {
    const { database, cache, edits } = this.#parts;
    const accounts = (await Promise.all(writers.map((id) => accountById(database, id)))).filter(
      (one) => one !== undefined,
    );
    let reason = '';
    for (const account of accounts) {
      const beside = accounts.filter((one) => one !== account);
      const names = beside.map(({ name }) => name);
      try {
        return await cache.inTurn(place.site, async () => {
          if (content) await adoptFiles(database, place.site, content.files);
          return edits.commit(place.site, account, requestOf(begun, seq, content?.id ?? ''), undefined, (site) => {
            const text = textAt(site, place.text);
            if (text === undefined) throw new PlaceGone();
            if ((text ?? '') !== expected) throw new TextMoved();
            const operations = writeTextAndFollow(site, place.text, content?.id ?? null);
            return {
              operations,
              words: `${wordsOfAll(operations, site)}${names.length === 0 ? '' : ` with ${listed(names)}`}`,
              kind: 'edit',
              contents: content ? [content] : [],
              beside: beside.map(({ id }) => id),
            };
          });
        });
      } catch (fault) {
        if (fault instanceof TextMoved) return MOVED;
        if (fault instanceof PlaceGone) return null;
        if (!(fault instanceof ProblemError) || fault.code === 'outcome-unknown') throw fault;
        reason = fault.message;
      }
    }
    return reason;
  }

  /** Notes that the site has what was saved. A document that has grown too large begins anew, where all of it is saved. */
  async #noteSaved(place: Place, { begun, seq, content }: ToSave, { revision }: Done): Promise<void> {
    await this.#parts.database.transaction(async (trx) => {
      const row = await lockJoint(trx, place);
      if (row?.begun !== begun) return;
      const saved = { seq, content: content?.id ?? '', revision };
      const inStep = await this.#reconcile(
        trx,
        place,
        seq > row.savedSeq ? await this.#adopt(trx, place, row, saved) : row,
      );
      if (inStep.state.length > MAX_STATE && inStep.seq === inStep.savedSeq) await this.#end(trx, place, inStep);
    });
  }

  /** Ends a document, and tells those who write in it, who begin anew with what the site has. The row is locked. */
  async #end(trx: Database, place: Place, { seq, savedSeq }: JointRow): Promise<void> {
    await deleteJoint(trx, place);
    await this.#tellSaved(trx, place, seq + 1, savedSeq);
    this.#refused.delete(keyOf(place));
  }
}

/** The place was given another text since its document was last in step with it. */
class TextMoved extends Error {}
const MOVED = Symbol('the place was given another text');
/** The site has no such place any more. */
class PlaceGone extends Error {}

function noSuchPlace(text: TextPlace): ProblemError {
  switch (text.of) {
    case 'page':
    case 'notes':
      return new ProblemError('page-unknown', { page: text.id });
    case 'shared':
      return new ProblemError('shared-unknown', { shared: text.id });
    case 'outline':
      return new ProblemError('label-unknown', { label: text.id });
  }
}

const keyOf = ({ site, text }: Place): string => `${site} ${placeText(text)}`;
const base64 = (bytes: Uint8Array): string => Buffer.from(bytes).toString('base64');
const listed = (names: readonly string[]): string => new Intl.ListFormat('en').format(names);
