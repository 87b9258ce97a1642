import type { Knex } from 'knex';

/** Several write in the notes on a page, in shared sections and in the outlines of kinds too: a text is named by what it is of, and an id. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(`
    ALTER TABLE joint_text RENAME COLUMN page TO place;
    ALTER TABLE joint_update RENAME COLUMN page TO place;
    -- The updates of each go along.
    UPDATE joint_text SET place = 'page ' || place;
    -- The requests of edits that save a text name it.
    UPDATE edit_log SET request = request || ' ' || coalesce(operations -> 0 -> 'fields' ->> 'content', '')
      WHERE request LIKE 'text %';

    -- The text at a place, by its id: '' where nothing is written there yet, null where the site has no such place. That of a removed page is still there.
    CREATE FUNCTION text_at(site_key text, place text) RETURNS text LANGUAGE sql STABLE AS $$
      SELECT CASE split_part(place, ' ', 1)
        WHEN 'page' THEN
          (SELECT coalesce(content, '') FROM node WHERE site = site_key AND id = split_part(place, ' ', 2))
        WHEN 'notes' THEN
          (SELECT coalesce(plan ->> 'notes', '') FROM node WHERE site = site_key AND id = split_part(place, ' ', 2))
        WHEN 'shared' THEN
          (SELECT coalesce(one ->> 'content', '') FROM site, jsonb_array_elements(shared) AS one
            WHERE key = site_key AND one ->> 'id' = split_part(place, ' ', 2))
        WHEN 'outline' THEN
          (SELECT coalesce(one ->> 'pageOutline', '') FROM site, jsonb_array_elements(labels) AS one
            WHERE key = site_key AND one ->> 'id' = split_part(place, ' ', 2))
      END
    $$;
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP FUNCTION text_at;
    UPDATE edit_log SET request = split_part(request, ' ', 1) || ' ' || split_part(request, ' ', 2) || ' ' || split_part(request, ' ', 3)
      WHERE request LIKE 'text %';
    DELETE FROM joint_text WHERE place NOT LIKE 'page %';
    UPDATE joint_text SET place = split_part(place, ' ', 2);
    ALTER TABLE joint_update RENAME COLUMN place TO page;
    ALTER TABLE joint_text RENAME COLUMN place TO page;
  `);
}
