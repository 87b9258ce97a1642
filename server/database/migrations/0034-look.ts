import type { Knex } from 'knex';

/** How a site appears; null until somebody decides. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE site ADD COLUMN look jsonb, ADD COLUMN live_look jsonb');
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE site DROP COLUMN look, DROP COLUMN live_look');
}
