import type { Knex } from 'knex';

/** The old site: what is known of its addresses, and the crawls that found them. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE old_page (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      address text NOT NULL,
      title text NOT NULL,
      description text NOT NULL,
      headings jsonb NOT NULL,
      words integer,
      links_in integer,
      links_out integer,
      status integer,
      visits bigint,
      text text NOT NULL,
      PRIMARY KEY (site, address)
    );
    -- Counts the changes of an inventory, so that what was computed of it is known to be old.
    ALTER TABLE site ADD COLUMN old_site_version bigint NOT NULL DEFAULT 0;

    CREATE TABLE crawl (
      id uuid PRIMARY KEY,
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      start text NOT NULL,
      most_pages integer NOT NULL,
      pause_ms integer NOT NULL,
      state text NOT NULL CHECK (state IN ('running', 'stopped', 'done', 'failed')),
      why text,
      began_at timestamptz NOT NULL,
      ended_at timestamptz
    );
    CREATE INDEX crawl_of ON crawl (site, began_at);

    CREATE TABLE crawl_address (
      crawl uuid NOT NULL REFERENCES crawl (id) ON DELETE CASCADE,
      number bigserial,
      address text NOT NULL,
      is_done boolean NOT NULL DEFAULT false,
      -- Why it is not in the inventory, where it is not.
      fault text,
      -- The addresses on the old site that it links to.
      links jsonb,
      PRIMARY KEY (crawl, address)
    );
    CREATE INDEX crawl_address_waiting ON crawl_address (crawl, number) WHERE NOT is_done;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DROP TABLE crawl_address, crawl, old_page; ALTER TABLE site DROP COLUMN old_site_version;');
}
