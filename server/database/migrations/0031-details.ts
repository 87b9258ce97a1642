import type { Knex } from 'knex';

/** What pages say in the fields of their kind. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE node ADD COLUMN details jsonb;
    ALTER TABLE live_node ADD COLUMN details jsonb;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE node DROP COLUMN details;
    ALTER TABLE live_node DROP COLUMN details;
  `);
}
