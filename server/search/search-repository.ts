import type { Knex } from 'knex';
import type { Membership } from '#core/derive/access.ts';
import type { AudienceId } from '#core/model/audience.ts';
import type { PageId, SiteKey } from '#core/model/ids.ts';

/** What is searched: the pages of a site that are live, or those of its draft. */
export interface Searched {
  readonly site: SiteKey;
  readonly language: string;
  readonly isDraft: boolean;
  /** Who searches: what sections of pages are for others is not looked through. */
  readonly visitor: Membership;
  /** The audiences that the site has. */
  readonly audiences: readonly AudienceId[];
}

/** What is looked for, as PostgreSQL writes it (`tsquery`). */
export type Query = string & { readonly brand: 'Query' };

/** More pages than anybody looks through; the best stand first. */
const MAX_HITS = 2000;

/** Whether a section is for the visitor: as `seesSection` in the core has it. */
const IS_SHOWN = `(only_for IS NULL OR only_for && :visitor::text[]) AND NOT except_for && :visitor::text[]
  AND except_for <@ :audiences::text[]`;
/** Pages with sections for the visitor are put together; all others are found by the index. */
const LIVE = `WITH shown AS (
    SELECT page, string_agg(body, ' ' ORDER BY part) AS body, joined_words(words ORDER BY part) AS words
    FROM search_section WHERE site = :site AND ${IS_SHOWN} GROUP BY page)
  SELECT page, title, description, body, words FROM search_document
  WHERE site = :site AND page NOT IN (SELECT page FROM shown)
  UNION ALL
  SELECT d.page, d.title, d.description, concat_ws(' ', d.body, s.body), d.words || s.words
  FROM search_document d JOIN shown s ON s.page = d.page WHERE d.site = :site`;
/** Drafts change all the time and are searched by few, so nothing is kept ready for them. */
const DRAFT = `SELECT page, title, description, body, search_words(:language, title, description, body) AS words FROM (
  SELECT n.id AS page, concat_ws(' ', n.title ->> :language, n.label ->> :language) AS title,
    coalesce(n.description ->> :language, '') AS description,
    concat_ws(' ', c.plain, words_of_shared(n.site, site.shared, c.html),
      words_of_files(n.site, site.shared, c.html), words_of_fields(site.labels, n.access, n.details), (SELECT string_agg(body, ' ' ORDER BY part) FROM sections_of(c.parts) WHERE ${IS_SHOWN})) AS body
  FROM node n JOIN site ON site.key = n.site LEFT JOIN content c ON c.site = n.site AND c.id = n.content
  WHERE n.site = :site AND n.removed_with IS NULL AND n.type = 'page') AS drafted`;
const documents = ({ isDraft }: Searched): string => `(${isDraft ? DRAFT : LIVE}) AS d`;

/** The words of the pages, each with the stem that its forms have in common. */
const vocabulary = (searched: Searched): string =>
  searched.isDraft
    ? `(SELECT word, coalesce(first_stem(:language, word), '') AS stem FROM (SELECT DISTINCT word FROM ${documents(searched)},
        plain_words(d.title || ' ' || d.description || ' ' || d.body) AS word) AS plain)`
    : `(SELECT word, stem FROM search_word WHERE site = :site)`;

/** Words in a query, as PostgreSQL writes it; what else can be in it, such as addresses, is in no vocabulary. */
const QUERIED = `'''([[:alnum:]]{1,40})'''`;

/**
 * What somebody asks for: all of the words, in whatever form; `"two words"` beside each other, not `-word`, either by `or`.
 * Null where no live page has a word that it must have, so that nothing needs to be looked through.
 */
export async function exactQuery(database: Knex, searched: Searched, asked: string): Promise<Query | null> {
  const isAllThere = searched.isDraft
    ? 'true'
    : `query ~ '[|!]' OR NOT EXISTS (
        SELECT FROM regexp_matches(query, ${QUERIED}, 'g') AS queried (word)
        WHERE NOT EXISTS (SELECT FROM search_word WHERE site = :site AND stem = queried.word[1]))`;
  const { rows } = await database.raw<{ rows: { query: Query; isAllThere: boolean }[] }>(
    `SELECT query, ${isAllThere} AS "isAllThere"
     FROM (SELECT websearch_to_tsquery(search_language(:language), :asked)::text AS query) AS written`,
    { ...sourceOf(searched), asked },
  );
  const { query, isAllThere: isThere } = rows[0]!;
  return isThere ? query : null;
}

/**
 * The same with words of the pages that are close to those asked for, as one comes to them by typing mistakes: so many
 * letters more, less or other, fewer in short words. Null where a word has none. Words of closed pages are among them;
 * who may not open these finds nothing by them.
 */
