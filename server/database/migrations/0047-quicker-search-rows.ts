import type { Knex } from 'knex';
import { indexWithShared } from './0028-words-of-what-is-shown.ts';

/** The columns of words and texts that are read or written for each page of a search or a release. */
const LARGE_COLUMNS = [
  ['content', 'plain'],
  ['content', 'words'],
  ['content', 'bare_words'],
  ['search_document', 'body'],
  ['search_document', 'words'],
] as const;

/**
 * The rows for search of a large release are made in less time: what shared sections and documents say is asked for where a text shows
 * any, plain texts go over as they are, words that the site has already are not looked at again, and what is large is compressed by
 * LZ4, which is quicker both ways (PostgreSQL compresses with it where it was built with it). What was written before stays as it is.
 * Words are found by their stems too: by these search knows at once which words no page has.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    DO $$ BEGIN
      ${LARGE_COLUMNS.map(([table, column]) => `ALTER TABLE ${table} ALTER COLUMN ${column} SET COMPRESSION lz4;`).join('\n      ')}
    EXCEPTION WHEN feature_not_supported THEN NULL;
    END $$;

    CREATE INDEX search_word_stems ON search_word (site, stem);

    CREATE OR REPLACE FUNCTION index_texts_for_search(of_site text, pages text[]) RETURNS void LANGUAGE plpgsql
    SET enable_seqscan TO off AS $$
    DECLARE
      spoken text := (SELECT live_language FROM site WHERE key = of_site);
      speaking regconfig := search_language(spoken);
      shown jsonb := (SELECT live_shared FROM site WHERE key = of_site);
    BEGIN
      DELETE FROM search_document WHERE ctid = ANY (ARRAY(
        SELECT d.ctid FROM unnest(pages) AS asked (id), LATERAL (
          SELECT t.ctid FROM search_document t WHERE t.site = of_site AND t.page = asked.id OFFSET 0) d));
      DELETE FROM search_section WHERE ctid = ANY (ARRAY(
        SELECT d.ctid FROM unnest(pages) AS asked (id), LATERAL (
          SELECT t.ctid FROM search_section t WHERE t.site = of_site AND t.page = asked.id OFFSET 0) d));
      IF spoken IS NULL THEN RETURN; END IF;
      INSERT INTO search_document (site, page, title, description, body, words)
      SELECT of_site, n.id, n.title, n.description,
        CASE WHEN m.shared IS NULL AND m.files IS NULL THEN coalesce(c.plain, '')
          ELSE concat_ws(' ', coalesce(c.plain, ''), m.shared, m.files) END,
        with_words(setweight(to_tsvector(speaking, n.title), 'A') || setweight(to_tsvector(speaking, n.description), 'B')
          || CASE WHEN c.language = spoken THEN c.words ELSE to_tsvector(speaking, coalesce(c.plain, '')) END
          || to_tsvector(speaking, coalesce(m.shared, '')), speaking, m.files)
      FROM unnest(pages) AS asked (id)
      CROSS JOIN LATERAL (
        SELECT l.id, l.content, concat_ws(' ', l.title ->> spoken, l.label ->> spoken) AS title,
          coalesce(l.description ->> spoken, '') AS description
        FROM live_node l WHERE l.site = of_site AND l.id = asked.id AND l.type = 'page' AND NOT l.is_retired OFFSET 0
      ) n
      LEFT JOIN LATERAL (SELECT t.* FROM content t WHERE t.site = of_site AND t.id = n.content OFFSET 0) c ON true
      CROSS JOIN LATERAL (
        SELECT CASE WHEN c.shared <> '{}' THEN words_of_shared(of_site, shown, c.html) END AS shared,
          CASE WHEN c.files <> '{}' OR c.shared <> '{}' THEN words_of_files(of_site, shown, c.html) END AS files OFFSET 0
      ) m;
      INSERT INTO search_section (site, page, part, only_for, except_for, body, words)
      SELECT of_site, n.id, p.part, p.only_for, p.except_for, p.body, search_words(spoken, '', '', p.body)
      FROM unnest(pages) AS asked (id)
      CROSS JOIN LATERAL (
        SELECT l.id, l.content FROM live_node l
        WHERE l.site = of_site AND l.id = asked.id AND l.type = 'page' AND NOT l.is_retired OFFSET 0
      ) n
      CROSS JOIN LATERAL (
        SELECT t.parts FROM content t WHERE t.site = of_site AND t.id = n.content AND t.parts IS NOT NULL OFFSET 0
      ) c
      CROSS JOIN LATERAL sections_of(c.parts) AS p;
      INSERT INTO search_word (site, word, stem)
      SELECT of_site, w.word, coalesce(first_stem(spoken, w.word), '')
      FROM (SELECT said.word FROM ts_stat(format($words$
        SELECT to_tsvector('simple', d.title || ' ' || d.description) || coalesce(c.bare_words, '')
        FROM unnest(%2$L::text[]) AS asked (id)
        CROSS JOIN LATERAL (
          SELECT t.title, t.description FROM search_document t WHERE t.site = %1$L AND t.page = asked.id OFFSET 0) d
        CROSS JOIN LATERAL (
          SELECT l.content FROM live_node l WHERE l.site = %1$L AND l.id = asked.id OFFSET 0) n
        LEFT JOIN LATERAL (
          SELECT t.bare_words FROM content t WHERE t.site = %1$L AND t.id = n.content OFFSET 0) c ON true
        UNION ALL SELECT to_tsvector('simple', concat_ws(' ', words_of_shared(%1$L, %3$L::jsonb, c.html), words_of_files(%1$L, %3$L::jsonb, c.html)))
        FROM unnest(%2$L::text[]) AS asked (id)
        CROSS JOIN LATERAL (
          SELECT l.content FROM live_node l
          WHERE l.site = %1$L AND l.id = asked.id AND l.type = 'page' AND NOT l.is_retired OFFSET 0) n
        CROSS JOIN LATERAL (
          SELECT t.html FROM content t WHERE t.site = %1$L AND t.id = n.content AND (t.shared <> '{}' OR t.files <> '{}') OFFSET 0) c
        UNION ALL SELECT s.words FROM unnest(%2$L::text[]) AS asked (id)
        CROSS JOIN LATERAL (
          SELECT to_tsvector('simple', t.body) AS words FROM search_section t WHERE t.site = %1$L AND t.page = asked.id OFFSET 0) s
      $words$, of_site, pages, shown)) AS said
        WHERE NOT EXISTS (SELECT FROM search_word k WHERE k.site = of_site AND k.word = said.word) OFFSET 0) w
      WHERE w.word ~ '^[[:alnum:]]{1,40}$'
      ON CONFLICT DO NOTHING;
    END $$;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP INDEX search_word_stems;
    ${LARGE_COLUMNS.map(([table, column]) => `ALTER TABLE ${table} ALTER COLUMN ${column} SET COMPRESSION default;`).join('\n    ')}
    ${indexWithShared('index_texts_for_search')}
  `);
}
