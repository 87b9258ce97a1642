import type { Knex } from 'knex';
import type { FileKind } from '#core/files/file.ts';
import type { SiteKey } from '#core/model/ids.ts';
import { oneOf } from '../database/one-of.ts';

export interface Crawl {
  readonly id: string;
  readonly site: SiteKey;
  readonly start: string;
  readonly most_pages: number;
  readonly pause_ms: number;
  /** The kinds of files that it brings into the library, up to so many bytes. */
  readonly file_kinds: readonly FileKind[];
  readonly largest_file: number;
  readonly state: 'running' | 'stopped' | 'done' | 'failed';
  readonly why: string | null;
  readonly began_at: Date;
  readonly ended_at: Date | null;
}

export interface CrawlCounts {
  readonly read: number;
  readonly waiting: number;
  readonly left: number;
}

export async function insertCrawl(database: Knex, crawl: Omit<Crawl, 'state' | 'why' | 'ended_at'>): Promise<void> {
  await database('crawl').insert({ ...crawl, state: 'running' });
  await addAddresses(database, crawl.id, [crawl.start]);
}

export const crawlAt = (database: Knex, id: string): Promise<Crawl | undefined> =>
  database<Crawl>('crawl').where({ id }).first();

export const latestCrawl = (database: Knex, site: SiteKey): Promise<Crawl | undefined> =>
  database<Crawl>('crawl').where({ site }).orderBy('began_at', 'desc').first();

/** The crawls that were under way when a process ended, or are still. */
export const runningCrawls = (database: Knex): Promise<string[]> =>
  database('crawl').where({ state: 'running' }).pluck('id');

/** Sets how a crawl stands; only from one of these states. Gives whether it did. */
export async function setCrawlState(
  database: Knex,
  id: string,
  from: readonly Crawl['state'][],
  state: Crawl['state'],
  why: string | null,
  at: Date,
): Promise<boolean> {
  const changed = await database('crawl')
    .where({ id })
    .whereIn('state', [...from])
    .update({ state, why, ended_at: state === 'running' ? null : at });
  return changed > 0;
}

/** Adds addresses that were found; those that are known already stay as they are. */
export async function addAddresses(database: Knex, crawl: string, addresses: readonly string[]): Promise<void> {
  if (addresses.length === 0) return;
  await database('crawl_address')
    .insert(addresses.map((address) => ({ crawl, address })))
    .onConflict(['crawl', 'address'])
    .ignore();
}

export async function nextAddress(database: Knex, crawl: string): Promise<string | undefined> {
  const row = await database('crawl_address').where({ crawl, is_done: false }).orderBy('number').first('address');
  return row?.address;
}

export async function markDone(
  database: Knex,
  crawl: string,
  address: string,
  what: { readonly fault: string | null; readonly links: readonly string[] | null },
): Promise<void> {
  await database('crawl_address')
    .where({ crawl, address })
    .update({ is_done: true, fault: what.fault, links: what.links === null ? null : JSON.stringify(what.links) });
}

/** Lets addresses be read again. */
export const reopenAddresses = (database: Knex, crawl: string, addresses: readonly string[]): Promise<number> =>
  database('crawl_address').where({ crawl }).where(oneOf('address', addresses)).update({ is_done: false, fault: null });

export async function countAddresses(database: Knex, crawl: string): Promise<CrawlCounts> {
  const row = await database('crawl_address')
    .where({ crawl })
    .first(
      database.raw('count(*) FILTER (WHERE is_done AND fault IS NULL)::int AS read'),
      database.raw('count(*) FILTER (WHERE NOT is_done)::int AS waiting'),
      database.raw('count(*) FILTER (WHERE fault IS NOT NULL)::int AS left'),
    );
  return row as CrawlCounts;
}

export async function faultOf(database: Knex, crawl: string, address: string): Promise<string | null> {
  const row = await database('crawl_address').where({ crawl, address }).first('fault');
  return row?.fault ?? null;
}

/** What was left out and why, the latest first. */
export const faultsOf = (database: Knex, crawl: string): Promise<{ address: string; fault: string }[]> =>
  database('crawl_address')
    .where({ crawl })
    .whereNotNull('fault')
    .orderBy('number')
    .limit(200)
    .select('address', 'fault');

/** Counts, for every page of the inventory that this crawl has read, the links to it and from it. */
export async function countLinks(database: Knex, site: SiteKey, crawl: string): Promise<void> {
  await database.raw(
    `WITH link AS (
       SELECT source.address AS source, target.value AS target
       FROM crawl_address source, jsonb_array_elements_text(source.links) AS target
       WHERE source.crawl = ? AND source.links IS NOT NULL),
     counted AS (
       SELECT old.address,
         (SELECT count(*) FROM link WHERE link.target = old.address AND link.source <> old.address)::int AS links_in,
         (SELECT count(*) FROM link WHERE link.source = old.address)::int AS links_out
       FROM old_page old JOIN crawl_address one ON one.crawl = ? AND one.address = old.address WHERE old.site = ?)
     UPDATE old_page SET links_in = counted.links_in, links_out = counted.links_out
     FROM counted WHERE old_page.site = ? AND old_page.address = counted.address`,
    [crawl, crawl, site, site],
  );
}

/**
 * Holds the crawl for this process while `work` runs, by a lock that ends with the connection: a process that dies
 * lets go of it. Gives false where another process has it.
 */
export async function holdingCrawl(database: Knex, id: string, work: () => Promise<void>): Promise<boolean> {
  return database.transaction(async (trx) => {
    const { rows } = await trx.raw('SELECT pg_try_advisory_xact_lock(hashtextextended(?, 7337)) AS held', [id]);
    if (!(rows as { held: boolean }[])[0]!.held) return false;
    await work();
    return true;
  });
}
