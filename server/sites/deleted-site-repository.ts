import type { Knex } from 'knex';
import { nanoid } from 'nanoid';
import type { SiteKey } from '#core/model/ids.ts';
import { DAYS_KEPT, type DeletedSite } from '#contract/deleted-sites.ts';
import { RELEASE_CHANNEL, SCHEDULE_CHANNEL, SITE_CHANNEL } from '../database/channels.ts';

/** No site's key begins so: what asks for a site by its key finds none that was deleted. */
export const DELETED = '~';

const DAY_MS = 86_400_000;

/** The name of a site that is there; undefined where there is none. */
export const nameOfSite = async (database: Knex, key: SiteKey): Promise<string | undefined> =>
  (await database('site').where({ key }).whereNull('deleted_at').first('name'))?.name;

/** Puts a site aside, with all that is its own; visitors' processes and workbenches let go of it. Gives the id that it is kept by. */
export async function putSiteAside(database: Knex, key: SiteKey, account: string, now: Date): Promise<string> {
  const id = DELETED + nanoid(16);
  await database.transaction(async (trx) => {
    await trx('site').where({ key }).update({ key: id, deleted_key: key, deleted_at: now, deleted_by: account });
    await tellOf(trx, key);
  });
  return id;
}

/** Puts a site back under a key; false where nothing is kept by that id. SQLSTATE 23505 where the key is taken. */
export async function putSiteBack(database: Knex, id: string, key: SiteKey): Promise<boolean> {
  return database.transaction(async (trx) => {
    const count = await trx('site')
      .where({ key: id })
      .whereNotNull('deleted_at')
      .update({ key, deleted_key: null, deleted_at: null, deleted_by: null });
    await tellOf(trx, key);
    return count > 0;
  });
}

async function tellOf(trx: Knex, key: SiteKey): Promise<void> {
  for (const channel of [SITE_CHANNEL, RELEASE_CHANNEL, SCHEDULE_CHANNEL])
    await trx.raw('SELECT pg_notify(?, ?)', [channel, key]);
}

/** Deletes a site that was put aside for good; false where nothing is kept by that id. */
export const eraseSite = async (database: Knex, id: string): Promise<boolean> =>
  (await database('site').where({ key: id }).whereNotNull('deleted_at').delete()) > 0;

/** Deletes for good what was put aside long enough ago. */
export const eraseOldSites = async (database: Knex, now: Date): Promise<number> =>
  database('site')
    .where('deleted_at', '<', new Date(now.getTime() - DAYS_KEPT * DAY_MS))
    .delete();

/** The sites that were put aside, the latest first. */
export async function listDeletedSites(database: Knex): Promise<DeletedSite[]> {
  const rows = await database('site')
    .leftJoin('account', 'account.id', 'site.deleted_by')
    .whereNotNull('deleted_at')
    .orderBy('deleted_at', 'desc')
    .select('site.key', 'site.name', 'deleted_key', 'deleted_at', 'account.name as deleted_by')
    .select(
      database.raw(
        `(SELECT count(*) FROM node WHERE site = site.key AND removed_with IS NULL AND type = 'page')::int AS pages`,
      ),
    );
  return rows.map((row) => ({
    id: row.key,
    key: row.deleted_key,
    name: row.name,
    pages: row.pages,
    deletedAt: row.deleted_at.toISOString(),
    deletedBy: row.deleted_by,
    keptUntil: new Date(row.deleted_at.getTime() + DAYS_KEPT * DAY_MS).toISOString(),
  }));
}
