import type { Knex } from 'knex';

/**
 * Whether a person can undo an edit, or make it again, stands with the edit in the log: its `inverse` is the way there. A table of
 * steps beside it held the same operations once more, and writing it cost each edit as much as the page itself.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE edit_log ADD COLUMN turn text CHECK (turn IN ('undo', 'redo'));
    UPDATE edit_log SET turn = CASE WHEN undo_step.is_undone THEN 'redo' ELSE 'undo' END
      FROM undo_step WHERE undo_step.site = edit_log.site AND undo_step.revision = edit_log.revision
      AND undo_step.account = edit_log.account;
    CREATE INDEX edit_log_turn ON edit_log (site, account, turn, revision) WHERE turn IS NOT NULL;
    DROP TABLE undo_step;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE TABLE undo_step (
      id bigserial PRIMARY KEY,
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      account uuid NOT NULL REFERENCES account (id) ON DELETE CASCADE,
      revision bigint NOT NULL,
      is_undone boolean NOT NULL DEFAULT false,
      operations jsonb NOT NULL,
      words text NOT NULL
    );
    -- What was undone last came first among the steps to make again.
    INSERT INTO undo_step (site, account, revision, is_undone, operations, words)
      SELECT site, account, revision, turn = 'redo', inverse, regexp_replace(words, '^(undid|made again): ', '')
      FROM edit_log WHERE account IS NOT NULL AND (turn = 'undo' OR turn = 'redo' AND revision > (
        SELECT coalesce(max(revision), 0) FROM edit_log edited
        WHERE edited.site = edit_log.site AND edited.account = edit_log.account AND edited.kind = 'edit'))
      ORDER BY turn = 'redo', CASE turn WHEN 'redo' THEN -revision ELSE revision END;
    CREATE INDEX undo_step_of ON undo_step (site, account, is_undone, id);
    DROP INDEX edit_log_turn;
    ALTER TABLE edit_log DROP COLUMN turn;
  `);
}
