import type { Knex } from 'knex';

/** Accounts of visitors that come from the organisation's directory, what a site takes from it, and a stand-in for one. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE visitor ADD COLUMN directory_id text, ADD COLUMN directory_audiences text[] NOT NULL DEFAULT '{}',
      ADD COLUMN has_left boolean NOT NULL DEFAULT false;
    CREATE UNIQUE INDEX visitor_of_directory ON visitor (site, directory_id);

    CREATE TABLE site_directory (
      site text PRIMARY KEY REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      group_audiences jsonb NOT NULL DEFAULT '{}',
      is_nightly boolean NOT NULL DEFAULT false,
      last jsonb
    );

    CREATE TABLE standin_group (id text PRIMARY KEY, name text NOT NULL);
    CREATE TABLE standin_person (
      id text PRIMARY KEY,
      name text NOT NULL,
      email text NOT NULL,
      is_active boolean NOT NULL DEFAULT true,
      groups text[] NOT NULL DEFAULT '{}'
    );
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP TABLE standin_person, standin_group, site_directory;
    ALTER TABLE visitor DROP COLUMN directory_id, DROP COLUMN directory_audiences, DROP COLUMN has_left;
  `);
}
