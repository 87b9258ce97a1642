import { createHash } from 'node:crypto';
import type { Pool } from '../database/connect.ts';

/** So long a place counts as one from which an account was signed in to. */
const LIVES = '180 days';

// Kept as hashes: the table is not to say who signs in from where.
const hashOf = (accountAndPlace: string): string => createHash('sha256').update(accountAndPlace).digest('hex');

/** Whether an account was signed in to from a place before. */
export async function isFamiliar(pool: Pool, accountAndPlace: string): Promise<boolean> {
  const { rowCount } = await pool.query(
    `SELECT 1 FROM familiar_place WHERE hash = $1 AND at > now() - interval '${LIVES}'`,
    [hashOf(accountAndPlace)],
  );
  return (rowCount ?? 0) > 0;
}

/** Notes that an account was signed in to from a place, and drops what is too long ago. */
export async function rememberFamiliar(pool: Pool, accountAndPlace: string): Promise<void> {
  await pool.query(`DELETE FROM familiar_place WHERE at < now() - interval '${LIVES}'`);
  await pool.query(
    'INSERT INTO familiar_place (hash, at) VALUES ($1, now()) ON CONFLICT (hash) DO UPDATE SET at = excluded.at',
    [hashOf(accountAndPlace)],
  );
}
