import type { Knex } from 'knex';
import type { SiteKey } from '#core/model/ids.ts';
import type { Miss } from './visits.ts';

/** So many addresses asked for in vain are kept of a site; those asked for longest ago make room. */
const MAX_MISSED = 2_000;

/** Adds hits of redirects. A site that is gone meanwhile counts nothing. */
export async function addHits(
  database: Knex,
  site: SiteKey,
  paths: ReadonlyMap<string, number>,
  at: Date,
): Promise<void> {
  const rows = [...paths].map(([path, hits]) => ({ path, hits }));
  await database.raw(
    `INSERT INTO redirect_hit (site, path, hits, last_at)
     SELECT site.key, r.path, r.hits, ?::timestamptz FROM site, jsonb_to_recordset(?::jsonb) AS r (path text, hits bigint) WHERE site.key = ?
     ON CONFLICT (site, path) DO UPDATE SET hits = redirect_hit.hits + excluded.hits, last_at = excluded.last_at`,
    [at, JSON.stringify(rows), site],
  );
}

/** Adds addresses that were asked for in vain. */
export async function addMisses(
  database: Knex,
  site: SiteKey,
  paths: ReadonlyMap<string, Miss>,
  at: Date,
): Promise<void> {
  const rows = [...paths].map(([path, { count, from }]) => ({ path, hits: count, from_path: from }));
  await database.raw(
    `INSERT INTO missed_address (site, path, hits, first_at, last_at, from_path)
     SELECT site.key, r.path, r.hits, ?::timestamptz, ?::timestamptz, r.from_path
     FROM site, jsonb_to_recordset(?::jsonb) AS r (path text, hits bigint, from_path text) WHERE site.key = ?
     ON CONFLICT (site, path) DO UPDATE SET hits = missed_address.hits + excluded.hits, last_at = excluded.last_at,
       from_path = coalesce(excluded.from_path, missed_address.from_path)`,
    [at, at, JSON.stringify(rows), site],
  );
  await database.raw(
    `DELETE FROM missed_address WHERE site = ? AND path IN
       (SELECT path FROM missed_address WHERE site = ? ORDER BY last_at DESC, path OFFSET ?)`,
    [site, site, MAX_MISSED],
  );
}
