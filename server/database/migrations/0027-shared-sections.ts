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
  `);
}

export async function down(knex: Knex): Promise<void> {
  await knex.raw(`
    DROP VIEW draft_text, live_text;
    DROP INDEX content_shared;
    ALTER TABLE content DROP COLUMN shared;
    ALTER TABLE site DROP COLUMN shared, DROP COLUMN live_shared;
  `);
}
