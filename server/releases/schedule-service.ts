// A release to come: waiting → done, failed or called off. Whoever settles it first has settled it.
import { randomUUID } from 'node:crypto';
import type { SiteKey } from '#core/model/ids.ts';
import type { Account } from '#contract/api.ts';
import type { ScheduleBody } from '#contract/releases.ts';
import type { Database } from '../database/connect.ts';
import { accountById } from '../accounts/account-repository.ts';
import type { JobQueue } from '../jobs/job-queue.ts';
import { ProblemError } from '../problem.ts';
import type { SiteCache } from '../sites/site-cache.ts';
import type { ReleaseService } from './release-service.ts';
import { insertScheduled, settleScheduled, waitingRelease, waitingReleases } from './schedule-repository.ts';

export const SCHEDULED_RELEASE = 'scheduled-release';
/** How often overdue releases are looked for, and so long after its moment one is overdue. */
export const CATCH_UP_EVERY_MS = 30_000;
const OVERDUE_MS = 15_000;

/** Releases that are made at a moment to come, once, whichever process is alive then. */
export class ScheduleService {
  readonly #database: Database;
  readonly #cache: SiteCache;
  readonly #releases: ReleaseService;
  readonly #now: () => Date;
  #queue: JobQueue | null = null;

  constructor(database: Database, cache: SiteCache, releases: ReleaseService, now: () => Date) {
    this.#database = database;
    this.#cache = cache;
    this.#releases = releases;
    this.#now = now;
  }

  /** The queue that they go through. It has `run` as its worker, so it comes after this. */
  useQueue(queue: JobQueue): void {
    this.#queue = queue;
  }

  /** Puts on the queue what was set before this process began: what is late by now is made at once. */
  async takeUp(): Promise<void> {
    for (const { id, at } of await waitingReleases(this.#database))
      await this.#queue!.send(SCHEDULED_RELEASE, { id }, at);
  }

  /**
   * Makes what is overdue: its job may have been taken by a process that died before it was done. Called now and then.
   * What another process is making at the same time is made once.
   */
  async catchUp(): Promise<void> {
    const overdue = new Date(this.#now().getTime() - OVERDUE_MS);
    for (const { id, at } of await waitingReleases(this.#database)) if (at < overdue) await this.run({ id });
  }

  /** Sets a release for a moment. The pages go live as they are drafted then. @throws ProblemError where it is past */
  async set(site: SiteKey, account: Account, { at, name, note, ...asked }: ScheduleBody): Promise<void> {
    const moment = new Date(at);
    const made_at = this.#now();
    if (moment <= made_at) throw new ProblemError('moment-past');
    const id = randomUUID();
    await insertScheduled(this.#database, {
      id,
      site,
      at: moment,
      name,
      note,
      asked,
      account: account.id,
      made_at,
      state: 'waiting',
    });
    await this.#queue!.send(SCHEDULED_RELEASE, { id }, moment);
  }

  /** @throws ProblemError where the site has none of that id that is waiting */
  async callOff(site: SiteKey, id: string): Promise<void> {
    const waiting = await waitingRelease(this.#database, id);
    if (waiting?.site !== site) throw new ProblemError('schedule-unknown');
    const isOff = await settleScheduled(this.#database, id, { state: 'called off', done_at: this.#now() });
    if (!isOff) throw new ProblemError('schedule-unknown');
  }

  /**
   * Makes a release whose moment has come. It bears the schedule's own id as its request, so that it is made once, also where two
   * processes begin with it or one of them dies between the release and saying that it is made.
   */
  readonly run = async ({ id }: { id: string }): Promise<void> => {
    const row = await waitingRelease(this.#database, id);
    if (!row) return;
    // The clock of the database may be ahead of this one's.
    if (row.at > this.#now()) return this.#queue!.send(SCHEDULED_RELEASE, { id }, row.at);
    const settle = (outcome: { release: number } | { fault: string }) =>
      settleScheduled(this.#database, id, {
        state: 'fault' in outcome ? 'failed' : 'done',
        done_at: this.#now(),
        ...outcome,
      });
    const account = await accountById(this.#database, row.account);
    if (!account) return void (await settle({ fault: 'The account of whoever set it is gone.' }));
    try {
      const { site } = await this.#cache.current(row.site);
      const { pages, retire, ...asked } = row.asked;
      const { number } = await this.#releases.make(row.site, account, {
        ...asked,
        name: row.name,
        note: row.note,
        // Pages may have been deleted for good since, or taken down by somebody else.
        pages: pages === 'all' ? pages : pages.filter((page) => site.nodes.has(page)),
        retire: retire.filter((page) => site.live.get(page)?.retired === false),
        request: id,
      });
      await settle({ release: number });
    } catch (fault) {
      if (!(fault instanceof ProblemError)) throw fault;
      await settle({ fault: fault.message });
    }
  };
}
