import type { Knex } from 'knex';
import type { SignInWays } from '#contract/people.ts';

/** How somebody signs in besides with the password. */
export async function signInWaysOf(database: Knex, account: string): Promise<SignInWays> {
  const [step, codes, passkeys] = await Promise.all([
    database('second_step').where({ account }).first('since'),
    database('recovery_code').where({ account }).count('* as count').first(),
    database('passkey').where({ account }).orderBy('added_at').select('id', 'name', 'added_at', 'last_used_at'),
  ]);
  return {
    codesSince: step ? step.since.toISOString() : null,
    recoveryCodes: Number(codes?.count ?? 0),
    passkeys: passkeys.map((row) => ({
      id: row.id,
      name: row.name,
      addedAt: row.added_at.toISOString(),
      lastUsedAt: row.last_used_at?.toISOString() ?? null,
    })),
  };
}

/** The secret of somebody's one-time codes, and the last one that was used; undefined where none are asked for. */
export const codesOf = (
  database: Knex,
  account: string,
): Promise<{ secret: string; last_counter: string } | undefined> =>
  database('second_step').where({ account }).first('secret', 'last_counter');

/** Asks for one-time codes from now on, in place of those before. */
export async function putCodes(
  trx: Knex,
  account: string,
  {
    secret,
    since,
    counter,
    recoveryHashes,
  }: {
    readonly secret: string;
    readonly since: Date;
    readonly counter: number;
    readonly recoveryHashes: readonly string[];
  },
): Promise<void> {
  await trx('second_step').where({ account }).delete();
  await trx('second_step').insert({ account, secret, since, last_counter: counter });
  await trx('recovery_code').insert(recoveryHashes.map((code_hash) => ({ account, code_hash })));
}

/** Uses a code up. False where it, or a later one, was used before: of two at the same moment one is late. */
export const useCode = async (database: Knex, account: string, counter: number): Promise<boolean> =>
  (await database('second_step')
    .where({ account })
    .andWhere('last_counter', '<', counter)
    .update({ last_counter: counter })) > 0;

/** Uses a recovery code up. False where there is no such one. */
export const useRecoveryCode = async (database: Knex, account: string, code_hash: string): Promise<boolean> =>
  (await database('recovery_code').where({ account, code_hash }).delete()) > 0;

export const deleteCodes = (database: Knex, account: string): Promise<number> =>
  database('second_step').where({ account }).delete();

export interface StoredPasskey {
  readonly id: string;
  readonly account: string;
  readonly public_key: Buffer;
  readonly counter: string;
  readonly transports: string[];
}

export const passkeyById = (database: Knex, id: string): Promise<StoredPasskey | undefined> =>
  database('passkey').where({ id }).first('id', 'account', 'public_key', 'counter', 'transports');

export const passkeyIdsOf = (database: Knex, account: string): Promise<string[]> =>
  database('passkey').where({ account }).pluck('id');

/** SQLSTATE 23505 where it is known already. */
export const insertPasskey = (
  database: Knex,
  passkey: Omit<StoredPasskey, 'counter'> & {
    readonly counter: number;
    readonly name: string;
    readonly added_at: Date;
  },
): Promise<unknown> => database('passkey').insert(passkey);

export const notePasskeyUse = (database: Knex, id: string, counter: number, last_used_at: Date): Promise<unknown> =>
  database('passkey').where({ id }).update({ counter, last_used_at });

export const deletePasskey = (database: Knex, account: string, id: string): Promise<number> =>
  database('passkey').where({ account, id }).delete();
