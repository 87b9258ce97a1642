// A release to come: waiting → done, failed or called off. Whoever settles it first has settled it.
import type { PlainAccount } from '../accounts/account-repository.ts';
import { randomUUID } from 'node:crypto';
import { canonicalJson } from '#core/model/canonical-json.ts';
import type { SiteKey } from '#core/model/ids.ts';
import type { ScheduleBody } from '#contract/releases.ts';
import type { Database } from '../database/connect.ts';
import { accountById } from '../accounts/account-repository.ts';
import { ProblemError } from '../problem.ts';
import type { SiteCache } from '../sites/site-cache.ts';
import type { ReleaseService } from './release-service.ts';
import {
  type ScheduledRow,
  aloneWith,
  dueReleases,
  insertScheduled,
  nextMoment,
  scheduledRelease,
  sitesWithDue,
  settleScheduled,
  waitingRelease,
} from './schedule-repository.ts';

/** A process looks at least so often: what it was told of may not have come through. */
const LOOK_EVERY_MS = 30_000;
/** What another process is making, or what failed for want of the database, is looked at again after so long. */
const AGAIN_MS = 1000;

/**
 * Releases that are made at a moment to come, once, whichever process is alive then. Each process sleeps until the next moment, wakes
 * when one is set, and makes what is due one after the other. Which is due stands in their own table alone: a process that starts has
 * nothing to take up, and leaves nothing behind.
 */
export class ScheduleService {
  readonly #database: Database;
  readonly #cache: SiteCache;
  readonly #releases: ReleaseService;
  readonly #now: () => Date;
  readonly #onFault: (fault: unknown) => void;
  #round: Promise<void> | null = null;
  #isAwaited = false;
  #timer: NodeJS.Timeout | undefined;
  #isEnded = false;

  constructor(
    database: Database,
    cache: SiteCache,
    releases: ReleaseService,
    now: () => Date,
    onFault: (fault: unknown) => void,
  ) {
    this.#database = database;
    this.#cache = cache;
    this.#releases = releases;
    this.#now = now;
    this.#onFault = onFault;
  }

  /** Makes what is due, and sleeps until the next moment. Called when the process starts, and when a release was set. */
  readonly wake = (): Promise<void> => {
    this.#isAwaited = true;
    return (this.#round ??= this.#goRound().finally(() => (this.#round = null)));
  };

  /** Makes no more; waits for the one that is being made. */
  async stop(): Promise<void> {
    this.#isEnded = true;
    clearTimeout(this.#timer);
    await this.#round;
  }

  /**
   * Sets a release for a moment. The pages go live as they are drafted then. The same request sets one release, however often it comes.
   * @throws ProblemError where the moment is past
   */
  async set(site: SiteKey, account: PlainAccount, { at, name, note, request, ...asked }: ScheduleBody): Promise<void> {
    const moment = new Date(at);
    const made_at = this.#now();
    if (moment <= made_at) throw new ProblemError('moment-past');
    const wanted = { at: moment, name, note, asked };
    const id = randomUUID();
    const set = await insertScheduled(this.#database, {
      id,
      site,
      ...wanted,
      account: account.id,
      made_at,
      state: 'waiting',
      request: request ?? null,
    });
    if (set === id) return;
    const before = await scheduledRelease(this.#database, set);
    if (!before || !isSameWish(before, wanted)) throw new ProblemError('request-reused');
  }

  /** @throws ProblemError where the site has none of that id that is waiting */
  async callOff(site: SiteKey, id: string): Promise<void> {
    const waiting = await waitingRelease(this.#database, id);
    if (waiting?.site !== site) throw new ProblemError('schedule-unknown');
    const isOff = await settleScheduled(this.#database, id, { state: 'called off', done_at: this.#now() });
    if (!isOff) throw new ProblemError('schedule-unknown');
  }

  async #goRound(): Promise<void> {
    let wait = AGAIN_MS;
    try {
      while (this.#isAwaited && !this.#isEnded) {
        this.#isAwaited = false;
        wait = await this.#makeDue();
      }
    } catch (fault) {
      this.#onFault(fault);
    }
    clearTimeout(this.#timer);
    if (!this.#isEnded) this.#timer = setTimeout(() => void this.wake(), wait);
  }

  /** Makes all that is due. Gives the milliseconds until there is something to do again. */
  async #makeDue(): Promise<number> {
    let isLeft = false;
    for (const site of await sitesWithDue(this.#database, this.#now())) {
      try {
        const wasAlone = await aloneWith(this.#database, site, () => this.#makeDueOf(site));
        isLeft ||= !wasAlone;
      } catch (fault) {
        // Other sites are not to wait for it.
        isLeft = true;
        this.#onFault(fault);
      }
    }
    if (isLeft) return AGAIN_MS;
    const next = await nextMoment(this.#database);
    return next ? Math.min(Math.max(next.getTime() - this.#now().getTime(), 0), LOOK_EVERY_MS) : LOOK_EVERY_MS;
  }

  /** Makes what is due of a site, in the order of the moments. */
  async #makeDueOf(site: SiteKey): Promise<void> {
    for (const id of await dueReleases(this.#database, site, this.#now())) if (!this.#isEnded) await this.#make(id);
  }

  /**
   * Makes a release whose moment has come. It bears the schedule's own id as its request, so that it is made once, also where a process
   * dies between the release and saying that it is made.
   */
  async #make(id: string): Promise<void> {
    const row = await waitingRelease(this.#database, id);
    if (!row) return;
    const settle = (outcome: { release: number } | { fault: string }) =>
      settleScheduled(this.#database, id, {
        state: 'fault' in outcome ? 'failed' : 'done',
        done_at: this.#now(),
        ...outcome,
      });
    // What was made before the process that made it died is made, whatever would forbid it by now.
    const made = await this.#releases.madeBy(row.site, id);
    if (made) return void (await settle({ release: made.number }));
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
      // Where nobody knows whether it was made, it is made again: its request says that it is the same.
      if (!(fault instanceof ProblemError) || fault.code === 'outcome-unknown') throw fault;
      await settle({ fault: fault.message });
    }
  }
}

type Wish = Pick<ScheduledRow, 'at' | 'name' | 'note' | 'asked'>;

const isSameWish = (one: Wish, other: Wish): boolean => {
  const texts = [one, other].map(({ at, name, note, asked }) =>
    canonicalJson({ at: at.toISOString(), name, note, asked }),
  );
  return texts[0] === texts[1];
};
