import type { Knex } from 'knex';

/** What guests of a plan say of a page can be a proposal: another title, another place, or both. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE share_comment
      DROP CONSTRAINT share_comment_kind_check,
      ADD CONSTRAINT share_comment_kind_check CHECK (kind IN ('comment', 'question', 'proposal')),
      ADD COLUMN proposes jsonb,
      ADD COLUMN is_accepted boolean NOT NULL DEFAULT false,
      ADD CONSTRAINT share_comment_proposes CHECK ((kind = 'proposal') = (proposes IS NOT NULL));
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DELETE FROM share_comment WHERE kind = 'proposal';
    ALTER TABLE share_comment
      DROP CONSTRAINT share_comment_proposes,
      DROP COLUMN proposes,
      DROP COLUMN is_accepted,
      DROP CONSTRAINT share_comment_kind_check,
      ADD CONSTRAINT share_comment_kind_check CHECK (kind IN ('comment', 'question'));
  `);
}
