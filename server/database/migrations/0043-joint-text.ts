import type { Knex } from 'knex';

/** The texts that people write in together, as shared documents: what the page has of each, and what was written since. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE joint_text (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      page text NOT NULL,
      -- Each beginning of a document is another one.
      begun uuid NOT NULL,
      -- The text that the document began from, by its id; '' for a page without one.
      base text NOT NULL,
      -- The text that the page has of it, the document as it was then, and the number of its last update.
      content text NOT NULL,
      state bytea NOT NULL,
      saved_seq bigint NOT NULL DEFAULT 0,
      seq bigint NOT NULL DEFAULT 0,
      -- How many bytes of updates have come since.
      bytes bigint NOT NULL DEFAULT 0,
      -- The revision of the site since which the page may have been given another text.
      saved_revision bigint NOT NULL,
      written_at timestamptz NOT NULL,
      PRIMARY KEY (site, page)
    );
    CREATE INDEX joint_text_unsaved ON joint_text (written_at) WHERE seq > saved_seq;
    CREATE TABLE joint_update (
      site text NOT NULL,
      page text NOT NULL,
      seq bigint NOT NULL,
      update bytea NOT NULL,
      -- Who wrote it; null for what Spur took over from the page.
      account uuid REFERENCES account (id) ON DELETE SET NULL,
      PRIMARY KEY (site, page, seq),
      FOREIGN KEY (site, page) REFERENCES joint_text ON UPDATE CASCADE ON DELETE CASCADE
    );
    -- Who else wrote what an edit saved.
    ALTER TABLE edit_log ADD COLUMN beside uuid[];
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE edit_log DROP COLUMN beside; DROP TABLE joint_update, joint_text;');
}
