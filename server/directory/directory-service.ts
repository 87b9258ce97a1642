import { randomBytes } from 'node:crypto';
import type { SiteKey } from '#core/model/ids.ts';
import { type SyncKind, mostSuspendedUnseen } from '#core/directory/directory-person.ts';
import { type SyncItem, planSync } from '#core/visitors/directory-sync.ts';
import type { LastSync } from '#contract/directory.ts';
import type { Database } from '../database/connect.ts';
import type { JobQueue } from '../jobs/job-queue.ts';
import { ProblemError } from '../problem.ts';
import { hashOfPassword } from '../security/passwords.ts';
import type { SiteCache } from '../sites/site-cache.ts';
import type { Letters } from '../visitors/letters.ts';
import {
  type SiteDirectory,
  applySync,
  lockSync,
  nightlySites,
  putLastSync,
  putSiteDirectory,
  siteDirectory,
  syncedAccounts,
} from './directory-repository.ts';
import { type DirectoryAccess, type DirectoryContents, readDirectory } from './scim-client.ts';

/** The name of the work in the queue, and when it is done: at half past two at night, by UTC. */
export const NIGHTLY_SYNC = 'directory-sync';
export const AT_NIGHT = '30 2 * * *';

/** Keeps accounts of visitors in step with the organisation's directory: looked at first, then done; or by itself at night. */
export class DirectoryService {
  readonly #database: Database;
  readonly #cache: SiteCache;
  readonly #letters: Letters;
  readonly #liveOrigin: string;
  readonly #access: DirectoryAccess | null;
  readonly #now: () => Date;
  #queue: JobQueue | null = null;

  constructor(parts: {
    readonly database: Database;
    readonly cache: SiteCache;
    readonly letters: Letters;
    readonly liveOrigin: string;
    /** Null where no directory is connected. */
    readonly access: DirectoryAccess | null;
    readonly now: () => Date;
  }) {
    this.#database = parts.database;
    this.#cache = parts.cache;
    this.#letters = parts.letters;
    this.#liveOrigin = parts.liveOrigin;
    this.#access = parts.access;
    this.#now = parts.now;
  }

  /** From now on nights are kept by this queue, if any site asks for it. */
  async useQueue(queue: JobQueue): Promise<void> {
    this.#queue = queue;
    if ((await nightlySites(this.#database)).length > 0) await queue.repeat(NIGHTLY_SYNC, AT_NIGHT);
  }

  get isConnected(): boolean {
    return this.#access !== null;
  }

  settings(site: SiteKey): Promise<SiteDirectory> {
    return siteDirectory(this.#database, site);
  }

  /** @throws ProblemError where none is connected, or it cannot be read */
  async read(): Promise<DirectoryContents> {
    if (this.#access === null) throw new ProblemError('directory-missing');
    return readDirectory(this.#access);
  }

  async set(site: SiteKey, settings: Pick<SiteDirectory, 'groupAudiences' | 'isNightly'>): Promise<void> {
    await putSiteDirectory(this.#database, site, settings);
    if (settings.isNightly) await this.#queue?.repeat(NIGHTLY_SYNC, AT_NIGHT);
  }

  /** What a synchronisation would do now. */
  async look(site: SiteKey): Promise<SyncItem[]> {
    const { people } = await this.read();
    const { groupAudiences } = await this.settings(site);
    return planSync(people, groupAudiences, await syncedAccounts(this.#database, site));
  }

  /** Synchronises a site: all of it or nothing. Whoever is new gets a letter to choose a password. @param by who asked for it */
  async sync(site: SiteKey, by: string): Promise<SyncItem[]> {
    return this.#sync(site, by, Infinity);
  }

  /** Synchronises every site that asks for it; what cannot be done is told with the site, and the others go on. */
  async syncAtNight(): Promise<void> {
    for (const site of await nightlySites(this.#database)) {
      try {
        const accounts = await syncedAccounts(this.#database, site);
        await this.#sync(site, 'the night', mostSuspendedUnseen(accounts));
      } catch (fault) {
        if (!(fault instanceof ProblemError)) throw fault;
        await putLastSync(this.#database, site, toldSync([], this.#now(), 'the night', fault.message));
      }
    }
  }

  async #sync(site: SiteKey, by: string, mostSuspended: number): Promise<SyncItem[]> {
    const { people } = await this.read();
    const { name, language } = (await this.#cache.current(site)).site.settings;
    const place = { key: site, name, language, address: `${this.#liveOrigin}/${site}` };
    // Nobody knows it: a password is chosen by the letter.
    const passwordHash = await hashOfPassword(randomBytes(24).toString('base64url'));
    return this.#database.transaction(async (trx) => {
      await lockSync(trx, site);
      const { groupAudiences } = await siteDirectory(trx, site);
      const items = planSync(people, groupAudiences, await syncedAccounts(trx, site));
      const suspended = items.filter(({ kind }) => kind === 'suspended').length;
      if (suspended > mostSuspended)
        throw new ProblemError('directory-doubtful', { count: suspended, limit: mostSuspended });
      await applySync(trx, site, items, passwordHash, this.#now());
      for (const { kind, email } of items) if (kind === 'made') await this.#letters.welcome(trx, place, email);
      await putLastSync(trx, site, toldSync(items, this.#now(), by, null));
      return items;
    });
  }
}

/** How a synchronisation ended, as it is told afterwards. @param fault why nothing was done, as a sentence */
export function toldSync(
  items: readonly { readonly kind: SyncKind }[],
  at: Date,
  by: string,
  fault: string | null,
): LastSync {
  const count = (wanted: SyncKind) => items.filter(({ kind }) => kind === wanted).length;
  return {
    at: at.toISOString(),
    by,
    made: count('made'),
    changed: count('changed') + count('restored'),
    suspended: count('suspended'),
    inTheWay: count('in the way'),
    fault,
  };
}
