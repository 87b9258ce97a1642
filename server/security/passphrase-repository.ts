import type { Knex } from 'knex';
import type { PassphraseId } from '#core/model/access.ts';

/** Keeps the hash of a passphrase under a new id. */
export async function insertPassphrase(database: Knex, id: PassphraseId, hash: string): Promise<void> {
  await database('passphrase').insert({ id, hash });
}

/** The hash of a passphrase; undefined where this installation has none of that id. */
export async function passphraseHash(database: Knex, id: PassphraseId): Promise<string | undefined> {
  return (await database('passphrase').where({ id }).first<{ hash: string } | undefined>('hash'))?.hash;
}
