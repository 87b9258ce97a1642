import type { Knex } from 'knex';

/** Forms: a site has them among its settings, texts say which they show, and what visitors sent is kept beside them. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE site ADD COLUMN forms jsonb NOT NULL DEFAULT '[]', ADD COLUMN live_forms jsonb NOT NULL DEFAULT '[]';
    ALTER TABLE content ADD COLUMN forms text[] NOT NULL DEFAULT '{}';
    CREATE INDEX content_forms ON content USING gin (forms) WHERE forms <> '{}';

    CREATE TABLE answer (
      id uuid PRIMARY KEY,
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      form text NOT NULL,
      form_name text NOT NULL,
      -- What the form bore when it was filled in: so it is accepted once, however often it is sent.
      stamp text NOT NULL,
      sent_at timestamptz NOT NULL,
      page text,
      page_title text NOT NULL,
      visitor uuid REFERENCES visitor (id) ON DELETE SET NULL,
      visitor_name text,
      said jsonb NOT NULL,
      state text NOT NULL CHECK (state IN ('new', 'begun', 'done')),
      note text NOT NULL DEFAULT '',
      -- What the form said when it was sent; where there is still such a form, that one decides.
      kept_days integer NOT NULL
    );
    CREATE UNIQUE INDEX answer_once ON answer (site, form, stamp);
    CREATE INDEX answer_latest ON answer (site, sent_at DESC, id);
    CREATE INDEX answer_visitor ON answer (visitor) WHERE visitor IS NOT NULL;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP TABLE answer;
    DROP INDEX content_forms;
    ALTER TABLE content DROP COLUMN forms;
    ALTER TABLE site DROP COLUMN forms, DROP COLUMN live_forms;
  `);
}
