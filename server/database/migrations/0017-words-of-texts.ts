import type { Knex } from 'knex';

/**
 * Indexes live pages for search, by what they say to everyone, and their sections for some. Each page and each text is looked up by its whole
 * key, in a query of its own that the planner cannot take apart: it knows nothing of rows that came in this transaction, and a plan made
 * while there were few pages is kept. Else it looks through all of a site's for each.
 */
export const INDEX_FOR_SEARCH = `CREATE OR REPLACE FUNCTION index_for_search(of_site text, pages text[]) RETURNS void LANGUAGE plpgsql
    SET enable_seqscan TO off AS $$
    DECLARE
      spoken text := (SELECT live_language FROM site WHERE key = of_site);
    BEGIN
      DELETE FROM search_document WHERE ctid = ANY (ARRAY(
        SELECT d.ctid FROM unnest(pages) AS asked (id), LATERAL (
          SELECT t.ctid FROM search_document t WHERE t.site = of_site AND t.page = asked.id OFFSET 0) d));
      DELETE FROM search_section WHERE ctid = ANY (ARRAY(
        SELECT d.ctid FROM unnest(pages) AS asked (id), LATERAL (
          SELECT t.ctid FROM search_section t WHERE t.site = of_site AND t.page = asked.id OFFSET 0) d));
      IF spoken IS NULL THEN RETURN; END IF;
      INSERT INTO search_document (site, page, title, description, body, words)
      SELECT of_site, n.id, n.title, n.description, coalesce(c.plain, ''),
        search_words(spoken, n.title, n.description, '')
          || CASE WHEN c.language = spoken THEN c.words ELSE to_tsvector(search_language(spoken), coalesce(c.plain, '')) END
      FROM unnest(pages) AS asked (id)
      CROSS JOIN LATERAL (
        SELECT l.id, l.content, concat_ws(' ', l.title ->> spoken, l.label ->> spoken) AS title,
          coalesce(l.description ->> spoken, '') AS description
        FROM live_node l WHERE l.site = of_site AND l.id = asked.id AND l.type = 'page' AND NOT l.is_retired OFFSET 0
      ) n
      LEFT JOIN LATERAL (SELECT t.* FROM content t WHERE t.site = of_site AND t.id = n.content OFFSET 0) c ON true;
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
        UNION ALL SELECT s.words FROM unnest(%2$L::text[]) AS asked (id)
        CROSS JOIN LATERAL (
          SELECT to_tsvector('simple', t.body) AS words FROM search_section t WHERE t.site = %1$L AND t.page = asked.id OFFSET 0) s
      $words$, of_site, pages)) AS w
      WHERE w.word ~ '^[[:alnum:]]{1,40}$'
      ON CONFLICT DO NOTHING;
    END $$;`;

/**
 * A text is made plain and its words are found when it is saved, once, and not again by each release that brings it: the first
 * release of a large site spent nearly all of its time on that. `words` are stems in the language that the site has
 * then, `bare_words` the words as they stand.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE content ADD COLUMN plain text, ADD COLUMN language text, ADD COLUMN words tsvector, ADD COLUMN bare_words tsvector;

    CREATE FUNCTION words_of_text() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN
      NEW.plain := plain_text(NEW.html);
      NEW.language := (SELECT language FROM site WHERE key = NEW.site);
      NEW.words := to_tsvector(search_language(NEW.language), NEW.plain);
      NEW.bare_words := to_tsvector('simple', NEW.plain);
      RETURN NEW;
    END $$;
    CREATE TRIGGER content_words BEFORE INSERT OR UPDATE OF html ON content FOR EACH ROW EXECUTE FUNCTION words_of_text();
    UPDATE content SET html = html;

    ${INDEX_FOR_SEARCH}

    -- With the first release the pages are indexed as they come; there are none yet when the language does.
    DROP TRIGGER site_search_language ON site;
    CREATE TRIGGER site_search_language AFTER UPDATE OF live_language ON site
      FOR EACH ROW WHEN (OLD.live_language IS NOT NULL AND OLD.live_language IS DISTINCT FROM NEW.live_language)
      EXECUTE FUNCTION site_search();
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP TRIGGER site_search_language ON site;
    CREATE TRIGGER site_search_language AFTER UPDATE OF live_language ON site
      FOR EACH ROW WHEN (OLD.live_language IS DISTINCT FROM NEW.live_language) EXECUTE FUNCTION site_search();
    DROP FUNCTION index_for_search;
    CREATE FUNCTION index_for_search(of_site text, pages text[]) RETURNS void LANGUAGE sql AS $$
      DELETE FROM search_document WHERE site = of_site AND page = ANY (pages);
      DELETE FROM search_section WHERE site = of_site AND page = ANY (pages);
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
    DROP TRIGGER content_words ON content;
    DROP FUNCTION words_of_text;
    ALTER TABLE content DROP COLUMN plain, DROP COLUMN language, DROP COLUMN words, DROP COLUMN bare_words;
  `);
}
