import PgBoss from 'pg-boss';
import { PatientDatabase } from '../database/patient-database.ts';

/** Queues are tables that are made when they are first needed: one process makes them, the others wait. */
const OPENING_LOCK = 7_337_002;

/** Work that goes on in the background and survives the process that began it. */
export interface JobQueue {
  /** Puts a piece of work on the queue; one process takes it. */
  send(name: string, data: object): Promise<void>;
  /** Does a piece of work again and again, at the times of a cron line by UTC. Said twice it is the same. */
  repeat(name: string, cron: string): Promise<void>;
  stop(): Promise<void>;
}

/** What is done with the data of a piece of work. The signal says that the process ends: what is left is done later. */
export type Workers = Readonly<Record<string, (data: never, signal: AbortSignal) => Promise<void>>>;

/** The queue in PostgreSQL. It is opened when the first piece of work comes, since most days none does. */
export class PostgresQueue implements JobQueue {
  readonly #workers: Workers;
  readonly #onFault: (fault: unknown) => void;
  readonly #ending = new AbortController();
  readonly #database: PatientDatabase;
  #boss: Promise<PgBoss> | null = null;

  constructor(url: string, workers: Workers, onFault: (fault: unknown) => void) {
    this.#workers = workers;
    this.#onFault = onFault;
    this.#database = new PatientDatabase(url, this.#ending.signal, onFault);
  }

  async send(name: string, data: object): Promise<void> {
    const boss = await this.#opened();
    // Work is taken up again by those who know how far it went, so the queue itself does not repeat it.
    await boss.send(name, data, { retryLimit: 0, expireInHours: 23 });
  }

  async repeat(name: string, cron: string): Promise<void> {
    const boss = await this.#opened();
    await boss.schedule(name, cron);
  }

  async stop(): Promise<void> {
    this.#ending.abort();
    const boss = await this.#boss?.catch(() => null);
    await boss?.stop({ graceful: false, wait: true });
    await this.#database.close();
  }

  #opened(): Promise<PgBoss> {
    const opening = (this.#boss ??= this.#open());
    // What could not be opened is tried again when it is next needed.
    opening.catch(() => {
      if (this.#boss === opening) this.#boss = null;
    });
    return opening;
  }

  #open(): Promise<PgBoss> {
    return this.#database.locked(OPENING_LOCK, () => this.#start());
  }

  async #start(): Promise<PgBoss> {
    const boss = new PgBoss({ db: this.#database });
    boss.on('error', this.#onFault);
    await boss.start();
    for (const [name, work] of Object.entries(this.#workers)) {
      await boss.createQueue(name);
      await boss.work(name, { pollingIntervalSeconds: 0.5 }, async (jobs) => {
        for (const job of jobs) await this.#tellFaults(work(job.data as never, this.#ending.signal));
      });
    }
    return boss;
  }

  /** The queue keeps the reason of what fails in a table that nobody reads. */
  async #tellFaults(work: Promise<void>): Promise<void> {
    try {
      await work;
    } catch (fault) {
      this.#onFault(fault);
      throw fault;
    }
  }
}
