import { randomBytes } from 'node:crypto';
import type { Knex } from 'knex';

/** The secret that signs session cookies: made once, kept in the database, the same for every process. */
export async function sessionSecret(database: Knex): Promise<string> {
  await database('installation')
    .insert({ name: 'session-secret', value: randomBytes(32).toString('base64url') })
    .onConflict('name')
    .ignore();
  const row = await database('installation').where({ name: 'session-secret' }).first('value');
  return row.value;
}
