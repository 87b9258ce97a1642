import type { Knex } from 'knex';

/** Sites that were deleted are kept for a while under a key that no site can have; all that is theirs goes along with the key. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE site ADD COLUMN deleted_at timestamptz, ADD COLUMN deleted_key text,
      ADD COLUMN deleted_by uuid REFERENCES account (id) ON DELETE SET NULL;
    CREATE INDEX site_deleted_at ON site (deleted_at) WHERE deleted_at IS NOT NULL;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DELETE FROM site WHERE deleted_at IS NOT NULL;
    ALTER TABLE site DROP COLUMN deleted_at, DROP COLUMN deleted_key, DROP COLUMN deleted_by;
  `);
}
