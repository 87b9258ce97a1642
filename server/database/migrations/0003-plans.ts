import type { Knex } from 'knex';

/** What is planned: goals, each page's plan, what was decided about old addresses, and the redirects that come of it. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE site ADD COLUMN goals jsonb NOT NULL DEFAULT '[]';
    ALTER TABLE node ADD COLUMN plan jsonb;

    CREATE TABLE old_page_decision (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      address text NOT NULL,
      let_go jsonb,
      declined jsonb NOT NULL,
      PRIMARY KEY (site, address)
    );

    -- What visitors have of old addresses: the page that each leads to; null for one that is gone.
    CREATE TABLE live_redirect (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      path text NOT NULL,
      page text,
      PRIMARY KEY (site, path)
    );
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP TABLE live_redirect, old_page_decision;
    ALTER TABLE node DROP COLUMN plan;
    ALTER TABLE site DROP COLUMN goals;
  `);
}
