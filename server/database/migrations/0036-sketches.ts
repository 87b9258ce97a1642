import type { Knex } from 'knex';

/**
 * Sketches of pages and boards, which belong to the plan of a site; which boxes of them stand in a text, and which of these say something; and
 * what guests of a plan choose and say of them.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE site ADD COLUMN sketches jsonb NOT NULL DEFAULT '[]', ADD COLUMN boards jsonb NOT NULL DEFAULT '[]';
    ALTER TABLE content ADD COLUMN boxes text[] NOT NULL DEFAULT '{}', ADD COLUMN written text[] NOT NULL DEFAULT '{}';
    ALTER TABLE share_comment ADD COLUMN about jsonb, ALTER COLUMN page DROP NOT NULL;
    CREATE TABLE share_choice (
      guest uuid NOT NULL REFERENCES share_guest (id) ON DELETE CASCADE,
      sketch text NOT NULL,
      variant text NOT NULL,
      chosen_at timestamptz NOT NULL,
      PRIMARY KEY (guest, sketch)
    );
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP TABLE share_choice;
    DELETE FROM share_comment WHERE page IS NULL;
    ALTER TABLE share_comment DROP COLUMN about, ALTER COLUMN page SET NOT NULL;
    ALTER TABLE content DROP COLUMN boxes, DROP COLUMN written;
    ALTER TABLE site DROP COLUMN sketches, DROP COLUMN boards;
  `);
}
