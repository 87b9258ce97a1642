import type { Knex } from 'knex';

/** What of somebody's pages was found lacking when the last daily mail went out, so that nothing is told every day. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`ALTER TABLE daily_mail ADD COLUMN findings text[] NOT NULL DEFAULT '{}'`);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`ALTER TABLE daily_mail DROP COLUMN findings`);
}
