import type pg from 'pg';

/** Told when a session ended: its id. */
export const SESSION_CHANNEL = 'spur_session';

/** Tells the other processes that a session ended. */
export const tellSessionEnded = (pool: pg.Pool, id: string): Promise<unknown> =>
  pool.query('SELECT pg_notify($1, $2)', [SESSION_CHANNEL, id]);
