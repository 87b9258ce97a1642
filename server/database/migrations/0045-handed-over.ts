import type { Knex } from 'knex';

/** Conversations that were handed over to somebody, who is told of them from then on. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE thread_hand (
      thread uuid NOT NULL REFERENCES thread (id) ON DELETE CASCADE,
      account uuid NOT NULL REFERENCES account (id) ON DELETE CASCADE,
      -- In whose hands it was.
      handed_by uuid NOT NULL REFERENCES account (id) ON DELETE CASCADE,
      PRIMARY KEY (thread, account, handed_by)
    );
    ALTER TABLE concern DROP CONSTRAINT concern_kind_check,
      ADD CONSTRAINT concern_kind_check
        CHECK (kind IN ('mention', 'review', 'returned', 'approved', 'answer', 'comment', 'handed over'));
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DELETE FROM concern WHERE kind = 'handed over';
    ALTER TABLE concern DROP CONSTRAINT concern_kind_check,
      ADD CONSTRAINT concern_kind_check CHECK (kind IN ('mention', 'review', 'returned', 'approved', 'answer', 'comment'));
    DROP TABLE thread_hand;
  `);
}
