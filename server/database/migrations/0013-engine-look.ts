import type { Knex } from 'knex';

/** How a search engine's robot saw each live site the last time, or how far it is. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE engine_look (
      site text PRIMARY KEY REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      id uuid NOT NULL,
      state text NOT NULL CHECK (state IN ('running', 'stopped', 'failed', 'done')),
      addresses_read integer NOT NULL DEFAULT 0,
      addresses_known integer NOT NULL DEFAULT 0,
      report jsonb,
      told_at timestamptz NOT NULL
    );
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DROP TABLE engine_look');
}
