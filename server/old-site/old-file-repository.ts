import type { Knex } from 'knex';
import { pathOfOldAddress } from '#core/carryover/old-address.ts';
import type { FileId } from '#core/files/file.ts';
import type { SiteKey } from '#core/model/ids.ts';
import { RELEASE_CHANNEL } from '../database/channels.ts';

/** Has an address of the old site lead to a file from now on. */
export async function putOldFile(database: Knex, site: SiteKey, address: string, file: FileId): Promise<void> {
  await database('old_file')
    .insert({ site, path: pathOfOldAddress(address), file })
    .onConflict(['site', 'path'])
    .merge(['file']);
  await database.raw('SELECT pg_notify(?, ?)', [RELEASE_CHANNEL, site]);
}
