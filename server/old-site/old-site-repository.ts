import type { Knex } from 'knex';
import type { OldPage } from '#core/carryover/inventory.ts';
import type { SiteKey } from '#core/model/ids.ts';
import { oneOf } from '../database/one-of.ts';

interface OldPageRow {
  address: string;
  title: string;
  description: string;
  headings: string[];
  words: number | null;
  links_in: number | null;
  links_out: number | null;
  status: number | null;
  visits: number | null;
  text: string;
}

/** The inventory of the old site in the order of addresses, and the number of its latest change. */
export async function loadOldSite(
  database: Knex,
  site: SiteKey,
): Promise<{ pages: OldPage[]; version: number } | undefined> {
  const row = await database('site').where({ key: site }).first('old_site_version');
  if (!row) return undefined;
  const rows = (await database('old_page').where({ site }).orderByRaw('address COLLATE "C"')) as OldPageRow[];
  return {
    version: Number(row.old_site_version),
    pages: rows.map((one) => ({
      address: one.address,
      title: one.title,
      description: one.description,
      headings: one.headings,
      words: one.words,
      linksIn: one.links_in,
      linksOut: one.links_out,
      status: one.status,
      visits: one.visits === null ? null : Number(one.visits),
      text: one.text,
    })),
  };
}

/** What is known of one page of the old site. */
export const oldPageAt = (database: Knex, site: SiteKey, address: string): Promise<{ title: string } | undefined> =>
  database('old_page').where({ site, address }).first('title');

export const oldSiteVersion = async (database: Knex, site: SiteKey): Promise<number> =>
  Number((await database('site').where({ key: site }).first('old_site_version'))?.old_site_version ?? 0);

/** Counts a change of the inventory. */
export const countOldSiteChange = (database: Knex, site: SiteKey): Promise<number> =>
  database('site').where({ key: site }).increment('old_site_version', 1);

/**
 * Adds pages to the inventory. Of a page that is there already, what is known now takes the place of what was known, and
 * what is not known now is kept.
 */
export async function putOldPages(database: Knex, site: SiteKey, pages: readonly OldPage[]): Promise<void> {
  if (pages.length === 0) return;
  const rows = pages.map((page) => ({
    address: page.address,
    title: storable(page.title),
    description: storable(page.description),
    headings: page.headings.map(storable),
    words: page.words,
    links_in: page.linksIn,
    links_out: page.linksOut,
    status: page.status,
    visits: page.visits,
    text: storable(page.text),
  }));
  await database.raw(
    `INSERT INTO old_page AS known (site, address, title, description, headings, words, links_in, links_out, status, visits, text)
     SELECT ?, r.* FROM jsonb_to_recordset(?::jsonb) AS r (address text, title text, description text, headings jsonb,
       words integer, links_in integer, links_out integer, status integer, visits bigint, text text)
     ON CONFLICT (site, address) DO UPDATE SET
       title = coalesce(nullif(excluded.title, ''), known.title),
       description = coalesce(nullif(excluded.description, ''), known.description),
       headings = CASE WHEN excluded.headings = '[]' THEN known.headings ELSE excluded.headings END,
       words = coalesce(excluded.words, known.words),
       links_in = coalesce(excluded.links_in, known.links_in),
       links_out = coalesce(excluded.links_out, known.links_out),
       status = coalesce(excluded.status, known.status),
       visits = coalesce(excluded.visits, known.visits),
       text = coalesce(nullif(excluded.text, ''), known.text)`,
    [site, JSON.stringify(rows)],
  );
}

/** A text without what PostgreSQL does not take: control signs, and halves of letters that were cut. */
const storable = (text: string): string => text.replace(/[\p{Cc}\p{Surrogate}]/gu, ' ');

/** Takes pages out of the inventory: these, or all. */
export async function removeOldPages(
  database: Knex,
  site: SiteKey,
  addresses: readonly string[] | null,
): Promise<number> {
  const query = database('old_page').where({ site });
  if (addresses !== null) void query.where(oneOf('address', addresses));
  return query.delete();
}

export const countOldPages = async (database: Knex, site: SiteKey): Promise<number> =>
  Number((await database('old_page').where({ site }).count('* as count').first())?.count ?? 0);

export const oldAddressesThere = (database: Knex, site: SiteKey): Promise<string[]> =>
  database('old_page').where({ site }).pluck('address');
