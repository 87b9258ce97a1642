import type { Knex } from 'knex';

/** The files of the old site that a library has: their former addresses lead to them. A crawl says which it brings, and up to which size. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE old_file (
      site text NOT NULL,
      path text NOT NULL,
      file text NOT NULL,
      PRIMARY KEY (site, path),
      FOREIGN KEY (site, file) REFERENCES file (site, id) ON UPDATE CASCADE ON DELETE CASCADE
    );
    ALTER TABLE crawl ADD COLUMN file_kinds text[] NOT NULL DEFAULT '{}', ADD COLUMN largest_file integer NOT NULL DEFAULT 0;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP TABLE old_file;
    ALTER TABLE crawl DROP COLUMN file_kinds, DROP COLUMN largest_file;
  `);
}
