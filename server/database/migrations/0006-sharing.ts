import type { Knex } from 'knex';

/** Plans that are shared by links, what is said of them, and the outbox of mails. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE share (
      id uuid PRIMARY KEY,
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      name text NOT NULL,
      -- The secret of the link as it is: whoever reads this table can read the plan in the tables beside it.
      token text NOT NULL UNIQUE,
      passphrase_hash text,
      made_by uuid REFERENCES account (id) ON DELETE SET NULL,
      -- The maker's name as it was, since links outlive accounts.
      made_by_name text NOT NULL,
      made_at timestamptz NOT NULL,
      expires_at timestamptz NOT NULL,
      withdrawn_at timestamptz,
      last_opened_at timestamptz
    );
    CREATE INDEX share_of ON share (site, made_at);

    CREATE TABLE share_guest (
      id uuid PRIMARY KEY,
      share uuid NOT NULL REFERENCES share (id) ON DELETE CASCADE,
      name text NOT NULL,
      email text,
      made_at timestamptz NOT NULL
    );
    CREATE UNIQUE INDEX share_guest_name ON share_guest (share, lower(name));

    CREATE TABLE share_verdict (
      guest uuid NOT NULL REFERENCES share_guest (id) ON DELETE CASCADE,
      page text NOT NULL,
      verdict text NOT NULL CHECK (verdict IN ('agreed', 'change', 'unsure')),
      given_at timestamptz NOT NULL,
      settled_by text,
      PRIMARY KEY (guest, page)
    );

    CREATE TABLE share_comment (
      id uuid PRIMARY KEY,
      guest uuid NOT NULL REFERENCES share_guest (id) ON DELETE CASCADE,
      page text NOT NULL,
      kind text NOT NULL CHECK (kind IN ('comment', 'question')),
      text text NOT NULL,
      made_at timestamptz NOT NULL,
      answer text NOT NULL DEFAULT '',
      answered_by text,
      settled_by text
    );
    CREATE INDEX share_comment_of ON share_comment (guest);

    CREATE TABLE outbox (
      id uuid PRIMARY KEY,
      recipient text NOT NULL,
      subject text NOT NULL,
      text text NOT NULL,
      sent_at timestamptz NOT NULL
    );
    CREATE INDEX outbox_latest ON outbox (sent_at DESC);
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DROP TABLE outbox, share_comment, share_verdict, share_guest, share');
}
