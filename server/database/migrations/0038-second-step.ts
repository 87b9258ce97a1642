import type { Knex } from 'knex';

/** One-time codes with recovery codes, passkeys, and whether a site asks its colleagues for a second step. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE second_step (
      account uuid PRIMARY KEY REFERENCES account (id) ON DELETE CASCADE,
      secret text NOT NULL,
      since timestamptz NOT NULL,
      last_counter bigint NOT NULL
    );
    CREATE TABLE recovery_code (
      account uuid NOT NULL REFERENCES second_step (account) ON DELETE CASCADE,
      code_hash text NOT NULL,
      PRIMARY KEY (account, code_hash)
    );
    CREATE TABLE passkey (
      id text PRIMARY KEY,
      account uuid NOT NULL REFERENCES account (id) ON DELETE CASCADE,
      name text NOT NULL,
      public_key bytea NOT NULL,
      counter bigint NOT NULL,
      transports text[] NOT NULL DEFAULT '{}',
      added_at timestamptz NOT NULL,
      last_used_at timestamptz
    );
    CREATE INDEX passkey_account ON passkey (account);
    ALTER TABLE site ADD COLUMN needs_second_step boolean NOT NULL DEFAULT false;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP TABLE passkey, recovery_code, second_step;
    ALTER TABLE site DROP COLUMN needs_second_step;
  `);
}
