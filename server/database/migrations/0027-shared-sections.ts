import type { Knex } from 'knex';

/**
 * Shared sections: a site has them among its settings, and texts say which they show. `draft_text` and `live_text` have every text that
 * stands on a page, its own and those of shared sections; `host` is the page's own text, in which the others stand.
 */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE site ADD COLUMN shared jsonb NOT NULL DEFAULT '[]', ADD COLUMN live_shared jsonb NOT NULL DEFAULT '[]';
    ALTER TABLE content ADD COLUMN shared text[] NOT NULL DEFAULT '{}';
    CREATE INDEX content_shared ON content USING gin (shared) WHERE shared <> '{}';

    CREATE VIEW draft_text AS
      SELECT n.site, n.id AS page, n.content, n.content AS host, NULL::text AS shared
      FROM node n WHERE n.removed_with IS NULL AND n.content IS NOT NULL
      UNION ALL
      SELECT n.site, n.id, s.content, n.content, s.id
      FROM node n JOIN content c ON c.site = n.site AND c.id = n.content AND c.shared <> '{}'
      JOIN site ON site.key = n.site CROSS JOIN LATERAL jsonb_to_recordset(site.shared) AS s (id text, content text)
      WHERE n.removed_with IS NULL AND s.content IS NOT NULL AND s.id = ANY (c.shared);
    CREATE VIEW live_text AS
      SELECT n.site, n.id AS page, n.content, n.content AS host, NULL::text AS shared
      FROM live_node n WHERE NOT n.is_retired AND n.content IS NOT NULL
      UNION ALL
      SELECT n.site, n.id, s.content, n.content, s.id
      FROM live_node n JOIN content c ON c.site = n.site AND c.id = n.content AND c.shared <> '{}'
      JOIN site ON site.key = n.site CROSS JOIN LATERAL jsonb_to_recordset(site.live_shared) AS s (id text, content text)
      WHERE NOT n.is_retired AND s.content IS NOT NULL AND s.id = ANY (c.shared);

    -- What the shared sections in a text say to everyone; null where there are none.
    CREATE FUNCTION words_of_shared(of_site text, shared jsonb, html text) RETURNS text LANGUAGE sql STABLE AS $$
      SELECT string_agg(c.plain, ' ') FROM regexp_matches(html, 'data-shared="([0-9A-Za-z]+)"', 'g') AS found
      JOIN jsonb_to_recordset(shared) AS s (id text, content text) ON s.id = found[1]
      JOIN content c ON c.site = of_site AND c.id = s.content
    $$;

    CREATE OR REPLACE FUNCTION index_for_search(of_site text, pages text[]) RETURNS void LANGUAGE plpgsql
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
      SELECT of_site, n.id, n.title, n.description, concat_ws(' ', coalesce(c.plain, ''), s.plain),
        search_words(spoken, n.title, n.description, '')
          || CASE WHEN c.language = spoken THEN c.words ELSE to_tsvector(search_language(spoken), coalesce(c.plain, '')) END
          || to_tsvector(search_language(spoken), coalesce(s.plain, ''))
      FROM unnest(pages) AS asked (id)
      CROSS JOIN LATERAL (
        SELECT l.id, l.content, concat_ws(' ', l.title ->> spoken, l.label ->> spoken) AS title,
          coalesce(l.description ->> spoken, '') AS description
        FROM live_node l WHERE l.site = of_site AND l.id = asked.id AND l.type = 'page' AND NOT l.is_retired OFFSET 0
      ) n
      LEFT JOIN LATERAL (SELECT t.* FROM content t WHERE t.site = of_site AND t.id = n.content OFFSET 0) c ON true
      LEFT JOIN LATERAL (SELECT words_of_shared(of_site, shown, c.html) AS plain OFFSET 0) s ON c.shared <> '{}';
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
        UNION ALL SELECT to_tsvector('simple', coalesce(words_of_shared(%1$L, %3$L::jsonb, c.html), ''))
        FROM unnest(%2$L::text[]) AS asked (id)
        CROSS JOIN LATERAL (
          SELECT l.content FROM live_node l
          WHERE l.site = %1$L AND l.id = asked.id AND l.type = 'page' AND NOT l.is_retired OFFSET 0) n
        CROSS JOIN LATERAL (
          SELECT t.html FROM content t WHERE t.site = %1$L AND t.id = n.content AND t.shared <> '{}' OFFSET 0) c
        UNION ALL SELECT s.words FROM unnest(%2$L::text[]) AS asked (id)
        CROSS JOIN LATERAL (
          SELECT to_tsvector('simple', t.body) AS words FROM search_section t WHERE t.site = %1$L AND t.page = asked.id OFFSET 0) s
      $words$, of_site, pages, shown)) AS w
      WHERE w.word ~ '^[[:alnum:]]{1,40}$'
      ON CONFLICT DO NOTHING;
    END $$;

    -- What a shared section says is found on the pages that show it.
    CREATE FUNCTION site_shared_search() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN
      PERFORM index_for_search(NEW.key, array_agg(n.id)) FROM live_node n
        JOIN content c ON c.site = n.site AND c.id = n.content AND c.shared <> '{}' WHERE n.site = NEW.key;
      RETURN NULL;
    END $$;
    CREATE TRIGGER site_search_shared AFTER UPDATE OF live_shared ON site
      FOR EACH ROW WHEN (OLD.live_shared IS DISTINCT FROM NEW.live_shared) EXECUTE FUNCTION site_shared_search();
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP TRIGGER site_search_shared ON site;
    DROP FUNCTION site_shared_search;
    CREATE OR REPLACE FUNCTION index_for_search(of_site text, pages text[]) RETURNS void LANGUAGE plpgsql
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
    END $$;
    DROP FUNCTION words_of_shared;
    DROP VIEW draft_text, live_text;
    DROP INDEX content_shared;
    ALTER TABLE content DROP COLUMN shared;
    ALTER TABLE site DROP COLUMN shared, DROP COLUMN live_shared;
  `);
}
