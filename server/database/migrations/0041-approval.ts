import type { Knex } from 'knex';

/** Which branches need approval before they go live, what is proposed there, and what was decided about it. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE approval_rule (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      -- The branch; null for the whole site.
      page text,
      decided_by jsonb NOT NULL,
      count integer NOT NULL CHECK (count > 0)
    );
    CREATE UNIQUE INDEX approval_rule_place ON approval_rule (site, coalesce(page, ''));

    CREATE TABLE proposal (
      id uuid PRIMARY KEY,
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      account uuid REFERENCES account (id) ON DELETE SET NULL,
      by_name text NOT NULL,
      at timestamptz NOT NULL,
      note text NOT NULL,
      pages text[] NOT NULL,
      state text NOT NULL DEFAULT 'open' CHECK (state IN ('open', 'returned', 'withdrawn', 'live')),
      closed_at timestamptz
    );
    CREATE INDEX proposal_of ON proposal (site, state, at);
    CREATE TABLE proposal_decision (
      id uuid PRIMARY KEY,
      proposal uuid NOT NULL REFERENCES proposal (id) ON DELETE CASCADE,
      account uuid REFERENCES account (id) ON DELETE SET NULL,
      by_name text NOT NULL,
      at timestamptz NOT NULL,
      kind text NOT NULL CHECK (kind IN ('approved', 'returned')),
      words text NOT NULL,
      -- The draft that was decided about, and what each page was in it.
      revision bigint NOT NULL,
      prints jsonb NOT NULL
    );
    CREATE INDEX proposal_decision_of ON proposal_decision (proposal, at);

    ALTER TABLE concern ADD COLUMN proposal uuid REFERENCES proposal (id) ON DELETE CASCADE;
    -- Why something went live without the approval that it needs.
    ALTER TABLE release ADD COLUMN override text NOT NULL DEFAULT '';
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE release DROP COLUMN override;
    ALTER TABLE concern DROP COLUMN proposal;
    DROP TABLE proposal_decision, proposal, approval_rule;
  `);
}
