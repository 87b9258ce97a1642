import type { PlainAccount } from '../accounts/account-repository.ts';
import { momentWords } from '#core/model/moment-words.ts';
import { canonicalJson } from '#core/model/canonical-json.ts';
import { editBack } from '#core/changes/way-back.ts';
import type { PassphraseId } from '#core/model/access.ts';
import type { ContentId, SiteKey } from '#core/model/ids.ts';
import { type Consequences, whatChanges } from '#core/changes/what-changes.ts';
import { MAX_NODES, type Site } from '#core/model/site.ts';
import { applyOperations, cellsOf, checkTogether, wordsOf } from '#core/operations/apply.ts';
import type { Operation } from '#core/operations/operation.ts';
import { forbiddenIn, forbiddenWords } from '#core/people/forbidden.ts';
import { type Powers, maySomewhere } from '#core/people/powers.ts';
import type { HistoryEntry, OperationsBody } from '#contract/api.ts';
import type { Database } from '../database/connect.ts';
import { adoptFiles } from '../library/file-repository.ts';
import { type StoredContent, acceptContent } from '../contents/content-service.ts';
import { editsBackTo, momentOf } from '../history/history-repository.ts';
import { type People, notAllowed } from '../people/people.ts';
import { ProblemError, refusalProblem } from '../problem.ts';
import { editTeller } from '../events/edit-teller.ts';
import { progressTeller } from '../events/release-progress.ts';
import { passphrasesThere } from '../security/passphrase-repository.ts';
import type { SiteCache } from '../sites/site-cache.ts';
import { contentsThere, editOfRequest } from '../sites/site-repository.ts';
import { type ReleaseToSave, dropUndoStep, laterChangeByOthers, nextUndoStep, saveEdit } from './edit-repository.ts';
import { type ReleaseCounts, UnknownOutcome } from './outcome.ts';
import { type Turn, turnedWords } from './turn.ts';

/** What an edit did. */
export interface Done {
  readonly revision: number;
  readonly applied: readonly Operation[];
  readonly inverse: readonly Operation[];
  readonly words: string;
  readonly site: Site;
  /** What is counted of it where it was a release. */
  readonly release: ReleaseCounts | null;
}

/** An edit that is to be made. */
export interface Draft {
  readonly operations: readonly Operation[];
  readonly words?: string;
  readonly kind: HistoryEntry['kind'];
  readonly contents?: readonly StoredContent[];
  /** Whether it follows from something that was permitted, so that nobody's permissions are asked, and nobody undoes it by itself. */
  readonly follows?: true;
  /** For an undo and for making again: the revision of the edit that it turns round. */
  readonly turns?: number;
  readonly release?: ReleaseToSave;
  /** The revision whose tree it goes back to. */
  readonly wentBackTo?: number;
  /** The accounts of those who made it with whose edit it is. */
  readonly beside?: readonly string[];
}

/** Decides on edits: applies them to the site as it is committed, and saves them whole or not at all. */
export class EditService {
  readonly #database: Database;
  readonly #cache: SiteCache;
  readonly #now: () => Date;
  readonly #people: Pick<People, 'powersOf'>;
  readonly #tellOthers: ReturnType<typeof editTeller>;

  constructor(database: Database, cache: SiteCache, people: Pick<People, 'powersOf'>, now: () => Date) {
    this.#database = database;
    this.#cache = cache;
    this.#people = people;
    this.#now = now;
    this.#tellOthers = editTeller(database);
  }

