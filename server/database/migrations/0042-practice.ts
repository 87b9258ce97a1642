import type { Knex } from 'knex';

/** Which page of a site is for practice. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE site ADD COLUMN practice text');
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE site DROP COLUMN practice');
}
