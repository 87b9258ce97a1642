import type pg from 'pg';
import type { Knex } from 'knex';
import { SESSION_CHANNEL } from '../database/channels.ts';

/** Tells the other processes that a session ended. */
export const tellSessionEnded = (pool: pg.Pool, id: string): Promise<unknown> =>
  pool.query('SELECT pg_notify($1, $2)', [SESSION_CHANNEL, id]);

/** A session that is kept, with what it says of where it was begun. */
export interface StoredSession {
  readonly id: string;
  readonly since: string | null;
  readonly browser: string;
}

/** The sessions of an account that have not run out, the latest first. */
export async function sessionsOf(database: Knex, account: string, now: Date): Promise<StoredSession[]> {
  const rows = await database('session')
    .whereRaw(`sess -> 'account' ->> 'id' = ?`, [account])
    .andWhere('expire', '>', now)
    .orderBy('expire', 'desc')
    .select('sid', database.raw(`sess ->> 'since' AS since`), database.raw(`sess ->> 'browser' AS browser`));
  return rows.map((row) => ({ id: row.sid, since: row.since, browser: row.browser ?? '' }));
}
