import type { Knex } from 'knex';

/** The revision whose tree an edit went back to: what lies between need not be gone through again. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE edit_log ADD COLUMN went_back_to bigint');
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE edit_log DROP COLUMN went_back_to');
}