  /**
   * Applies the operations of a request.
   * @throws ProblemError with the rule that forbids it, or `not-allowed`; nothing is written then
   */
  apply(key: SiteKey, account: PlainAccount, body: OperationsBody): Promise<Done> {
    const together = checkTogether(body.operations);
    // A request that was made already is found out when it is saved: asking before would cost each edit a journey.
    return this.#cache.inTurn(key, () =>
      this.#orRepeated(key, body, async () => {
        const { site } = await this.#cache.known(key);
        if (together) throw refusalProblem(together, site);
        await this.#requirePassphrases(site, body.operations);
        const contents = await this.#acceptContents(key, body);
        return this.#commit(key, account, body.request ?? null, body.revision, () => ({
          operations: body.operations,
          kind: 'edit',
          contents,
        }));
      }),
    );
  }

  /** What the operations would change; nothing is written. */
  async preview(key: SiteKey, body: OperationsBody): Promise<Consequences> {
    const { site, revision } = await this.#cache.current(key);
    checkRevision(body.revision, revision);
    const together = checkTogether(body.operations);
    if (together) throw refusalProblem(together, site);
    const outcome = applyOperations(site, body.operations);
    if (!outcome.ok) throw refusalProblem(outcome, site, outcome.index);
    return whatChanges(site, outcome.site);
  }

  /**
   * Undoes the person's last step, or makes the one that was undone last again (`direction`).
   * @throws ProblemError `undo-blocked` where somebody else has changed the same thing since, unless `anyway`.
   */
  turn(
    key: SiteKey,
    account: PlainAccount,
    direction: Turn,
    how: { anyway?: boolean; skip?: boolean; request?: string },
  ): Promise<{ revision: number; words: string }> {
    return this.#cache.inTurn(key, async () => {
      const repeated = await this.repeated(key, how.request);
      if (repeated) return repeated;
      const { revision, site } = await this.#cache.catchUp(key);
      const step = await nextUndoStep(this.#database, key, account.id, direction);
      if (!step) throw new ProblemError(direction === 'undo' ? 'undo-nothing' : 'redo-nothing');
      if (how.skip) {
        await dropUndoStep(this.#database, key, step.revision);
        return { revision, words: `left as it is: ${step.words}` };
      }
      if (!how.anyway) {
        const cells = step.operations.flatMap(cellsOf);
        const later = await laterChangeByOthers(this.#database, key, account.id, step.revision, cells);
        if (later)
          throw new ProblemError('undo-blocked', {
            by: later.by,
            words: later.words,
            at: momentWords(later.at.toISOString(), site.settings.timeZone),
          });
      }
      return this.commit(key, account, how.request ?? null, undefined, () => ({
        operations: step.operations,
        words: turnedWords(direction, step.words),
        kind: direction,
        turns: step.revision,
      }));
    });
  }

  /** What the person can undo next, and make again, in words; null for nothing. */
  async turns(key: SiteKey, account: PlainAccount): Promise<Record<Turn, string | null>> {
    const [undo, redo] = await Promise.all([
      nextUndoStep(this.#database, key, account.id, 'undo'),
      nextUndoStep(this.#database, key, account.id, 'redo'),
    ]);
    return { undo: undo?.words ?? null, redo: redo?.words ?? null };
  }

  /**
   * Makes the draft what it was at a revision, as one new edit that can be undone. What is live stays as it is.
   * @throws ProblemError where the log does not have the revision, or nothing differs.
   */
  goBack(key: SiteKey, account: PlainAccount, asked: { revision: number; request?: string }): Promise<Done> {
    return this.#cache.inTurn(key, async () => {
      const repeated = await this.repeated(key, asked.request);
      if (repeated) return repeated;
      const { revision, site } = await this.#cache.catchUp(key);
      if (asked.revision > revision)
        throw new ProblemError('revision-unknown', { revision: asked.revision, latest: revision });
      const operations = editBack(site, await editsBackTo(this.#database, key, asked.revision), asked.revision);
      if ('code' in operations)
        throw new ProblemError('go-back-blocked', { reason: refusalProblem(operations, site).message });
      if (operations.length === 0) throw new ProblemError('nothing-to-go-back');
      const at = await momentOf(this.#database, key, asked.revision);
      return this.commit(key, account, asked.request ?? null, revision, () => ({
        operations,
        words: `went back to the tree of ${at === undefined ? 'the beginning' : momentWords(at, site.settings.timeZone)}`,
        kind: 'edit',
        wentBackTo: asked.revision,
      }));
    });
  }

  /** What a request did that was made already; null where it was not. Call within the site's turn. */
  async repeated(key: SiteKey, request: string | undefined): Promise<Done | null> {
    if (request === undefined) return null;
    const made = await editOfRequest(this.#database, key, request);
    if (!made) return null;
    const { site } = await this.#cache.catchUp(key);
    const { revision, operations: applied, inverse, words, release } = made;
    return { revision, applied, inverse, words, site, release };
  }

  /**
   * Applies and saves; where another process was first, catches up and tries again on the newer site. What another process made of the
   * same request meanwhile is given as what this one did. Call within the site's turn.
   * @throws ProblemError with the rule that forbids it
   */
  async commit(
    key: SiteKey,
    account: PlainAccount,
    request: string | null,
    wanted: number | undefined,
    draftFor: (site: Site) => Draft,
  ): Promise<Done> {
    return this.#orRepeated(key, { request: request ?? undefined }, () =>
      this.#commit(key, account, request, wanted, draftFor),
    );
  }

  /**
   * What is made; where it fails, what the same request did before, if it did: what forbids it now may be that it is done.
   * @throws ProblemError `outcome-unknown` where the database went away while it was saving. That the log does not have it yet proves
   *   nothing then: what still runs there may yet be committed.
   */
  async #orRepeated(
    key: SiteKey,
    { request, operations }: { readonly request?: string | undefined; readonly operations?: readonly Operation[] },
    make: () => Promise<Done>,
  ): Promise<Done> {
    try {
      return await make();
    } catch (fault) {
      const isUnknown = fault instanceof UnknownOutcome;
      const done = await this.repeated(key, request).catch((later: unknown) => {
        throw isUnknown ? outcomeUnknown(request) : later;
      });
      if (!done) throw isUnknown ? outcomeUnknown(request) : fault;
      if (operations && canonicalJson(operations) !== canonicalJson(done.applied))
        throw new ProblemError('request-reused');
      return done;
    }
  }

  async #commit(
    key: SiteKey,
    account: PlainAccount,
    request: string | null,
    wanted: number | undefined,
    draftFor: (site: Site) => Draft,
  ): Promise<Done> {
    const powers = await this.#people.powersOf(key, account);
    if (!maySomewhere(powers, 'read')) throw new ProblemError('site-unknown', { site: key });
    let { site, revision } = await this.#cache.known(key);
    for (;;) {
      if (wanted !== undefined && wanted !== revision) {
        ({ site, revision } = await this.#cache.catchUp(key));
        checkRevision(wanted, revision);
      }
      const drafted = draftOf(site, powers, draftFor);
      if (!drafted.ok) {
        // What forbids it may be that this process is behind.
        const newer = await this.#cache.catchUp(key);
        if (newer.revision === revision) throw drafted.problem;
        ({ site, revision } = newer);
        continue;
      }
      const { draft, outcome } = drafted;
      const at = this.#now().toISOString();
      const words = draft.words ?? wordsOfAll(draft.operations, site);
      const progress = progressTeller(this.#database, key, request);
      const saved = await saveEdit(
        this.#database,
        {
          before: site,
          after: outcome.site,
          revision,
          touched: outcome.touched,
          operations: draft.operations,
          inverse: outcome.inverse,
          cells: draft.operations.flatMap(cellsOf),
          words,
          kind: draft.kind,
          account: account.id,
          request,
          at,
          contents: draft.contents ?? [],
          turns: draft.turns ?? null,
          isUndoable: !draft.follows,
          release: draft.release ?? null,
          wentBackTo: draft.wentBackTo ?? null,
          beside: draft.beside ?? [],
        },
        progress,
      );
      if (saved === null) {
        ({ site, revision } = await this.#cache.catchUp(key));
        continue;
      }
      this.#cache.committed(key, outcome.site, {
        revision: saved.revision,
        at,
        by: account.name,
        account: account.id,
        kind: draft.kind,
        request,
        words,
        operations: draft.operations,
      });
      this.#tellOthers(key, saved.revision);
      return { ...saved, applied: draft.operations, inverse: outcome.inverse, words, site: outcome.site };
    }
  }

  /** A passphrase is of one site: a rule that names another's would open to whoever knows that one. @throws ProblemError */
  async #requirePassphrases(site: Site, operations: readonly Operation[]): Promise<void> {
    const named = new Set(operations.flatMap(passphrasesOf));
    if (named.size === 0) return;
    const there = new Set(await passphrasesThere(this.#database, site.key, [...named]));
    if (there.size < named.size) throw new ProblemError('passphrase-unknown');
  }

  /** The texts of a request, and the certainty that each text that its operations name is there. */
  async #acceptContents(key: SiteKey, body: OperationsBody): Promise<StoredContent[]> {
    const accepted = (body.contents ?? []).map(acceptContent);
    const named = new Set<ContentId>();
    for (const operation of body.operations) {
      for (const content of contentsOf(operation)) named.add(content);
    }
    for (const content of accepted) named.delete(content.id);
    if (named.size > 0) {
      for (const id of await contentsThere(this.#database, key, [...named])) named.delete(id as ContentId);
      const [missing] = named;
      if (missing !== undefined) throw new ProblemError('content-unknown', { content: missing });
    }
    await adoptFiles(this.#database, key, [...new Set(accepted.flatMap(({ files }) => files))]);
    return accepted;
  }
}

/** An edit of a site, applied; or the problem that forbids it on the site as it is known. */
function draftOf(site: Site, powers: Powers, draftFor: (site: Site) => Draft) {
  try {
    const draft = draftFor(site);
    const forbidden = draft.follows ? null : forbiddenIn(site, powers, draft.operations, draft.turns !== undefined);
    if (forbidden) return { ok: false as const, problem: notAllowed(forbiddenWords(powers, forbidden)) };
    const outcome = applyOperations(site, draft.operations);
    if (!outcome.ok) return { ok: false as const, problem: refusalProblem(outcome, site, outcome.index) };
    requireRoom(site.nodes.size, outcome.site.nodes.size);
    return { ok: true as const, draft, outcome };
  } catch (fault) {
    if (!(fault instanceof ProblemError)) throw fault;
    return { ok: false as const, problem: fault };
  }
}

/** @throws ProblemError where a site would have more nodes than before, and more than it can hold */
export function requireRoom(before: number, after: number): void {
  if (after > MAX_NODES && after > before)
    throw new ProblemError('site-full', { limit: MAX_NODES.toLocaleString('en') });
}

/** The passphrases that an operation names. */
function passphrasesOf(operation: Operation): PassphraseId[] {
  const access =
    operation.name === 'page.add'
      ? operation.access
      : operation.name === 'page.set'
        ? operation.fields.access
        : undefined;
  return access?.passphrase ? [access.passphrase] : [];
}

/** The texts that an operation names. */
function contentsOf(operation: Operation): ContentId[] {
  const named =
    operation.name === 'page.add'
      ? [operation.content, operation.plan?.notes]
      : operation.name === 'page.set'
        ? [operation.fields.content, operation.fields.plan?.notes]
        : operation.name === 'label.add'
          ? [operation.pageOutline]
          : operation.name === 'label.set'
            ? [operation.fields.pageOutline]
            : operation.name === 'shared.add'
              ? [operation.content]
              : operation.name === 'shared.set'
                ? [operation.fields.content]
                : [];
  return named.filter((content) => content != null);
}

const outcomeUnknown = (request: string | undefined): ProblemError =>
  new ProblemError('outcome-unknown', { request: request ?? '' });

function checkRevision(sent: number | undefined, revision: number): void {
  if (sent !== undefined && sent !== revision) throw new ProblemError('stale-revision', { sent, revision });
}

/** Several operations in one sentence: the first two in words, the others counted. */
export function wordsOfAll(operations: readonly Operation[], before: Site): string {
  let site = before;
  const told = operations.slice(0, 2).map((operation, index) => {
    if (index > 0) {
      const outcome = applyOperations(site, operations.slice(index - 1, index));
      if (outcome.ok) site = outcome.site;
    }
    return wordsOf(operation, site);
  });
  const left = operations.length - told.length;
  return left === 0
    ? told.join(' and ')
    : `${told.join(', ')} and made ${left} more ${left === 1 ? 'change' : 'changes'}`;
}
