import type { Logger } from 'pino';
import type { SiteKey } from '#core/model/ids.ts';
import type { Database } from '../database/connect.ts';
import { addHits, addMisses } from './visit-repository.ts';

/** What is counted is written down so often. */
const EVERY_MS = 2_000;
/** So many addresses are counted between two times of writing down; the others are let go. */
const MAX_AT_ONCE = 2_000;
/** A longer address asked for in vain is nobody's link. */
const MAX_PATH_LENGTH = 300;

/** What visitors asked for in vain, and where from within the site. */
export interface Miss {
  count: number;
  from: string | null;
}

/** Counts the redirects that visitors meet and the addresses that they ask for in vain. Who they are is not kept. */
export class Visits {
  readonly #database: Database;
  readonly #log: Logger;
  readonly #now: () => Date;
  #hits = new Map<SiteKey, Map<string, number>>();
  #misses = new Map<SiteKey, Map<string, Miss>>();
  #counted = 0;
  #timer: NodeJS.Timeout | null = null;
  #writing: Promise<void> = Promise.resolve();

  constructor(database: Database, log: Logger, now: () => Date) {
    this.#database = database;
    this.#log = log;
    this.#now = now;
  }

  /** A redirect was met at an address. */
  hit(site: SiteKey, path: string): void {
    const hits = this.#of(this.#hits, site);
    if (this.#hasRoom(hits, path)) hits.set(path, (hits.get(path) ?? 0) + 1);
  }

  /** An address was asked for in vain; `from` is the path of the site's own page that led there, or null. */
  miss(site: SiteKey, path: string, from: string | null): void {
    const misses = this.#of(this.#misses, site);
    // PostgreSQL keeps no U+0000: one such address would lose all that is written with it.
    if (path.length > MAX_PATH_LENGTH || path.includes('\0') || !this.#hasRoom(misses, path)) return;
    const known = misses.get(path);
    misses.set(path, { count: (known?.count ?? 0) + 1, from: keptFrom(from) ?? known?.from ?? null });
  }

  /** Writes down what was counted so far. */
  async flush(): Promise<void> {
    if (this.#timer) clearTimeout(this.#timer);
    this.#timer = null;
    const [hits, misses] = [this.#hits, this.#misses];
    this.#hits = new Map();
    this.#misses = new Map();
    this.#counted = 0;
    const at = this.#now();
    this.#writing = this.#writing.then(async () => {
      // What cannot be written of one site does not take along what was counted of others.
      const write = (what: Promise<void>) =>
        what.catch((fault: unknown) => this.#log.warn({ err: fault }, 'what visitors met could not be counted'));
      for (const [site, paths] of hits) await write(addHits(this.#database, site, paths, at));
      for (const [site, paths] of misses) await write(addMisses(this.#database, site, paths, at));
    });
    await this.#writing;
  }

  #of<Value>(all: Map<SiteKey, Map<string, Value>>, site: SiteKey): Map<string, Value> {
    this.#timer ??= setTimeout(() => void this.flush(), EVERY_MS).unref();
    let paths = all.get(site);
    if (!paths) all.set(site, (paths = new Map()));
    return paths;
  }

  #hasRoom(paths: ReadonlyMap<string, unknown>, path: string): boolean {
    if (paths.has(path)) return true;
    return this.#counted++ < MAX_AT_ONCE;
  }
}

const keptFrom = (from: string | null): string | null =>
  from === null || from.includes('\0') ? null : from.slice(0, MAX_PATH_LENGTH);
