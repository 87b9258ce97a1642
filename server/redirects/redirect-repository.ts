import type { Knex } from 'knex';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { MissedAddress } from '#contract/releases.ts';

/** What the visitors' addresses that no page has are looked up in, with when each came, and how often it was met. */
export interface StoredAddresses {
  readonly former: ReadonlyMap<string, { page: PageId; since: Date }>;
  readonly ofOldSite: ReadonlyMap<string, PageId | null>;
  readonly hits: ReadonlyMap<string, { hits: number; last: Date }>;
}

export async function storedAddresses(database: Knex, site: SiteKey): Promise<StoredAddresses> {
  const former = await database('former_address').where({ site }).select('path', 'page', 'since');
  const ofOldSite = await database('live_redirect').where({ site }).select('path', 'page');
  const hits = await database('redirect_hit').where({ site }).select('path', 'hits', 'last_at');
  return {
    former: new Map(former.map((row) => [row.path, { page: row.page, since: row.since }])),
    ofOldSite: new Map(ofOldSite.map((row) => [row.path, row.page])),
    hits: new Map(hits.map((row) => [row.path, { hits: row.hits, last: row.last_at }])),
  };
}

/** The addresses that were asked for in vain, those asked for most first. */
export async function missedAddresses(database: Knex, site: SiteKey): Promise<MissedAddress[]> {
  const rows = await database('missed_address')
    .where({ site })
    .orderBy([
      { column: 'hits', order: 'desc' },
      { column: 'last_at', order: 'desc' },
    ])
    .limit(500);
  return rows.map((row) => ({
    path: row.path,
    hits: row.hits,
    firstAt: row.first_at.toISOString(),
    lastAt: row.last_at.toISOString(),
    from: row.from_path,
    isLetBe: row.is_let_be,
  }));
}

export const letMissedBe = async (database: Knex, site: SiteKey, path: string, isLetBe: boolean): Promise<void> =>
  void (await database('missed_address').where({ site, path }).update({ is_let_be: isLetBe }));
