import { setTimeout as pause } from 'node:timers/promises';
import type { Logger } from 'pino';
import type { Database } from '../database/connect.ts';
import { hasReached, positionOf } from '../database/standby-repository.ts';

/** So long reads wait for the standby to have what was told; from then on the primary answers them. */
const PATIENCE_MS = 500;
const LOOK_EVERY_MS = 10;
/** How often it is looked for after that. */
const LOOK_AGAIN_MS = 250;

/**
 * Where a visitors' process reads what is live: from a standby of PostgreSQL, where there is one, so that visitors take nothing
 * from those who work. Nothing is ever read that is older than what the process was told of: while the standby has not come that
 * far, or is away, the primary is read.
 */
export class LiveReading {
  /** What is told, and asked of anything but what is live. */
  readonly primary: Database;
  readonly #standby: Database | null;
  readonly #log: Pick<Logger, 'warn'> | null;
  /** Whether the standby has what was told last; settled when it has, or when the patience is over. */
  #isThere: Promise<boolean>;
  /** How often something was told. */
  #told = 0;
  #isEnded = false;
  #isSaid = false;

  constructor(primary: Database, standby: Database | null = null, log: Pick<Logger, 'warn'> | null = null) {
    this.primary = primary;
    this.#standby = standby;
    this.#log = log;
    this.#isThere = Promise.resolve(false);
    this.heard();
  }

  /** Says that something was told: reads from now on see all that was committed before. */
  heard(): void {
    if (!this.#standby) return;
    this.#told += 1;
    this.#isThere = this.#follow(this.#standby, this.#told);
  }

  /** Asks for what is live. What the standby cannot answer the primary does. @throws what the primary throws */
  async read<Result>(ask: (database: Database) => Promise<Result>): Promise<Result> {
    if (!this.#standby || !(await this.#isThere)) return ask(this.primary);
    try {
      return await ask(this.#standby);
    } catch (fault) {
      // It is away, or had to break off to keep up: until it is there again nobody waits for it.
      this.#say(fault);
      this.heard();
      return ask(this.primary);
    }
  }

  end(): void {
    this.#isEnded = true;
  }

  async #follow(standby: Database, told: number): Promise<boolean> {
    let position: string | null = null;
    const isThere = async () => {
      try {
        position ??= await positionOf(this.primary);
        return await hasReached(standby, position);
      } catch (fault) {
        this.#say(fault);
        return false;
      }
    };
    for (const end = Date.now() + PATIENCE_MS; Date.now() < end; await pause(LOOK_EVERY_MS)) {
      // A standby that does not even refuse is not waited for longer either.
      const patience = pause(end - Date.now(), false, { ref: false });
      if (await Promise.race([isThere(), patience])) return this.#cameBack();
    }
    this.#say(null);
    void this.#lookOn(told, isThere);
    return false;
  }

  /** Looks for the standby until it is there, or something newer was told. */
  async #lookOn(told: number, isThere: () => Promise<boolean>): Promise<void> {
    while (!this.#isEnded && told === this.#told) {
      await pause(LOOK_AGAIN_MS, undefined, { ref: false });
      if (await isThere()) {
        if (told === this.#told) this.#isThere = Promise.resolve(this.#cameBack());
        return;
      }
    }
  }

  /** Says once that the primary is read instead, until the standby is there again. */
  #say(fault: unknown): void {
    if (this.#isSaid) return;
    this.#isSaid = true;
    this.#log?.warn({ fault }, 'The standby is behind or away: what is live is read from the primary.');
  }

  #cameBack(): true {
    if (this.#isSaid) this.#log?.warn('What is live is read from the standby again.');
    this.#isSaid = false;
    return true;
  }
}
