import type { Knex } from 'knex';
import type { Starter } from '#core/starters/starter-file.ts';

export interface KeptStarter {
  readonly id: string;
  readonly file: Starter;
}

/** The starters that were saved or brought, by name. */
export const keptStarters = (database: Knex): Promise<KeptStarter[]> =>
  database('starter').orderBy('name').orderBy('id').select('id', 'file');

export const countStarters = async (database: Knex): Promise<number> =>
  Number((await database('starter').count('* as count').first())?.count ?? 0);

export async function insertStarter(
  database: Knex,
  { id, file }: KeptStarter,
  account: string,
  at: Date,
): Promise<void> {
  await database('starter').insert({ id, name: file.name, file: JSON.stringify(file), made_by: account, made_at: at });
}

/** Gives whether there was one. */
export const deleteStarter = async (database: Knex, id: string): Promise<boolean> =>
  (await database('starter').where({ id }).delete()) > 0;
