import type { Knex } from 'knex';
import type { AudienceId } from '#core/model/audience.ts';
import type { SiteKey } from '#core/model/ids.ts';
import { VISITOR_CHANNEL } from '../database/channels.ts';

/** A visitor's account as it is kept. */
export interface Visitor {
  readonly id: string;
  readonly site: SiteKey;
  readonly name: string;
  readonly email: string;
  readonly password_hash: string;
  readonly audiences: AudienceId[];
  /** The audiences that they want to join, once somebody lets them in. */
  readonly asked_for: AudienceId[];
  readonly is_suspended: boolean;
  readonly made_at: Date;
  readonly last_sign_in_at: Date | null;
  /** Who it is in the organisation's directory, and what that gave; null, and nothing, where it came about otherwise. */
  readonly directory_id: string | null;
  readonly directory_audiences: AudienceId[];
  /** Whether it is suspended because the directory has it no more. */
  readonly has_left: boolean;
}

type NewVisitor = Pick<
  Visitor,
  'id' | 'site' | 'name' | 'email' | 'password_hash' | 'audiences' | 'is_suspended' | 'made_at'
>;

/** The visitors of a site, by name. */
export const visitorsOf = (database: Knex, site: SiteKey): Promise<Visitor[]> =>
  database<Visitor>('visitor').where({ site }).orderByRaw('lower(name), id') as unknown as Promise<Visitor[]>;

export const visitorByEmail = (database: Knex, site: SiteKey, email: string): Promise<Visitor | undefined> =>
  database<Visitor>('visitor').where({ site }).whereRaw('lower(email) = lower(?)', [email]).first();

/** Gives whether the mail address was free. */
export async function insertVisitor(
  database: Knex,
  visitor: NewVisitor & Partial<Pick<Visitor, 'asked_for'>>,
): Promise<boolean> {
  const made = await database('visitor').insert(visitor).onConflict().ignore().returning('id');
  return made.length > 0;
}

/** Sets fields of a visitor, and tells the processes that answer visitors. A suspension signs them out. Gives whether there is one. */
export async function updateVisitor(
  database: Knex,
  site: SiteKey,
  id: string,
  fields: Partial<Pick<Visitor, 'name' | 'audiences' | 'asked_for' | 'is_suspended'>>,
): Promise<boolean> {
  // What is said of a suspension by hand is not the directory's any more.
  const changed = await database('visitor')
    .where({ site, id })
    .update({ ...fields, ...(fields.is_suspended !== undefined && { has_left: false }) });
  if (changed > 0 && fields.is_suspended) await endSessionsOf(database, id);
  await database.raw('SELECT pg_notify(?, ?)', [VISITOR_CHANNEL, id]);
  return changed > 0;
}

/** Signs a visitor out wherever they were signed in. */
export const endSessionsOf = (database: Knex, visitor: string): Promise<number> =>
  database('visitor_session').where({ visitor }).delete();

/** Sets a password, ends wherever the visitor was signed in, and tells the processes that answer visitors. */
export async function setPasswordOf(database: Knex, id: string, password_hash: string): Promise<void> {
  await database('visitor').where({ id }).update({ password_hash });
  await endSessionsOf(database, id);
  await database.raw('SELECT pg_notify(?, ?)', [VISITOR_CHANNEL, id]);
}

/** Removes an account with where it is signed in, and tells the processes that answer visitors. */
export async function deleteVisitor(database: Knex, site: SiteKey, id: string): Promise<boolean> {
  const deleted = await database('visitor').where({ site, id }).delete();
  await database.raw('SELECT pg_notify(?, ?)', [VISITOR_CHANNEL, id]);
  return deleted > 0;
}

export async function insertVisitorSession(
  database: Knex,
  session: { readonly token_hash: string; readonly visitor: string; readonly expires_at: Date },
  at: Date,
): Promise<void> {
  await database.transaction(async (trx) => {
    await trx('visitor_session').where({ visitor: session.visitor }).where('expires_at', '<', at).delete();
    await trx('visitor_session').insert(session);
    await trx('visitor').where({ id: session.visitor }).update({ last_sign_in_at: at });
  });
}

export const deleteVisitorSession = async (database: Knex, tokenHash: string): Promise<void> => {
  await database('visitor_session').where({ token_hash: tokenHash }).delete();
};

/** Who is signed in by a token, where the session has not run out and the account is not suspended. */
export async function signedInVisitor(
  database: Knex,
  tokenHash: string,
  at: Date,
): Promise<{ visitor: string; site: SiteKey; audiences: AudienceId[]; expires_at: Date } | undefined> {
  return database('visitor_session as session')
    .join('visitor', 'visitor.id', 'session.visitor')
    .where({ token_hash: tokenHash, is_suspended: false })
    .where('session.expires_at', '>', at)
    .first('session.visitor', 'visitor.site', 'visitor.audiences', 'session.expires_at');
}
