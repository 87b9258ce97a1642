import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import type { Pool } from '../database/connect.ts';
import { ProblemError } from '../problem.ts';

const WINDOW_SECONDS = 15 * 60;
/** Failed attempts within the window: for one mail address from one place, and from one place in all. */
export const MAX_FOR_ONE_ACCOUNT = 8;
const MAX_FROM_ONE_PLACE = 60;

/** Counts failed attempts to sign in, in PostgreSQL, so that all processes count together. */
export class Attempts {
  readonly #byAccount: RateLimiterPostgres;
  readonly #byPlace: RateLimiterPostgres;

  private constructor(byAccount: RateLimiterPostgres, byPlace: RateLimiterPostgres) {
    this.#byAccount = byAccount;
    this.#byPlace = byPlace;
  }

  static async open(pool: Pool): Promise<Attempts> {
    const limiter = (keyPrefix: string, points: number) =>
      new Promise<RateLimiterPostgres>((resolve, reject) => {
        const made: RateLimiterPostgres = new RateLimiterPostgres(
          {
            storeClient: pool,
            storeType: 'pool',
            tableName: 'sign_in_attempt',
            keyPrefix,
            points,
            duration: WINDOW_SECONDS,
          },
          (fault?: Error) => (fault ? reject(fault) : resolve(made)),
        );
      });
    const byAccount = await limiter('account', MAX_FOR_ONE_ACCOUNT);
    return new Attempts(byAccount, await limiter('place', MAX_FROM_ONE_PLACE));
  }

  /**
   * Does the work that may fail with a wrong password. Counts before it tries, so that attempts at the same moment
   * cannot slip past the limit; what succeeds is forgotten. @throws ProblemError where there were too many.
   */
  async guard<Result>(place: string, email: string, work: () => Promise<Result>): Promise<Result> {
    const key = `${place}|${email.toLowerCase()}`.slice(0, 250);
    await count(this.#byPlace, place);
    await count(this.#byAccount, key);
    const result = await work();
    await Promise.all([this.#byAccount.delete(key), this.#byPlace.reward(place, 1)]);
    return result;
  }

  /** Counts something that is done for whoever asks, such as writing to an address. @throws ProblemError where it was too often. */
  async spend(place: string, what: string): Promise<void> {
    await count(this.#byPlace, place);
    await count(this.#byAccount, `${place}|${what.toLowerCase()}`.slice(0, 250));
  }
}

async function count(limiter: RateLimiterPostgres, key: string): Promise<void> {
  try {
    await limiter.consume(key);
  } catch (fault) {
    if (fault instanceof RateLimiterRes)
      throw new ProblemError('too-many-attempts', { seconds: Math.ceil(fault.msBeforeNext / 1000) });
    throw fault;
  }
}
