import type { Knex } from 'knex';

/** Walks that were started, each for as long as whoever started it is signed in. The address holds a token, the table its hash. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE walk (
      token_hash text PRIMARY KEY,
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      session varchar NOT NULL REFERENCES session (sid) ON DELETE CASCADE,
      visitor uuid REFERENCES visitor (id) ON DELETE CASCADE,
      walk jsonb NOT NULL,
      expires_at timestamptz NOT NULL
    );
    CREATE INDEX walk_of ON walk (session);
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DROP TABLE walk');
}
