import type { Knex } from 'knex';
import type { Account, Role } from '#contract/api.ts';

export interface StoredAccount extends Account {
  readonly passwordHash: string;
}

export async function accountByEmail(database: Knex, email: string): Promise<StoredAccount | undefined> {
  const row = await database('account').whereRaw('lower(email) = lower(?)', [email]).first();
  return (
    row && { id: row.id, name: row.name, email: row.email, role: row.role as Role, passwordHash: row.password_hash }
  );
}

export async function accountById(database: Knex, id: string): Promise<Account | undefined> {
  return database('account').where({ id }).first('id', 'name', 'email', 'role');
}

/** Adds an account. SQLSTATE 23505 where the mail address has one. */
/** The manager whose account was made first; undefined where there is none. */
export const firstManager = (database: Knex): Promise<Account | undefined> =>
  database('account').where({ role: 'manager' }).orderBy('created_at').first('id', 'name', 'email', 'role');

export const insertAccount = (database: Knex, account: StoredAccount, isDemo: boolean): Promise<unknown> =>
  database('account').insert({
    id: account.id,
    name: account.name,
    email: account.email,
    role: account.role,
    password_hash: account.passwordHash,
    is_demo: isDemo,
  });

export const countAccounts = async (database: Knex): Promise<number> =>
  Number((await database('account').count('* as count').first())?.count ?? 0);

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
