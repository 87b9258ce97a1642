import knex, { type Knex } from 'knex';
import pg from 'pg';

export type Pool = pg.Pool;
/** The database, as it is handed on to repositories: they alone ask it something, which the lints hold. */
export type Database = Knex;

/** @throws where the database does not answer */
export const isThere = async (database: Database): Promise<void> => void (await database.raw('SELECT 1'));

// Revisions are counted far below 2^53.
pg.types.setTypeParser(pg.types.builtins.INT8, Number);

export const connect = (url: string): Database =>
  knex({ client: 'pg', connection: url, pool: { min: 1, max: 10 }, acquireConnectionTimeout: 15_000 });

/** A standby to read from: what it does not answer soon the primary does, so that nobody waits for it long. */
export const connectStandby = (url: string): Database =>
  knex({
    client: 'pg',
    connection: { connectionString: url, connectionTimeoutMillis: 1000, query_timeout: 5000 },
    pool: { min: 1, max: 10 },
    acquireConnectionTimeout: 2000,
    // Whoever reads from it says once that it is away; Knex would say so of each try.
    log: { warn: () => undefined, error: () => undefined },
  });

/** A pool beside Knex's, for packages that bring their own statements: sessions and the limits of attempts. */
export function connectPool(url: string): pg.Pool {
  const pool = new pg.Pool({ connectionString: url, max: 6 });
  // An idle connection that breaks is replaced by the next use; without a listener it would end the process.
  pool.on('error', () => undefined);
  return pool;
}
