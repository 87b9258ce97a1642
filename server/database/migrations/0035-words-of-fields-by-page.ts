import type { Knex } from 'knex';
import { INDEX_WITH_FIELDS } from './0032-words-of-fields.ts';

/**
 * Finds each asked page by its key: joined with all live pages of the site, which the planner did until it knew how many there are,
 * the words of the fields were put together once for each two of them.
 */
const FROM_ASKED = `FROM unnest(pages) AS asked (id)
      CROSS JOIN LATERAL (
        SELECT l.id, l.access, l.details FROM live_node l
        WHERE l.site = of_site AND l.id = asked.id AND l.details IS NOT NULL AND NOT l.is_retired OFFSET 0) n
      CROSS JOIN LATERAL (SELECT words_of_fields(kinds, n.access, n.details) AS words OFFSET 0) f`;

export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE OR REPLACE FUNCTION index_for_search(of_site text, pages text[]) RETURNS void LANGUAGE plpgsql
    SET enable_seqscan TO off AS $$
    DECLARE
      spoken text := (SELECT live_language FROM site WHERE key = of_site);
      kinds jsonb := (SELECT live_labels FROM site WHERE key = of_site);
    BEGIN
      PERFORM index_texts_for_search(of_site, pages);
      IF spoken IS NULL OR NOT EXISTS (
        SELECT FROM jsonb_array_elements(kinds) AS l (label) WHERE jsonb_exists(l.label, 'fields')) THEN RETURN; END IF;
      UPDATE search_document t
      SET body = concat_ws(' ', t.body, found.words), words = with_words(t.words, search_language(spoken), found.words)
      FROM (
        SELECT d.ctid AS place, f.words ${FROM_ASKED}
        CROSS JOIN LATERAL (SELECT s.ctid FROM search_document s WHERE s.site = of_site AND s.page = n.id OFFSET 0) d
        WHERE f.words IS NOT NULL OFFSET 0
      ) found
      WHERE t.ctid = found.place;
      INSERT INTO search_word (site, word, stem)
      SELECT DISTINCT of_site, w.word, coalesce(first_stem(spoken, w.word), '')
      ${FROM_ASKED}
      CROSS JOIN LATERAL plain_words(f.words) AS w (word)
      WHERE w.word ~ '^[[:alnum:]]{1,40}$'
      ON CONFLICT DO NOTHING;
    END $$;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(INDEX_WITH_FIELDS);
}
