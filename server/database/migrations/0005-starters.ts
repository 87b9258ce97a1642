import type { Knex } from 'knex';

/** Starters that people have saved or brought; those that Spur ships stand in its code. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE starter (
      id uuid PRIMARY KEY,
      name text NOT NULL,
      file jsonb NOT NULL,
      made_by uuid REFERENCES account (id) ON DELETE SET NULL,
      made_at timestamptz NOT NULL
    );
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DROP TABLE starter');
}
