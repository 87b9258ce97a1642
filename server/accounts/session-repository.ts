import type pg from 'pg';
import { SESSION_CHANNEL } from '../database/channels.ts';

/** Tells the other processes that a session ended. */
export const tellSessionEnded = (pool: pg.Pool, id: string): Promise<unknown> =>
  pool.query('SELECT pg_notify($1, $2)', [SESSION_CHANNEL, id]);
