import type { Knex } from 'knex';

/** The account that belongs to somebody at a provider; undefined where none does yet. */
export const accountOfIdentity = async (database: Knex, issuer: string, subject: string): Promise<string | undefined> =>
  (await database('account_identity').where({ issuer, subject }).first('account'))?.account;

/** Notes that somebody at a provider is an account here. What is noted already stays. */
export const putIdentity = (
  database: Knex,
  identity: { readonly issuer: string; readonly subject: string; readonly account: string; readonly since: Date },
): Promise<unknown> => database('account_identity').insert(identity).onConflict(['issuer', 'subject']).ignore();
