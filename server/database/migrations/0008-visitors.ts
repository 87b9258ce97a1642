import type { Knex } from 'knex';

/** The accounts of a site's visitors, which are not those of the workbench, and where they are signed in. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE visitor (
      id uuid PRIMARY KEY,
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      name text NOT NULL,
      email text NOT NULL,
      password_hash text NOT NULL,
      audiences text[] NOT NULL,
      is_suspended boolean NOT NULL DEFAULT false,
      made_at timestamptz NOT NULL,
      last_sign_in_at timestamptz
    );
    CREATE UNIQUE INDEX visitor_email ON visitor (site, lower(email));

    CREATE TABLE visitor_session (
      token_hash text PRIMARY KEY,
      visitor uuid NOT NULL REFERENCES visitor (id) ON DELETE CASCADE,
      expires_at timestamptz NOT NULL
    );
    CREATE INDEX visitor_session_of ON visitor_session (visitor);
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DROP TABLE visitor_session, visitor');
}
