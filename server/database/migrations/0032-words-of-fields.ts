import type { Knex } from 'knex';

export const INDEX_WITH_FIELDS = `CREATE OR REPLACE FUNCTION index_for_search(of_site text, pages text[]) RETURNS void LANGUAGE plpgsql AS $$
    DECLARE
      spoken text := (SELECT live_language FROM site WHERE key = of_site);
      kinds jsonb := (SELECT live_labels FROM site WHERE key = of_site);
    BEGIN
      PERFORM index_texts_for_search(of_site, pages);
      IF spoken IS NULL OR NOT EXISTS (
        SELECT FROM jsonb_array_elements(kinds) AS l (label) WHERE jsonb_exists(l.label, 'fields')) THEN RETURN; END IF;
      UPDATE search_document d
      SET body = concat_ws(' ', d.body, f.words), words = with_words(d.words, search_language(spoken), f.words)
      FROM live_node n, LATERAL (SELECT words_of_fields(kinds, n.access, n.details) AS words OFFSET 0) f
      WHERE d.site = of_site AND d.page = ANY (pages) AND n.site = of_site AND n.id = d.page
        AND n.details IS NOT NULL AND f.words IS NOT NULL;
      INSERT INTO search_word (site, word, stem)
      SELECT DISTINCT of_site, w.word, coalesce(first_stem(spoken, w.word), '')
      FROM live_node n, LATERAL plain_words(words_of_fields(kinds, n.access, n.details)) AS w (word)
      WHERE n.site = of_site AND n.id = ANY (pages) AND n.details IS NOT NULL AND NOT n.is_retired
        AND w.word ~ '^[[:alnum:]]{1,40}$'
      ON CONFLICT DO NOTHING;
    END $$;`;

/** Pages are found by what they say in the fields of their kind that visitors see. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    -- What a page says in fields for visitors, as far as it is words; choices by their names.
    CREATE FUNCTION words_of_fields(labels jsonb, access jsonb, details jsonb) RETURNS text LANGUAGE sql STABLE AS $$
      SELECT string_agg(CASE f.type WHEN 'choice' THEN (
          SELECT string_agg(c.name, ' ') FROM jsonb_to_recordset(f.choices) AS c (id text, name text)
          WHERE c.id = ANY (string_to_array(said.value, ' ')))
        ELSE said.value END, ' ' ORDER BY said.key)
      FROM jsonb_array_elements(labels) AS l (label)
      CROSS JOIN LATERAL jsonb_to_recordset(coalesce(l.label -> 'fields', '[]'))
        AS f (id text, type text, "isForVisitors" boolean, "isRemoved" boolean, choices jsonb)
      JOIN jsonb_each_text(details) AS said ON said.key = f.id
      WHERE jsonb_exists(l.label, 'about') AND jsonb_exists(coalesce(access -> 'labels', '[]'), l.label ->> 'id') AND f."isForVisitors" AND NOT f."isRemoved"
        AND f.type IN ('text', 'longText', 'number', 'choice', 'telephone', 'mail', 'address')
    $$;

    ALTER FUNCTION index_for_search(text, text[]) RENAME TO index_texts_for_search;
    ${INDEX_WITH_FIELDS}

    -- Other fields, or others that visitors see, change what pages are found by.
    CREATE FUNCTION site_fields_search() RETURNS trigger LANGUAGE plpgsql AS $$
    BEGIN
      PERFORM index_for_search(NEW.key, array_agg(id)) FROM live_node WHERE site = NEW.key AND details IS NOT NULL HAVING count(*) > 0;
      RETURN NULL;
    END $$;
    CREATE TRIGGER site_search_fields AFTER UPDATE OF live_labels ON site
      FOR EACH ROW WHEN (OLD.live_labels IS DISTINCT FROM NEW.live_labels) EXECUTE FUNCTION site_fields_search();
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP TRIGGER site_search_fields ON site;
    DROP FUNCTION site_fields_search, index_for_search, words_of_fields;
    ALTER FUNCTION index_texts_for_search(text, text[]) RENAME TO index_for_search;
    SELECT index_for_search(key, (SELECT array_agg(id) FROM live_node WHERE site = key)) FROM site;
  `);
}
