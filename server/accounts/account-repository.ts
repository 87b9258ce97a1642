import type { Knex } from 'knex';
import type { Account } from '#contract/api.ts';

/** An account as it is kept. */
export type PlainAccount = Omit<Account, 'hasSecondStep'>;
export interface StoredAccount extends PlainAccount {
  /** Null until an invitation has been taken up. */
  readonly passwordHash: string | null;
}

export async function accountByEmail(database: Knex, email: string): Promise<StoredAccount | undefined> {
  const row = await database('account').whereRaw('lower(email) = lower(?)', [email]).first();
  return row && fromRow(row);
}

export async function accountById(database: Knex, id: string): Promise<StoredAccount | undefined> {
  const row = await database('account').where({ id }).first();
  return row && fromRow(row);
}

interface AccountRow {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly looks_after_all: boolean;
  readonly password_hash: string | null;
}

const fromRow = (row: AccountRow): StoredAccount => ({
  id: row.id,
  name: row.name,
  email: row.email,
  looksAfterAll: row.looks_after_all,
  passwordHash: row.password_hash,
});

/** Of those who look after the installation, the one whose account was made first; undefined where there is none. */
export async function firstToLookAfterAll(database: Knex): Promise<PlainAccount | undefined> {
  const row = await database('account').where({ looks_after_all: true }).orderBy('created_at').first();
  return row && fromRow(row);
}

export const namesOfThoseWhoLookAfterAll = (database: Knex): Promise<string[]> =>
  database('account').where({ looks_after_all: true }).orderBy('name').pluck('name');

export const addressesOfThoseWhoLookAfterAll = (database: Knex): Promise<string[]> =>
  database('account').where({ looks_after_all: true }).pluck('email');

/** Adds an account. SQLSTATE 23505 where the mail address has one. */
export const insertAccount = (database: Knex, account: StoredAccount, isDemo: boolean): Promise<unknown> =>
  database('account').insert({
    id: account.id,
    name: account.name,
    email: account.email,
    looks_after_all: account.looksAfterAll,
    password_hash: account.passwordHash,
    is_demo: isDemo,
  });

export const countAccounts = async (database: Knex): Promise<number> =>
  Number((await database('account').count('* as count').first())?.count ?? 0);

export const setPassword = (database: Knex, id: string, password_hash: string): Promise<unknown> =>
  database('account').where({ id }).update({ password_hash });

export const setName = (database: Knex, id: string, name: string): Promise<unknown> =>
  database('account').where({ id }).update({ name });

export const noteSeen = (database: Knex, id: string, last_seen_at: Date): Promise<unknown> =>
  database('account').where({ id }).update({ last_seen_at });

export const deleteAccount = (database: Knex, id: string): Promise<unknown> =>
  database('account').where({ id }).delete();

/** Whether any account has the password that everybody knows. */
export const hasDemoAccounts = async (database: Knex): Promise<boolean> =>
  (await database('account').where({ is_demo: true }).first('id')) !== undefined;

/** Replaces the one-time link for the first account. */
export const replaceFirstAccountLink = (database: Knex, tokenHash: string, expiresAt: Date): Promise<void> =>
  database.transaction(async (trx) => {
    await trx('first_account_link').delete();
    await trx('first_account_link').insert({ token_hash: tokenHash, expires_at: expiresAt });
  });

/** Uses the link up and adds the account: both or neither. False where the link is not valid, or an account exists. */
export const insertFirstAccount = (
  database: Knex,
  tokenHash: string,
  now: Date,
  account: StoredAccount,
): Promise<boolean> =>
  database.transaction(async (trx) => {
    await trx.raw('LOCK TABLE account IN SHARE ROW EXCLUSIVE MODE');
    const used = await trx('first_account_link')
      .where({ token_hash: tokenHash })
      .andWhere('expires_at', '>', now)
      .delete();
    if (used === 0 || (await countAccounts(trx)) > 0) return false;
    await insertAccount(trx, account, false);
    return true;
  });
