// A look: running → done, stopped or failed; from any of them another one begins.
import { randomUUID } from 'node:crypto';
import { type SiteKey, toSiteKey } from '#core/model/ids.ts';
import type { Database } from '../database/connect.ts';
import type { JobQueue } from '../jobs/job-queue.ts';
import { type LookKind, beginLook, latestLook, stopLook, tellLook } from './look-repository.ts';

const TELL_EVERY_MS = 400;
/** Who has not told for so long has died; who has not begun may wait for the look of another site to end. */
const DEAD_AFTER_MS = 30_000;
const WAITS_MS = 600_000;

/** How the latest look stands; while another one is under way the report is that of the one before. */
export interface LookAnswer<Report> {
  readonly state: 'none' | 'running' | 'stopped' | 'failed' | 'done';
  readonly addressesRead: number;
  /** How many addresses it knows of so far. */
  readonly addressesKnown: number;
  readonly report: Report | null;
}

/** Says how far a look is. */
export type Tell = (read: number, known: number) => Promise<void>;

/** Work that looks at a whole site in the background, through the queue: it tells how far it is, and can be stopped. */
export class BackgroundLook<Report extends object> {
  readonly job: string;
  readonly #database: Database;
  readonly #now: () => Date;
  readonly #kind: LookKind;
  readonly #look: (site: SiteKey, tell: Tell, signal: AbortSignal) => Promise<Report>;
  #queue: JobQueue | null = null;

  /** @param look the work itself. The signal is given where somebody stops it, or the process ends: it may throw then */
  constructor(
    database: Database,
    now: () => Date,
    kind: LookKind,
    look: (site: SiteKey, tell: Tell, signal: AbortSignal) => Promise<Report>,
  ) {
    this.#database = database;
    this.#now = now;
    this.#kind = kind;
    this.#look = look;
    this.job = `${kind}-look`;
  }

  /** The queue that the looks go through. It has `run` as its worker, so it comes after this. */
  useQueue(queue: JobQueue): void {
    this.#queue = queue;
  }

  async show(site: SiteKey): Promise<LookAnswer<Report>> {
    const look = await latestLook(this.#database, site, this.#kind);
    if (!look) return { state: 'none', addressesRead: 0, addressesKnown: 0, report: null };
    const patience = look.addresses_known === 0 ? WAITS_MS : DEAD_AFTER_MS;
    const isDead = look.state === 'running' && this.#now().getTime() - look.told_at.getTime() > patience;
    return {
      state: isDead ? 'failed' : look.state,
      addressesRead: look.addresses_read,
      addressesKnown: look.addresses_known,
      report: look.report as Report | null,
    };
  }

  /** Begins a look, unless one is under way. */
  async start(site: SiteKey): Promise<void> {
    if ((await this.show(site)).state === 'running') return;
    const id = randomUUID();
    await beginLook(this.#database, site, this.#kind, id, this.#now());
    await this.#queue!.send(this.job, { site, id });
  }

  stop(site: SiteKey): Promise<void> {
    return stopLook(this.#database, site, this.#kind);
  }

  /** The work of one look. */
  readonly run = async (given: { site: string; id: string }, ending: AbortSignal): Promise<void> => {
    const [site, id] = [toSiteKey(given.site), given.id];
    const stopped = new AbortController();
    const signal = AbortSignal.any([ending, stopped.signal]);
    const say = (told: Parameters<typeof tellLook>[4]) => tellLook(this.#database, site, this.#kind, id, told);
    let told = 0;
    const tell: Tell = async (read, known) => {
      const at = this.#now();
      if (at.getTime() - told < TELL_EVERY_MS) return;
      told = at.getTime();
      if (!(await say({ addresses_read: read, addresses_known: known, told_at: at }))) stopped.abort();
    };
    try {
      const report = await this.#look(site, tell, signal);
      if (!signal.aborted) await say({ state: 'done', report });
    } catch (fault) {
      if (signal.aborted) return;
      await say({ state: 'failed' });
      throw fault;
    }
  };
}