export async function closeQuery(
  database: Knex,
  searched: Searched,
  asked: string,
  mistakes: 1 | 2,
): Promise<Query | null> {
  const words = [...new Set(asked.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [])].filter((word) => word.length <= 40);
  const { rows } = await database.raw<{ rows: { query: Query | null }[] }>(
    `WITH wanted AS (
       SELECT word, first_stem(:language, word) AS stem,
         CASE WHEN length(word) < 4 THEN 0 WHEN length(word) < 6 THEN 1 ELSE :mistakes::int END AS most
       FROM unnest(:words::text[]) AS word
     ), near AS (
       SELECT w.word, string_agg(DISTINCT quote_literal(v.stem), ' | ') AS stems
       FROM wanted w JOIN ${vocabulary(searched)} AS v ON v.stem <> ''
         AND (levenshtein_less_equal(v.word, w.word, w.most) <= w.most OR levenshtein_less_equal(v.stem, w.stem, w.most) <= w.most)
       WHERE w.stem IS NOT NULL GROUP BY w.word
     )
     SELECT CASE WHEN count(*) = (SELECT count(*) FROM wanted WHERE stem IS NOT NULL)
       THEN string_agg('(' || stems || ')', ' & ')::tsquery::text END AS query FROM near`,
    { ...sourceOf(searched), words, mistakes },
  );
  return rows[0]?.query ?? null;
}

/**
 * The pages that a query finds, the best first: words in a title count most, those in a description next.
 * @param among the pages that are looked at, or those that are not: whichever is less to say
 */
export async function pagesFound(
  database: Knex,
  searched: Searched,
  query: Query,
  among: { readonly only: readonly PageId[] } | { readonly but: readonly PageId[] },
): Promise<PageId[]> {
  const [holds, pages] = 'only' in among ? ['= ANY', among.only] : ['<> ALL', among.but];
  const { rows } = await database.raw<{ rows: { page: PageId }[] }>(
    `SELECT d.page FROM ${documents(searched)} WHERE d.words @@ :query::tsquery AND d.page ${holds} (:pages::text[])
     ORDER BY ts_rank_cd(d.words, :query::tsquery, 1) DESC, d.page LIMIT ${MAX_HITS}`,
    { ...sourceOf(searched), query, pages: [...pages] },
  );
  return rows.map(({ page }) => page);
}

/** Signs around the words that were looked for; no text has them. */
export const MARK = { start: '\u0002', end: '\u0003' } as const;

/** So much of a long text is looked at for an extract, from so far before the first word that was looked for, in letters. */
const AROUND = 700;
const BEFORE = 250;

/**
 * What is looked at for the extract of a page. PostgreSQL takes apart every word of what it is given, and a text can have tens of thousands,
 * so that of a long one only what stands around the first word is taken, in any of the forms that live pages have of it.
 */
const lookedAt = ({ isDraft }: Searched): string =>
  isDraft
    ? 'd.body'
    : `CASE WHEN length(d.body) <= ${AROUND} THEN d.body ELSE
        substring(d.body FROM greatest(1, regexp_instr(d.body, (SELECT pattern FROM forms), 1, 1, 0, 'i') - ${BEFORE}) FOR ${AROUND}) END`;

/** The forms that live pages have of the words in a query, as one pattern. */
const FORMS = `SELECT coalesce('\\m(' || string_agg(word, '|') || ')\\M', '') AS pattern FROM search_word
  WHERE site = :site AND stem IN (SELECT queried.word[1] FROM regexp_matches(:query, ${QUERIED}, 'g') AS queried (word))`;

/** A few lines of each page around the words that were looked for, which stand between the signs of `MARK`. */
export async function extractsOf(
  database: Knex,
  searched: Searched,
  pages: readonly PageId[],
  query: Query,
): Promise<Map<PageId, string>> {
  if (pages.length === 0) return new Map();
  const { rows } = await database.raw<{ rows: { page: PageId; extract: string }[] }>(
    `WITH forms AS MATERIALIZED (${FORMS})
     SELECT d.page, ts_headline(search_language(:language), CASE WHEN d.body = '' THEN d.description ELSE ${lookedAt(searched)} END,
       :query::tsquery,
       'StartSel=${MARK.start}, StopSel=${MARK.end}, MaxFragments=2, MinWords=10, MaxWords=26, FragmentDelimiter=" … "') AS extract
     FROM ${documents(searched)} WHERE d.page = ANY (:pages)`,
    { ...sourceOf(searched), query, pages: [...pages] },
  );
  return new Map(rows.map(({ page, extract }) => [page, extract]));
}

const sourceOf = ({ site, language, visitor, audiences }: Searched) => ({
  site,
  language,
  visitor: [...visitor],
  audiences: [...audiences],
});
