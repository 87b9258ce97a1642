import type { Knex } from 'knex';

/** Who accounts are at the provider of an organisation. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE account_identity (
      issuer text NOT NULL,
      subject text NOT NULL,
      account uuid NOT NULL REFERENCES account (id) ON DELETE CASCADE,
      since timestamptz NOT NULL,
      PRIMARY KEY (issuer, subject)
    );
    CREATE INDEX account_identity_account ON account_identity (account);
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DROP TABLE account_identity');
}
