import type { Knex } from 'knex';

/** Links by which visitors join an audience, and the letters that prove whose a mail address is. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE visitor ADD COLUMN asked_for text[] NOT NULL DEFAULT '{}';

    CREATE TABLE joining_link (
      id uuid PRIMARY KEY,
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      audience text NOT NULL,
      token text NOT NULL UNIQUE,
      needs_approval boolean NOT NULL,
      expires_at timestamptz NOT NULL,
      most_uses integer CHECK (most_uses > 0),
      uses integer NOT NULL DEFAULT 0,
      made_by text NOT NULL,
      made_at timestamptz NOT NULL
    );
    CREATE INDEX joining_link_of ON joining_link (site);

    CREATE TABLE visitor_letter (
      token_hash text PRIMARY KEY,
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      email text NOT NULL,
      link uuid REFERENCES joining_link (id) ON DELETE CASCADE,
      way_on text NOT NULL,
      expires_at timestamptz NOT NULL
    );
    CREATE INDEX visitor_letter_of ON visitor_letter (site, lower(email));
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DROP TABLE visitor_letter, joining_link; ALTER TABLE visitor DROP COLUMN asked_for');
}
