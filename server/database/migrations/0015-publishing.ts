import type { Knex } from 'knex';

/**
 * Addresses that never break, releases with a name, releases to come, and what visitors asked for in vain: redirects by hand and
 * the time zone of a site, where the addresses of pages lead that were taken down, the page that had an address last, hits, and
 * sites that are closed for works.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE site
      ADD COLUMN redirects jsonb NOT NULL DEFAULT '[]', ADD COLUMN live_redirects jsonb NOT NULL DEFAULT '[]',
      ADD COLUMN time_zone text NOT NULL DEFAULT 'UTC', ADD COLUMN live_time_zone text,
      ADD COLUMN works jsonb;
    UPDATE site SET live_time_zone = 'UTC' WHERE live_name IS NOT NULL;
    ALTER TABLE live_node ADD COLUMN leads_to jsonb;

    CREATE TABLE former_address (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      path text NOT NULL,
      page text NOT NULL,
      since timestamptz NOT NULL,
      PRIMARY KEY (site, path)
    );

    ALTER TABLE release
      ADD COLUMN name text NOT NULL DEFAULT '', ADD COLUMN note text NOT NULL DEFAULT '',
      ADD COLUMN settings text[] NOT NULL DEFAULT '{}', ADD COLUMN takes_back bigint;

    CREATE TABLE redirect_hit (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      path text NOT NULL,
      hits bigint NOT NULL,
      last_at timestamptz NOT NULL,
      PRIMARY KEY (site, path)
    );

    CREATE TABLE missed_address (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      path text NOT NULL,
      hits bigint NOT NULL,
      first_at timestamptz NOT NULL,
      last_at timestamptz NOT NULL,
      from_path text,
      is_let_be boolean NOT NULL DEFAULT false,
      PRIMARY KEY (site, path)
    );

    CREATE TABLE scheduled_release (
      id uuid PRIMARY KEY,
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      at timestamptz NOT NULL,
      name text NOT NULL,
      note text NOT NULL,
      asked jsonb NOT NULL,
      account uuid REFERENCES account (id) ON DELETE CASCADE,
      made_at timestamptz NOT NULL,
      state text NOT NULL CHECK (state IN ('waiting', 'done', 'failed', 'called off')),
      done_at timestamptz,
      release bigint,
      fault text
    );
    CREATE INDEX scheduled_release_of ON scheduled_release (site, state, at);
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP TABLE scheduled_release, missed_address, redirect_hit, former_address;
    ALTER TABLE release DROP COLUMN name, DROP COLUMN note, DROP COLUMN settings, DROP COLUMN takes_back;
    ALTER TABLE live_node DROP COLUMN leads_to;
    ALTER TABLE site DROP COLUMN redirects, DROP COLUMN live_redirects, DROP COLUMN time_zone, DROP COLUMN live_time_zone,
      DROP COLUMN works;
  `);
}
