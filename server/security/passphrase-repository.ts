import type { Knex } from 'knex';
import type { PassphraseId } from '#core/model/access.ts';
import type { SiteKey } from '#core/model/ids.ts';

/** Keeps the hash of a passphrase of a site under a new id. */
export async function insertPassphrase(database: Knex, site: SiteKey, id: PassphraseId, hash: string): Promise<void> {
  await database('passphrase').insert({ site, id, hash });
}

/** The hash of a passphrase; undefined where the site has none of that id. */
export async function passphraseHash(database: Knex, site: SiteKey, id: PassphraseId): Promise<string | undefined> {
  return (await database('passphrase').where({ site, id }).first<{ hash: string } | undefined>('hash'))?.hash;
}

/** Which of these passphrases the site has. */
export const passphrasesThere = (
  database: Knex,
  site: SiteKey,
  ids: readonly PassphraseId[],
): Promise<PassphraseId[]> => database('passphrase').where({ site }).whereIn('id', ids).pluck('id');
