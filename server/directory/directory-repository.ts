import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import type { SiteKey } from '#core/model/ids.ts';
import type { GroupAudiences, SyncItem, SyncedAccount } from '#core/visitors/directory-sync.ts';
import type { LastSync } from '#contract/directory.ts';
import { DELETED } from '../sites/deleted-site-repository.ts';
import { VISITOR_CHANNEL } from '../database/channels.ts';
import { endSessionsOf } from '../visitors/visitor-repository.ts';
import { visitorsOf } from '../visitors/visitor-repository.ts';

/** What a site takes from the directory. */
export interface SiteDirectory {
  readonly groupAudiences: GroupAudiences;
  readonly isNightly: boolean;
  readonly last: LastSync | null;
}

const NOTHING: SiteDirectory = { groupAudiences: {}, isNightly: false, last: null };

export async function siteDirectory(database: Knex, site: SiteKey): Promise<SiteDirectory> {
  const row = await database('site_directory').where({ site }).first();
  return row ? { groupAudiences: row.group_audiences, isNightly: row.is_nightly, last: row.last } : NOTHING;
}

export async function putSiteDirectory(
  database: Knex,
  site: SiteKey,
  { groupAudiences, isNightly }: Pick<SiteDirectory, 'groupAudiences' | 'isNightly'>,
): Promise<void> {
  const row = { site, group_audiences: JSON.stringify(groupAudiences), is_nightly: isNightly };
  await database('site_directory').insert(row).onConflict('site').merge(['group_audiences', 'is_nightly']);
}

export async function putLastSync(database: Knex, site: SiteKey, last: LastSync): Promise<void> {
  await database('site_directory')
    .insert({ site, last: JSON.stringify(last) })
    .onConflict('site')
    .merge(['last']);
}

/** The sites that are synchronised at night. */
export const nightlySites = (database: Knex): Promise<SiteKey[]> =>
  database('site_directory')
    .where({ is_nightly: true })
    .whereNot('site', 'like', `${DELETED}%`)
    .orderBy('site')
    .pluck('site');

/** The accounts of a site as a synchronisation looks at them. */
export const syncedAccounts = async (database: Knex, site: SiteKey): Promise<SyncedAccount[]> =>
  (await visitorsOf(database, site)).map((one) => ({
    id: one.id,
    name: one.name,
    email: one.email,
    audiences: one.audiences,
    isSuspended: one.is_suspended,
    directoryId: one.directory_id,
    directoryAudiences: one.directory_audiences,
    hasLeft: one.has_left,
  }));

/** One synchronisation of a site at a time: waits for another one to end. */
export const lockSync = async (trx: Knex, site: SiteKey): Promise<void> => {
  await trx.raw(`SELECT pg_advisory_xact_lock(hashtext('directory ' || ?))`, [site]);
};

/** Does what a synchronisation does, account by account, and tells the processes that answer visitors. */
export async function applySync(
  trx: Knex,
  site: SiteKey,
  items: readonly SyncItem[],
  passwordHash: string,
  at: Date,
): Promise<void> {
  for (const { account, after } of items) {
    if (after === null) continue;
    const fields = {
      name: after.name,
      email: after.email,
      audiences: [...after.audiences],
      is_suspended: after.isSuspended,
      directory_id: after.directoryId,
      directory_audiences: [...after.directoryAudiences],
      has_left: after.hasLeft,
    };
    if (account === null)
      await trx('visitor').insert({ ...fields, id: randomUUID(), site, password_hash: passwordHash, made_at: at });
    else {
      await trx('visitor').where({ site, id: account }).update(fields);
      if (after.isSuspended) await endSessionsOf(trx, account);
      await trx.raw('SELECT pg_notify(?, ?)', [VISITOR_CHANNEL, account]);
    }
  }
}
