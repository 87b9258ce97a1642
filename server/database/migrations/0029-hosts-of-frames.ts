import type { Knex } from 'knex';

/** The hosts whose frames the pages of a site may show. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(
    `ALTER TABLE site ADD COLUMN hosts jsonb NOT NULL DEFAULT '[]', ADD COLUMN live_hosts jsonb NOT NULL DEFAULT '[]'`,
  );
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('ALTER TABLE site DROP COLUMN hosts, DROP COLUMN live_hosts');
}
