import type { Knex } from 'knex';

/** Each person's own settings of the workbench. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE preference (
      account uuid NOT NULL REFERENCES account (id) ON DELETE CASCADE,
      name text NOT NULL,
      value jsonb NOT NULL,
      PRIMARY KEY (account, name)
    );
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw('DROP TABLE preference');
}
