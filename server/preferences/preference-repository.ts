import type { Knex } from 'knex';

export const PREFERENCE_NAME = /^[a-z0-9][a-z0-9.-]{0,59}$/;
/** At most so many settings a person; the oldest names stay. */
const MAX_PREFERENCES = 200;

/** A person's settings, by their names. */
export async function preferencesOf(database: Knex, account: string): Promise<Record<string, unknown>> {
  const rows = await database('preference').where({ account }).limit(MAX_PREFERENCES).select('name', 'value');
  return Object.fromEntries(rows.map((row) => [row.name, row.value]));
}

/** Sets one of a person's settings; `null` takes it away. */
export async function setPreference(database: Knex, account: string, name: string, value: unknown): Promise<void> {
  if (value === null) await database('preference').where({ account, name }).delete();
  else
    await database('preference')
      .insert({ account, name, value: JSON.stringify(value) })
      .onConflict(['account', 'name'])
      .merge();
}
