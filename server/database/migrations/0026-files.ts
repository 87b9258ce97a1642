import type { Knex } from 'knex';

/**
 * The library of a site: what its files are. Their bytes lie in the store, named by `content`. A file that was replaced keeps its id;
 * `file_content` has every content that it ever had, so that old addresses lead on. Texts say which files they show.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE file (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      id text NOT NULL,
      name text NOT NULL,
      type text NOT NULL,
      content text NOT NULL,
      bytes bigint NOT NULL,
      width integer,
      height integer,
      pages integer,
      has_picture boolean NOT NULL DEFAULT false,
      focal_x real NOT NULL DEFAULT 0.5,
      focal_y real NOT NULL DEFAULT 0.5,
      alternative text NOT NULL DEFAULT '',
      is_decoration boolean NOT NULL DEFAULT false,
      state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'ready', 'faulty')),
      fault text,
      added_at timestamptz NOT NULL,
      added_by uuid REFERENCES account (id) ON DELETE SET NULL,
      removed_at timestamptz,
      PRIMARY KEY (site, id)
    );
    CREATE INDEX file_by_content ON file (site, content);
    CREATE INDEX file_waiting ON file (added_at) WHERE state = 'waiting';
    CREATE TABLE file_content (
      site text NOT NULL,
      content text NOT NULL,
      file text NOT NULL,
      PRIMARY KEY (site, content),
      FOREIGN KEY (site, file) REFERENCES file (site, id) ON UPDATE CASCADE ON DELETE CASCADE
    );
    ALTER TABLE content ADD COLUMN files text[] NOT NULL DEFAULT '{}';
    CREATE INDEX content_files ON content USING gin (files) WHERE files <> '{}';
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP INDEX content_files;
    ALTER TABLE content DROP COLUMN files;
    DROP TABLE file_content;
    DROP TABLE file;
  `);
}
