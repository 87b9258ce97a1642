import type { Knex } from 'knex';

/** Who may open what: the site's audiences, as drafted and as live, and each page's own rule. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE site ADD COLUMN audiences jsonb NOT NULL DEFAULT '[]', ADD COLUMN live_audiences jsonb NOT NULL DEFAULT '[]';
    ALTER TABLE node ADD COLUMN access jsonb;
    ALTER TABLE live_node ADD COLUMN access jsonb;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE live_node DROP COLUMN access;
    ALTER TABLE node DROP COLUMN access;
    ALTER TABLE site DROP COLUMN audiences, DROP COLUMN live_audiences;
  `);
}
