import { isIPv6 } from 'node:net';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import type { Pool } from '../database/connect.ts';
import { ProblemError } from '../problem.ts';
import { isFamiliar, rememberFamiliar } from './familiar-repository.ts';

const WINDOW_SECONDS = 15 * 60;
/** Failed attempts within the window: for one account from one place, for one account from all places, and from one place for all accounts. */
export const MAX_FOR_ONE_ACCOUNT = 8;
export const MAX_ACROSS_PLACES = 40;
export const MAX_FROM_ONE_PLACE = 60;
/** Forms sent within the window, of one form from one place: a class may sit behind one address. */
export const MAX_ANSWERS = 60;

/** Who tries what. */
export interface Attempt {
  /** The address that the request came from, as Express gives it. */
  readonly place: string | undefined;
  /** The account or secret that is tried. */
  readonly account: string;
  /** Whether many people share the secret, so that its failures are not counted across places. */
  readonly isShared?: boolean;
}

/**
 * Counts failed attempts to sign in, in PostgreSQL, so that all processes count together. Who has signed in before from a place is not
 * locked out by what others do: neither by guesses at their account from elsewhere, nor by guesses at other accounts from their place.
 */
export class Attempts {
  readonly #pool: Pool;
  readonly #byBoth: RateLimiterPostgres;
  readonly #byAccount: RateLimiterPostgres;
  readonly #byPlace: RateLimiterPostgres;
  readonly #answers: RateLimiterPostgres;

  private constructor(pool: Pool, [byBoth, byAccount, byPlace, answers]: readonly RateLimiterPostgres[]) {
    this.#pool = pool;
    this.#byBoth = byBoth!;
    this.#byAccount = byAccount!;
    this.#byPlace = byPlace!;
    this.#answers = answers!;
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
    return new Attempts(pool, [
      await limiter('account', MAX_FOR_ONE_ACCOUNT),
      await limiter('everywhere', MAX_ACROSS_PLACES),
      await limiter('place', MAX_FROM_ONE_PLACE),
      await limiter('answer', MAX_ANSWERS),
    ]);
  }

  /**
   * Does the work that may fail with a wrong password. Counts before it tries, so that attempts at the same moment
   * cannot slip past the limit; what succeeds is forgotten. @throws ProblemError where there were too many.
   */
  async guard<Result>(
    { place: from, account: asked, isShared = false }: Attempt,
    work: () => Promise<Result>,
  ): Promise<Result> {
    const place = placeOf(from);
    const account = asked.toLowerCase().slice(0, 200);
    const both = `${place}|${account}`;
    const isTrusted = !isShared && (await isFamiliar(this.#pool, both));
    await count(this.#byBoth, both);
    if (!isTrusted) {
      await count(this.#byPlace, place);
      if (!isShared) await count(this.#byAccount, account);
    }
    const result = await work();
    await this.#byBoth.delete(both);
    if (!isTrusted) {
      await this.#byPlace.reward(place, 1);
      if (!isShared) await this.#byAccount.reward(account, 1);
    }
    if (!isShared) await rememberFamiliar(this.#pool, both);
    return result;
  }

  /** Counts a form that is sent. @throws ProblemError where the same one came from there too often */
  async answer(from: string | undefined, form: string): Promise<void> {
    await count(this.#answers, `${placeOf(from)}|${form}`.slice(0, 250));
  }

  /** Counts something that is done for whoever asks, such as writing to an address. @throws ProblemError where it was too often. */
  async spend(from: string | undefined, what: string): Promise<void> {
    const place = placeOf(from);
    await count(this.#byPlace, place);
    await count(this.#byBoth, `${place}|${what.toLowerCase()}`.slice(0, 250));
  }
}

/** A place by its address: of IPv6 the network of 64 bits, since whoever has one has all of it (RFC 6177). */
export function placeOf(address: string | undefined): string {
  if (address === undefined || !isIPv6(address)) return address ?? 'unknown';
  const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(address)?.[1];
  if (mapped !== undefined) return mapped;
  const [head = '', tail] = address.split('%')[0]!.split('::');
  const groups = head === '' ? [] : head.split(':');
  const missing = tail === undefined ? 0 : 8 - groups.length - (tail === '' ? 0 : tail.split(':').length);
  const filled = [...groups, ...Array.from({ length: missing }, () => '0')];
  return `${filled
    .slice(0, 4)
    .map((group) => Number.parseInt(group, 16).toString(16))
    .join(':')}::/64`;
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
