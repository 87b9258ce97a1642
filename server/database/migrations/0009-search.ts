import type { Knex } from 'knex';

/**
 * What the site's own search looks through: a row for each page that is live. Triggers keep it true to the live pages,
 * whoever writes them, in the same transaction.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    CREATE EXTENSION IF NOT EXISTS fuzzystrmatch;

    CREATE FUNCTION search_language(code text) RETURNS regconfig LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
      SELECT CASE lower(split_part(code, '-', 1))
        WHEN 'ar' THEN 'arabic' WHEN 'ca' THEN 'catalan' WHEN 'da' THEN 'danish' WHEN 'de' THEN 'german'
        WHEN 'el' THEN 'greek' WHEN 'en' THEN 'english' WHEN 'es' THEN 'spanish' WHEN 'eu' THEN 'basque'
        WHEN 'fi' THEN 'finnish' WHEN 'fr' THEN 'french' WHEN 'ga' THEN 'irish' WHEN 'hu' THEN 'hungarian'
        WHEN 'hy' THEN 'armenian' WHEN 'id' THEN 'indonesian' WHEN 'it' THEN 'italian' WHEN 'lt' THEN 'lithuanian'
        WHEN 'nb' THEN 'norwegian' WHEN 'ne' THEN 'nepali' WHEN 'nl' THEN 'dutch' WHEN 'nn' THEN 'norwegian'
        WHEN 'no' THEN 'norwegian' WHEN 'pt' THEN 'portuguese' WHEN 'ro' THEN 'romanian' WHEN 'ru' THEN 'russian'
        WHEN 'sr' THEN 'serbian' WHEN 'sv' THEN 'swedish' WHEN 'tr' THEN 'turkish' WHEN 'yi' THEN 'yiddish'
        ELSE 'simple' END::regconfig
    $$;

    CREATE FUNCTION plain_text(html text) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
      SELECT trim(regexp_replace(replace(replace(replace(replace(replace(replace(
        regexp_replace(coalesce(html, ''), '<[^>]*>', ' ', 'g'),
        '&nbsp;', ' '), '&lt;', '<'), '&gt;', '>'), '&quot;', '"'), '&#39;', ''''), '&amp;', '&'), '\\s+', ' ', 'g'))
    $$;

    CREATE FUNCTION search_words(code text, title text, description text, body text)
    RETURNS tsvector LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
      SELECT setweight(to_tsvector(search_language(code), title), 'A')
        || setweight(to_tsvector(search_language(code), description), 'B')
        || setweight(to_tsvector(search_language(code), body), 'D')
    $$;

    CREATE TABLE search_document (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      page text NOT NULL,
      title text NOT NULL,
      description text NOT NULL,
      body text NOT NULL,
      words tsvector NOT NULL,
      PRIMARY KEY (site, page)
    );
    CREATE INDEX search_document_words ON search_document USING gin (words);

    CREATE FUNCTION first_stem(code text, word text) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
      SELECT (tsvector_to_array(to_tsvector(search_language(code), word)))[1]
    $$;

    CREATE FUNCTION plain_words(whole text) RETURNS SETOF text LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
      SELECT word FROM unnest(tsvector_to_array(to_tsvector('simple', whole))) AS word WHERE word ~ '^[[:alnum:]]{1,40}$'
    $$;

    CREATE TABLE search_word (
      site text NOT NULL REFERENCES site (key) ON UPDATE CASCADE ON DELETE CASCADE,
      word text NOT NULL,
      stem text NOT NULL,
      PRIMARY KEY (site, word)
    );

    CREATE FUNCTION index_for_search(of_site text, pages text[]) RETURNS void LANGUAGE sql AS $$
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

    CREATE FUNCTION live_node_search() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN
      PERFORM index_for_search(site, array_agg(id)) FROM changed GROUP BY site;
      RETURN NULL;
    END $$;
    CREATE TRIGGER live_node_search_added AFTER INSERT ON live_node
      REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION live_node_search();
    CREATE TRIGGER live_node_search_changed AFTER UPDATE ON live_node
      REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION live_node_search();
    CREATE TRIGGER live_node_search_gone AFTER DELETE ON live_node
      REFERENCING OLD TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION live_node_search();

    CREATE FUNCTION site_search() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN
      DELETE FROM search_word WHERE site = NEW.key;
      PERFORM index_for_search(NEW.key, array_agg(id)) FROM live_node WHERE site = NEW.key;
      RETURN NULL;
    END $$;
    CREATE TRIGGER site_search_language AFTER UPDATE OF live_language ON site
      FOR EACH ROW WHEN (OLD.live_language IS DISTINCT FROM NEW.live_language) EXECUTE FUNCTION site_search();

    SELECT index_for_search(key, (SELECT array_agg(id) FROM live_node WHERE site = key)) FROM site;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP TRIGGER site_search_language ON site;
    DROP TRIGGER live_node_search_added ON live_node;
    DROP TRIGGER live_node_search_changed ON live_node;
    DROP TRIGGER live_node_search_gone ON live_node;
    DROP FUNCTION site_search, live_node_search, index_for_search, search_words, plain_words, first_stem, plain_text, search_language;
    DROP TABLE search_document, search_word;
  `);
}
