import type { Knex } from 'knex';

/**
 * Labels of a site, the hashes of passphrases, and sections of texts that only some audiences get: `html` is what all get,
 * `parts` the whole text in order (null where nothing is kept back). What is searched of a section stands apart.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE site ADD COLUMN labels jsonb NOT NULL DEFAULT '[]', ADD COLUMN live_labels jsonb NOT NULL DEFAULT '[]';
    CREATE TABLE passphrase (id text PRIMARY KEY, hash text NOT NULL, made_at timestamptz NOT NULL DEFAULT now());

    ALTER TABLE content ADD COLUMN parts jsonb;
    CREATE AGGREGATE joined_words (tsvector) (SFUNC = tsvector_concat, STYPE = tsvector, INITCOND = '', PARALLEL = SAFE);

    CREATE FUNCTION text_list(list jsonb) RETURNS text[] LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
      SELECT CASE WHEN jsonb_typeof(list) = 'array' THEN ARRAY(SELECT jsonb_array_elements_text(list)) END
    $$;
    CREATE FUNCTION sections_of(parts jsonb)
    RETURNS TABLE (part int, only_for text[], except_for text[], body text) LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
      SELECT p.at::int, text_list(p.one -> 'only'), coalesce(text_list(p.one -> 'except'), '{}'), plain_text(p.one ->> 'html')
      FROM jsonb_array_elements(coalesce(parts, '[]')) WITH ORDINALITY AS p (one, at)
      WHERE jsonb_typeof(p.one -> 'only') = 'array' OR jsonb_array_length(p.one -> 'except') > 0
    $$;

    CREATE TABLE search_section (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      page text NOT NULL,
      part int NOT NULL,
      only_for text[],
      except_for text[] NOT NULL,
      body text NOT NULL,
      words tsvector NOT NULL,
      PRIMARY KEY (site, page, part)
    );

    CREATE OR REPLACE FUNCTION index_for_search(of_site text, pages text[]) RETURNS void LANGUAGE sql AS $$
      DELETE FROM search_document WHERE site = of_site AND page = ANY (pages);
      DELETE FROM search_section WHERE site = of_site AND page = ANY (pages);
      -- Made once: without this each text would be read for its words and for itself.
      WITH d AS MATERIALIZED (
        SELECT n.id, s.live_language AS language,
          concat_ws(' ', n.title ->> s.live_language, n.label ->> s.live_language) AS title,
          coalesce(n.description ->> s.live_language, '') AS description,
          plain_text(c.html) AS body
        FROM live_node n JOIN site s ON s.key = n.site
        LEFT JOIN content c ON c.site = n.site AND c.id = n.content
        WHERE n.site = of_site AND n.id = ANY (pages) AND n.type = 'page' AND NOT n.is_retired
          AND s.live_language IS NOT NULL
      )
      INSERT INTO search_document (site, page, title, description, body, words)
      SELECT of_site, d.id, d.title, d.description, d.body, search_words(d.language, d.title, d.description, d.body)
      FROM d;
      INSERT INTO search_section (site, page, part, only_for, except_for, body, words)
      SELECT of_site, n.id, p.part, p.only_for, p.except_for, p.body, search_words(s.live_language, '', '', p.body)
      FROM live_node n JOIN site s ON s.key = n.site
        JOIN content c ON c.site = n.site AND c.id = n.content AND c.parts IS NOT NULL,
        LATERAL sections_of(c.parts) AS p
      WHERE n.site = of_site AND n.id = ANY (pages) AND n.type = 'page' AND NOT n.is_retired AND s.live_language IS NOT NULL;
      INSERT INTO search_word (site, word, stem)
      SELECT of_site, w.word, coalesce(first_stem(s.live_language, w.word), '')
      FROM (
        SELECT DISTINCT word FROM (
          SELECT title || ' ' || description || ' ' || body AS whole FROM search_document
          WHERE site = of_site AND page = ANY (pages)
          UNION ALL SELECT body FROM search_section WHERE site = of_site AND page = ANY (pages)
        ) AS searched, plain_words(searched.whole) AS word
      ) w, site s WHERE s.key = of_site
      ON CONFLICT DO NOTHING
    $$;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE OR REPLACE FUNCTION index_for_search(of_site text, pages text[]) RETURNS void LANGUAGE sql AS $$
      DELETE FROM search_document WHERE site = of_site AND page = ANY (pages);
      INSERT INTO search_document (site, page, title, description, body, words)
      SELECT of_site, d.id, d.title, d.description, d.body, search_words(d.language, d.title, d.description, d.body)
      FROM (
        SELECT n.id, s.live_language AS language,
          concat_ws(' ', n.title ->> s.live_language, n.label ->> s.live_language) AS title,
          coalesce(n.description ->> s.live_language, '') AS description,
          plain_text(c.html) AS body
        FROM live_node n JOIN site s ON s.key = n.site
        LEFT JOIN content c ON c.site = n.site AND c.id = n.content
        WHERE n.site = of_site AND n.id = ANY (pages) AND n.type = 'page' AND NOT n.is_retired
          AND s.live_language IS NOT NULL
      ) d;
      INSERT INTO search_word (site, word, stem)
      SELECT of_site, w.word, coalesce(first_stem(s.live_language, w.word), '')
      FROM (
        SELECT DISTINCT word FROM search_document d, plain_words(d.title || ' ' || d.description || ' ' || d.body) AS word
        WHERE d.site = of_site AND d.page = ANY (pages)
      ) w, site s WHERE s.key = of_site
      ON CONFLICT DO NOTHING
    $$;
    DROP TABLE search_section;
    DROP FUNCTION sections_of, text_list;
    DROP AGGREGATE joined_words (tsvector);
    ALTER TABLE content DROP COLUMN parts;
    DROP TABLE passphrase;
    ALTER TABLE site DROP COLUMN labels, DROP COLUMN live_labels;
  `);
}
