import type { Knex } from 'knex';

/**
 * Up to where a database is written, in memory at least: all that was committed before this call lies before it (`pg_lsn`), also
 * where commits are not waited for until they are on the disk.
 */
export async function positionOf(primary: Knex): Promise<string> {
  const { rows } = await primary.raw<{ rows: [{ position: string }] }>(
    'SELECT pg_current_wal_insert_lsn()::text AS position',
  );
  return rows[0].position;
}

/** Whether a standby shows all that lies before a position of its primary. One that follows nobody, as after it took over, never does. */
export async function hasReached(standby: Knex, position: string): Promise<boolean> {
  const { rows } = await standby.raw<{ rows: [{ reached: boolean | null }] }>(
    'SELECT pg_is_in_recovery() AND pg_last_wal_replay_lsn() >= ?::pg_lsn AS reached',
    [position],
  );
  return rows[0].reached === true;
}
