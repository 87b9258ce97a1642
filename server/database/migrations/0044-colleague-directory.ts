import type { Knex } from 'knex';

/** Colleagues who come from the organisation's directory, and what a site takes from it for them. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE colleague ADD COLUMN directory_id text, ADD COLUMN has_left boolean NOT NULL DEFAULT false;
    CREATE UNIQUE INDEX colleague_of_directory ON colleague (site, directory_id);
    ALTER TABLE colleague_role ADD COLUMN is_from_directory boolean NOT NULL DEFAULT false;

    CREATE TABLE colleague_directory (
      site text PRIMARY KEY REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      group_roles jsonb NOT NULL DEFAULT '[]',
      is_nightly boolean NOT NULL DEFAULT false,
      last jsonb
    );
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP TABLE colleague_directory;
    ALTER TABLE colleague_role DROP COLUMN is_from_directory;
    ALTER TABLE colleague DROP COLUMN directory_id, DROP COLUMN has_left;
  `);
}
