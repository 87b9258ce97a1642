import type { Knex } from 'knex';

/** What colleagues say of pages, what they follow, what concerns each of them, and how they hear of it by mail. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE thread (
      id uuid PRIMARY KEY,
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      page text NOT NULL,
      about jsonb,
      made_at timestamptz NOT NULL,
      settled_by text,
      settled_at timestamptz
    );
    CREATE INDEX thread_of ON thread (site, page);
    CREATE TABLE thread_comment (
      id uuid PRIMARY KEY,
      thread uuid NOT NULL REFERENCES thread (id) ON DELETE CASCADE,
      account uuid REFERENCES account (id) ON DELETE SET NULL,
      -- The name as it was, since comments outlive accounts.
      by_name text NOT NULL,
      text text NOT NULL,
      made_at timestamptz NOT NULL,
      edited_at timestamptz
    );
    CREATE INDEX thread_comment_of ON thread_comment (thread, made_at);

    CREATE TABLE follow (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      account uuid NOT NULL REFERENCES account (id) ON DELETE CASCADE,
      page text NOT NULL,
      since timestamptz NOT NULL,
      PRIMARY KEY (site, account, page)
    );

    CREATE TABLE concern (
      id uuid PRIMARY KEY,
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      account uuid NOT NULL REFERENCES account (id) ON DELETE CASCADE,
      kind text NOT NULL CHECK (kind IN ('mention', 'review', 'returned', 'approved', 'answer', 'comment')),
      page text NOT NULL,
      thread uuid REFERENCES thread (id) ON DELETE CASCADE,
      comment uuid REFERENCES thread_comment (id) ON DELETE CASCADE,
      by_name text NOT NULL,
      -- What it says where it is no comment.
      words text NOT NULL DEFAULT '',
      at timestamptz NOT NULL,
      read_at timestamptz
    );
    CREATE INDEX concern_of ON concern (account, site, at DESC);
    CREATE TABLE concern_read (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      account uuid NOT NULL REFERENCES account (id) ON DELETE CASCADE,
      -- What was read of what follows from the tree: edits to a page, a day that is due, a finding.
      what text NOT NULL,
      until timestamptz NOT NULL,
      PRIMARY KEY (site, account, what)
    );

    ALTER TABLE account
      ADD COLUMN mails text NOT NULL DEFAULT 'at-once' CHECK (mails IN ('at-once', 'daily', 'never'));
    CREATE TABLE daily_mail (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      account uuid NOT NULL REFERENCES account (id) ON DELETE CASCADE,
      until timestamptz NOT NULL,
      PRIMARY KEY (site, account)
    );
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE account DROP COLUMN mails;
    DROP TABLE daily_mail, concern_read, concern, follow, thread_comment, thread;
  `);
}
