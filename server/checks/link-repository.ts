import type { Knex } from 'knex';
import type { OutsideLink, TextLink } from '#core/checks/link-findings.ts';
import { type TextDocument, headingsOf } from '#core/model/content.ts';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import { TEXTS_OF } from '../database/texts-of-pages.ts';
import { oneOf } from '../database/one-of.ts';

type Of = 'node' | 'live_node';

/**
 * What is found in the texts of pages by a pattern with groups; each page with each find once. Only texts that hold `words` are
 * looked through: the pattern takes long, and most have no link.
 */
async function foundInTexts(database: Knex, key: SiteKey, of: Of, words: string, pattern: string) {
  const { rows } = await database.raw(
    `WITH texts AS MATERIALIZED (
       SELECT id, html || coalesce(parts::text, '') AS whole FROM content
       WHERE site = :key AND (html LIKE :holds OR parts::text LIKE :holds)
     )
     SELECT DISTINCT n.page, found FROM texts
     JOIN ${TEXTS_OF[of]} AS n ON n.site = :key AND n.content = texts.id
     CROSS JOIN LATERAL regexp_matches(texts.whole, :pattern, 'g') AS found
     ORDER BY 1, 2`,
    { key, pattern, holds: `%${words}%` },
  );
  return rows as { page: PageId; found: (string | null)[] }[];
}

/** The links within texts to pages of the site, of the draft or of what is live. */
export async function textLinks(database: Knex, key: SiteKey, of: Of): Promise<TextLink[]> {
  const found = await foundInTexts(database, key, of, 'page:', 'href=\\\\?"page:([0-9A-Za-z]+)(?:#([a-z0-9-]+))?');
  const links = found.map(({ page, found: [to, heading] }) => ({ page, to: to as PageId, heading: heading ?? null }));
  const anchors = await anchorsOf(
    database,
    key,
    of,
    links.filter(({ heading }) => heading !== null).map(({ to }) => to),
  );
  return links.map((link) => ({
    ...link,
    hasHeading: link.heading === null || (anchors.get(link.to)?.has(link.heading) ?? false),
  }));
}

/** The anchors of the headings of pages. */
async function anchorsOf(database: Knex, key: SiteKey, of: Of, pages: readonly PageId[]) {
  if (pages.length === 0) return new Map<PageId, Set<string>>();
  const rows: { id: PageId; document: TextDocument }[] = await database(`${of} as n`)
    .join('content', (join) => join.on('content.site', 'n.site').andOn('content.id', 'n.content'))
    .where('n.site', key)
    .where(oneOf('n.id', new Set(pages)))
    .select('n.id', 'content.document');
  return new Map(rows.map(({ id, document }) => [id, new Set(headingsOf(document).map(({ anchor }) => anchor))]));
}

/** The links within the texts of the draft to web addresses. */
export async function outsideTextLinks(database: Knex, key: SiteKey): Promise<OutsideLink[]> {
  const found = await foundInTexts(database, key, 'node', '://', 'href=\\\\?"(https?://[^"\\\\]+)');
  return found.map(({ page, found: [address] }) => ({ page, address: address!.replaceAll('&amp;', '&') }));
}
