import type { Knex } from 'knex';
import { INDEX_FOR_SEARCH } from './0017-words-of-texts.ts';

/** Indexes live pages for search, with what shared sections and documents say. @param name what the function is called */
export const indexWithShared = (
  name: string,
): string => `CREATE OR REPLACE FUNCTION ${name}(of_site text, pages text[]) RETURNS void LANGUAGE plpgsql
    SET enable_seqscan TO off AS $$
    DECLARE
      spoken text := (SELECT live_language FROM site WHERE key = of_site);
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
      SELECT of_site, n.id, n.title, n.description, concat_ws(' ', coalesce(c.plain, ''), s.plain, f.words),
        with_words(search_words(spoken, n.title, n.description, '')
          || CASE WHEN c.language = spoken THEN c.words ELSE to_tsvector(search_language(spoken), coalesce(c.plain, '')) END
          || to_tsvector(search_language(spoken), coalesce(s.plain, '')), search_language(spoken), f.words)
      FROM unnest(pages) AS asked (id)
      CROSS JOIN LATERAL (
        SELECT l.id, l.content, concat_ws(' ', l.title ->> spoken, l.label ->> spoken) AS title,
          coalesce(l.description ->> spoken, '') AS description
        FROM live_node l WHERE l.site = of_site AND l.id = asked.id AND l.type = 'page' AND NOT l.is_retired OFFSET 0
      ) n
      LEFT JOIN LATERAL (SELECT t.* FROM content t WHERE t.site = of_site AND t.id = n.content OFFSET 0) c ON true
      LEFT JOIN LATERAL (SELECT words_of_shared(of_site, shown, c.html) AS plain OFFSET 0) s ON c.shared <> '{}'
      LEFT JOIN LATERAL (SELECT words_of_files(of_site, shown, c.html) AS words OFFSET 0) f ON c.files <> '{}' OR c.shared <> '{}';
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
      FROM ts_stat(format($words$
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
      $words$, of_site, pages, shown)) AS w
      WHERE w.word ~ '^[[:alnum:]]{1,40}$'
      ON CONFLICT DO NOTHING;
    END $$;`;

/** Pages are found by what shared sections and documents of the library say that they show to everyone who gets them. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    -- What the shared sections in a text say to everyone; null where there are none.
    CREATE FUNCTION words_of_shared(of_site text, shared jsonb, html text) RETURNS text LANGUAGE sql STABLE AS $$
      SELECT string_agg(c.plain, ' ') FROM regexp_matches(html, 'data-shared="([0-9A-Za-z]+)"', 'g') AS found
      JOIN jsonb_to_recordset(shared) AS s (id text, content text) ON s.id = found[1]
      JOIN content c ON c.site = of_site AND c.id = s.content
    $$;

    CREATE TABLE file_words (content text PRIMARY KEY, words text NOT NULL);

    -- What the documents say that a text shows to all who get it, by itself or in a shared section.
    CREATE FUNCTION words_of_files(of_site text, shared jsonb, html text) RETURNS text LANGUAGE sql STABLE AS $$
      WITH texts AS (
        SELECT html AS text
        UNION ALL SELECT c.html FROM regexp_matches(html, 'data-shared="([0-9A-Za-z]+)"', 'g') AS found
        JOIN jsonb_to_recordset(shared) AS s (id text, content text) ON s.id = found[1]
        JOIN content c ON c.site = of_site AND c.id = s.content
      )
      SELECT left(string_agg(DISTINCT w.words, ' '), 60000) FROM texts
      CROSS JOIN LATERAL regexp_matches(texts.text, 'data-file="([0-9A-Za-z]+)"', 'g') AS found
      JOIN file f ON f.site = of_site AND f.id = found[1] AND f.removed_at IS NULL AND f.state = 'ready'
      JOIN file_words w ON w.content = f.content
    $$;

    -- More words than a row can hold are left out: a release does not fail for them.
    CREATE FUNCTION with_words(words tsvector, language regconfig, more text) RETURNS tsvector LANGUAGE plpgsql IMMUTABLE AS $$
    BEGIN
      IF more IS NULL THEN RETURN words; END IF;
      RETURN words || to_tsvector(language, more);
    EXCEPTION WHEN program_limit_exceeded THEN RETURN words;
    END $$;

    ${indexWithShared('index_for_search')}

    -- What a shared section says is found on the pages that show it.
    CREATE FUNCTION site_shared_search() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN
      PERFORM index_for_search(NEW.key, array_agg(n.id)) FROM live_node n
        JOIN content c ON c.site = n.site AND c.id = n.content AND c.shared <> '{}' WHERE n.site = NEW.key;
      RETURN NULL;
    END $$;
    CREATE TRIGGER site_search_shared AFTER UPDATE OF live_shared ON site
      FOR EACH ROW WHEN (OLD.live_shared IS DISTINCT FROM NEW.live_shared) EXECUTE FUNCTION site_shared_search();

    CREATE FUNCTION file_search() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN
      PERFORM index_for_search(NEW.site, array_agg(DISTINCT n.page)) FROM live_text n
        JOIN content c ON c.site = n.site AND c.id = n.content AND c.files @> ARRAY[NEW.id] AND c.files <> '{}'
        WHERE n.site = NEW.site;
      RETURN NULL;
    END $$;
    CREATE TRIGGER file_search_words AFTER INSERT OR UPDATE OF state, content, removed_at ON file
      FOR EACH ROW WHEN (NEW.type = 'application/pdf') EXECUTE FUNCTION file_search();
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP TRIGGER file_search_words ON file;
    DROP TRIGGER site_search_shared ON site;
    DROP FUNCTION file_search, site_shared_search;
    ${INDEX_FOR_SEARCH}
    DROP FUNCTION with_words, words_of_files, words_of_shared;
    DROP TABLE file_words;
  `);
}
