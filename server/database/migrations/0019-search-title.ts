import type { Knex } from 'knex';

const TABLES = ['node', 'live_node'];

/** The title that search engines show, by language, where it is another one than the page's. */
export async function up(knex: Knex): Promise<void> {
  for (const table of TABLES)
    await knex.raw(`ALTER TABLE ?? ADD COLUMN search_title jsonb NOT NULL DEFAULT '{}'`, table);
}

export async function down(knex: Knex): Promise<void> {
  for (const table of TABLES) await knex.raw('ALTER TABLE ?? DROP COLUMN search_title', table);
}
