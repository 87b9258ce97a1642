import type { SiteKey } from '#core/model/ids.ts';
import { MAX_NODES, type Site } from '#core/model/site.ts';
import { applyOperations } from '#core/operations/apply.ts';
import type { Operation } from '#core/operations/operation.ts';
import type { CommittedEdit } from '#contract/api.ts';
import type { Database } from '../database/connect.ts';
import { ProblemError } from '../problem.ts';
import { type LoadedSite, editsAfter, loadSite, revisionsOf } from './site-repository.ts';

/** At most so many sites are kept in memory; the one that was used longest ago makes room. */
const MAX_SITES = 100;

/** A site that nobody has used or looked at for so long is not kept in memory. */
export const KEPT_UNUSED_MS = 10 * 60_000;

/** A process looks by itself so often whether it has missed an edit. */
export const LOOK_EVERY_MS = 10_000;

/**
 * The sites in memory. PostgreSQL holds the truth: the cache only spares reading a site again, and is brought up to
 * date from the log. Every edit that the cache learns of, its own process's or another's, is told once, in order.
 */
export class SiteCache {
  readonly #database: Database;
  readonly #sites = new Map<SiteKey, LoadedSite>();
  /** When each site was last used, in milliseconds since 1970. */
  readonly #usedAt = new Map<SiteKey, number>();
  readonly #now: () => number;
  readonly #most: number;
  readonly #turns = new Map<SiteKey, Promise<unknown>>();
  readonly #listeners = new Map<SiteKey, Set<(edit: CommittedEdit) => void>>();

  /** @param most so many nodes a site may have to be opened */
  constructor(database: Database, now = Date.now, most = MAX_NODES) {
    this.#database = database;
    this.#now = now;
    this.#most = most;
  }

  /** Is told each committed edit of a site, which stays in memory meanwhile. Gives the function that ends it. */
  onEdit(key: SiteKey, listener: (edit: CommittedEdit) => void): () => void {
    const listeners = this.#listeners.get(key) ?? new Set();
    this.#listeners.set(key, listeners.add(listener));
    return () => {
      listeners.delete(listener);
      if (listeners.size === 0) this.#listeners.delete(key);
    };
  }

  /** Runs the work for a site after all that was asked for it before. */
  inTurn<Result>(key: SiteKey, work: () => Promise<Result>): Promise<Result> {
    const before = this.#turns.get(key) ?? Promise.resolve();
    const mine = before.then(work, work);
    const settled = mine.catch(() => undefined);
    this.#turns.set(key, settled);
    void settled.then(() => {
      if (this.#turns.get(key) === settled) this.#turns.delete(key);
    });
    return mine;
  }

  /** The site as it was last known here, without asking the database. Call within `inTurn`. */
  async known(key: SiteKey): Promise<LoadedSite> {
    this.#usedAt.set(key, this.#now());
    return this.#sites.get(key) ?? this.#load(key);
  }

  /** The site as it is committed now. @throws ProblemError where there is none. */
  current(key: SiteKey): Promise<LoadedSite> {
    this.#usedAt.set(key, this.#now());
    return this.inTurn(key, () => this.catchUp(key));
  }

  /**
   * Follows what another process told: that a site has reached a revision. What is not in memory is left alone, and
   * what is at that revision already, as after an edit of this process's own, costs nothing.
   */
  async follow(told: string): Promise<void> {
    const [key, revision] = told.split(' ') as [SiteKey, string];
    const isBehind = () => (this.#sites.get(key)?.revision ?? Infinity) < Number(revision);
    // An edit of this process is in memory once its turn is over.
    if (isBehind()) await this.inTurn(key, async () => void (isBehind() && (await this.catchUp(key))));
  }

  /** Follows all that was not told here: while the database could not be heard, or by a process that died before it could. */
  async followAll(): Promise<void> {
    for (const { key, revision } of await revisionsOf(this.#database, [...this.#sites.keys()]))
      await this.follow(`${key} ${revision}`);
  }

  /** Lets go of a site that was deleted or brought back: what has its key now is read anew. */
  forget(key: SiteKey): void {
    this.#sites.delete(key);
  }

  /** Lets go of the sites that nobody uses, and gives how many are left in memory. */
  dropUnused(): number {
    const since = this.#now() - KEPT_UNUSED_MS;
    for (const key of this.#sites.keys())
      if (!this.#listeners.has(key) && (this.#usedAt.get(key) ?? 0) < since) this.#sites.delete(key);
    for (const key of this.#usedAt.keys()) if (!this.#sites.has(key)) this.#usedAt.delete(key);
    return this.#sites.size;
  }

  /** Brings the site up to the log. Call within `inTurn`. */
  async catchUp(key: SiteKey): Promise<LoadedSite> {
    const known = this.#sites.get(key);
    if (!known) return this.#load(key);
    const edits = await editsAfter(this.#database, key, known.revision);
    if (edits.length === 0) return known;
    const replayed = applyOperations(
      known.site,
      edits.flatMap((edit) => edit.operations as Operation[]),
    );
    // Where the log does not replay on what is in memory, memory is what is wrong.
    const loaded = replayed.ok ? { site: replayed.site, revision: edits.at(-1)!.revision } : await this.#load(key);
    this.#keep(key, loaded);
    for (const edit of edits) this.#tell(key, edit);
    return loaded;
  }

  /** Takes over an edit that this process has committed. Call within `inTurn`. */
  committed(key: SiteKey, site: Site, edit: CommittedEdit): void {
    this.#keep(key, { site, revision: edit.revision });
    this.#tell(key, edit);
  }

  #tell(key: SiteKey, edit: CommittedEdit): void {
    for (const listener of this.#listeners.get(key) ?? []) listener(edit);
  }

  async #load(key: SiteKey): Promise<LoadedSite> {
    const loaded = await loadSite(this.#database, key, this.#most);
    if (!loaded) throw new ProblemError('site-unknown', { site: key });
    this.#keep(key, loaded);
    return loaded;
  }

  #keep(key: SiteKey, loaded: LoadedSite): void {
    this.#sites.delete(key);
    this.#sites.set(key, loaded);
    if (this.#sites.size <= MAX_SITES) return;
    const unwatched = [...this.#sites.keys()].find((other) => other !== key && !this.#listeners.has(other));
    if (unwatched !== undefined) this.#sites.delete(unwatched);
  }
}
