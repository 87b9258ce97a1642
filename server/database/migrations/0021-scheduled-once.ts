import type { Knex } from 'knex';

/** The request that set a release for later, so that it is set once; the job queue has no part in them any more. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE scheduled_release ADD COLUMN request text;
    CREATE UNIQUE INDEX scheduled_release_request ON scheduled_release (site, request);
    CREATE INDEX scheduled_release_waiting ON scheduled_release (at) WHERE state = 'waiting';
    DO $$ BEGIN
      IF to_regclass('pgboss.job') IS NOT NULL THEN DELETE FROM pgboss.job WHERE name = 'scheduled-release'; END IF;
    END $$;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP INDEX scheduled_release_waiting, scheduled_release_request;
    ALTER TABLE scheduled_release DROP COLUMN request;
  `);
}
