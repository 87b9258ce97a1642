// A look of the engine: running → done, stopped or failed; from any of them another one begins.
import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { engineReport } from '#core/derive/engine-findings.ts';
import { type SiteKey, toSiteKey } from '#core/model/ids.ts';
import type { EngineAnswer } from '#contract/engine.ts';
import type { JobQueue } from '../jobs/job-queue.ts';
import { loadRelease } from '../live/live-repository.ts';
import { ProblemError } from '../problem.ts';
import { readAsEngine } from '../standins/search-engine.ts';
import { beginLook, engineLook, stopLook, tellLook } from './engine-repository.ts';

export const ENGINE_LOOK = 'engine-look';
/** So many addresses of a site are read at most, and so many findings are told. */
const MOST_ADDRESSES = 20_000;
const MOST_FINDINGS = 500;
const TELL_EVERY_MS = 400;
/** Who has not told for so long has died; who has not begun may wait for the look of another site to end. */
const DEAD_AFTER_MS = 30_000;
const WAITS_MS = 600_000;

/** Looks at live sites as a search engine does, in the background: it tells how far it is, and can be stopped. */
export class EngineService {
  readonly #database: Knex;
  readonly #liveOrigin: string;
  readonly #now: () => Date;
  #queue: JobQueue | null = null;

  constructor(database: Knex, liveOrigin: string, now: () => Date) {
    this.#database = database;
    this.#liveOrigin = liveOrigin;
    this.#now = now;
  }

  /** The queue that the looks go through. It has `run` as its worker, so it comes after this. */
  useQueue(queue: JobQueue): void {
    this.#queue = queue;
  }

  async show(site: SiteKey): Promise<EngineAnswer> {
    const look = await engineLook(this.#database, site);
    if (!look) return { state: 'none', addressesRead: 0, addressesKnown: 0, report: null };
    const patience = look.addresses_known === 0 ? WAITS_MS : DEAD_AFTER_MS;
    const isDead = look.state === 'running' && this.#now().getTime() - look.told_at.getTime() > patience;
    return {
      state: isDead ? 'failed' : look.state,
      addressesRead: look.addresses_read,
      addressesKnown: look.addresses_known,
      report: look.report,
    };
  }

  /** Begins a look, unless one is under way. @throws ProblemError where nothing is live */
  async start(site: SiteKey): Promise<void> {
    if ((await this.show(site)).state === 'running') return;
    if (!(await loadRelease(this.#database, site))) throw new ProblemError('nothing-live');
    const id = randomUUID();
    await beginLook(this.#database, site, id, this.#now());
    await this.#queue!.send(ENGINE_LOOK, { site, id });
  }

  stop(site: SiteKey): Promise<void> {
    return stopLook(this.#database, site);
  }

  /** The work of one look. */
  readonly run = async (given: { site: string; id: string }, ending: AbortSignal): Promise<void> => {
    const [site, id] = [toSiteKey(given.site), given.id];
    const stopped = new AbortController();
    const signal = AbortSignal.any([ending, stopped.signal]);
    let told = 0;
    const tell = async (read: number, known: number): Promise<void> => {
      const at = this.#now();
      if (at.getTime() - told < TELL_EVERY_MS) return;
      told = at.getTime();
      const isWanted = await tellLook(this.#database, site, id, {
        addresses_read: read,
        addresses_known: known,
        told_at: at,
      });
      if (!isWanted) stopped.abort();
    };
    try {
      const release = await loadRelease(this.#database, site);
      if (!release) throw new ProblemError('nothing-live');
      const readAt = this.#now();
      const { seen, isWhole } = await readAsEngine(this.#liveOrigin, site, MOST_ADDRESSES, tell, signal);
      if (signal.aborted) return;
      const { indexed, intended, findings } = engineReport(release.site, seen, readAt.getTime());
      await tellLook(this.#database, site, id, {
        state: 'done',
        addresses_read: seen.length,
        report: {
          readAt: readAt.toISOString(),
          addresses: seen.length,
          isWhole,
          indexed,
          intended,
          count: findings.length,
          findings: findings.slice(0, MOST_FINDINGS),
        },
      });
    } catch (fault) {
      if (signal.aborted) return;
      await tellLook(this.#database, site, id, { state: 'failed' });
      throw fault;
    }
  };
}
