import type { Knex } from 'knex';
import type { OfText } from '#core/checks/page-check.ts';
import type { FileId } from '#core/files/file.ts';
import type { TextDocument } from '#core/model/content.ts';
import type { ContentId, PageId, SiteKey } from '#core/model/ids.ts';
import { type FileFacts, fileFaultsOf } from '#core/sections/file-faults.ts';
import { type TextFault, textFaultsOf } from '#core/sections/text-faults.ts';
import { TEXTS_OF } from '../database/texts-of-pages.ts';
import type { FileRow } from '../library/file-repository.ts';
import { oneOf } from '../database/one-of.ts';

/** A text never changes under its id, so that what was found in it holds. At most so many are kept. */
const known = new Map<ContentId, readonly TextFault[]>();
const MOST_KNOWN = 100_000;
/** So many texts are looked through before others have their turn. */
const AT_ONCE = 200;

/** What is found in the texts of pages, of the draft or of what is live. */
export async function textFaults(database: Knex, key: SiteKey, of: 'node' | 'live_node'): Promise<OfText[]> {
  const rows: { page: PageId; content: ContentId }[] = await database(TEXTS_OF[of])
    .where('site', key)
    .orderBy(['page', 'content'])
    .distinct('page', 'content');
  const unknown = [...new Set(rows.map(({ content }) => content))].filter((id) => !known.has(id));
  if (known.size + unknown.length > MOST_KNOWN) known.clear();
  const found = new Map<ContentId, readonly TextFault[]>();
  for (let from = 0; from < unknown.length; from += AT_ONCE) {
    const texts: { id: ContentId; document: TextDocument }[] = await database('content')
      .where('site', key)
      .whereIn('id', unknown.slice(from, from + AT_ONCE))
      .select('id', 'document');
    for (const { id, document } of texts) found.set(id, textFaultsOf(document));
  }
  for (const [id, faults] of found) known.set(id, faults);
  const ofFiles = await fileFaults(database, key, [...new Set(rows.map(({ content }) => content))]);
  const withoutShared = await pagesWithoutShared(database, key, of);
  const withoutForm = await pagesWithoutForm(database, key, of);
  return [
    ...rows.flatMap(({ page, content }) =>
      [...(found.get(content) ?? known.get(content) ?? []), ...(ofFiles.get(content) ?? [])].map((fault): OfText => ({
        page,
        fault,
      })),
    ),
    ...withoutShared.map((page): OfText => ({ page, fault: 'no shared' })),
    ...withoutForm.map((page): OfText => ({ page, fault: 'no form' })),
  ];
}

/** Pages with a place for a shared section that the site has not. */
async function pagesWithoutShared(database: Knex, key: SiteKey, of: 'node' | 'live_node'): Promise<PageId[]> {
  const { rows } = await database.raw<{ rows: { page: PageId }[] }>(
    `SELECT n.page FROM ${TEXTS_OF[of]} n JOIN site ON site.key = n.site
     JOIN content c ON c.site = n.site AND c.id = n.content AND c.shared <> '{}'
     WHERE n.site = :key AND n.shared IS NULL AND NOT c.shared <@ ARRAY(
       SELECT s ->> 'id' FROM jsonb_array_elements(site.${of === 'node' ? 'shared' : 'live_shared'}) AS s)`,
    { key },
  );
  return rows.map(({ page }) => page);
}

/** Pages with a place for a form that the site has not, in their own text or in a shared section. */
async function pagesWithoutForm(database: Knex, key: SiteKey, of: 'node' | 'live_node'): Promise<PageId[]> {
  const { rows } = await database.raw<{ rows: { page: PageId }[] }>(
    `SELECT DISTINCT n.page FROM ${TEXTS_OF[of]} n JOIN site ON site.key = n.site
     JOIN content c ON c.site = n.site AND c.id = n.content AND c.forms <> '{}'
     WHERE n.site = :key AND NOT c.forms <@ ARRAY(
       SELECT f ->> 'id' FROM jsonb_array_elements(site.${of === 'node' ? 'forms' : 'live_forms'}) AS f)`,
    { key },
  );
  return rows.map(({ page }) => page);
}

/** What is found of the files that texts show: it changes with the library. */
async function fileFaults(
  database: Knex,
  key: SiteKey,
  contents: readonly ContentId[],
): Promise<ReadonlyMap<ContentId, readonly TextFault[]>> {
  const texts: { id: ContentId; document: TextDocument }[] = await database('content')
    .where('site', key)
    .where(oneOf('id', contents))
    .whereRaw(`files <> '{}'`)
    .select('id', 'document');
  if (texts.length === 0) return new Map();
  const rows: FileRow[] = await database('file').where({ site: key, removed_at: null });
  const library = new Map(
    rows.map((row): [FileId, FileFacts] => [
      row.id,
      {
        type: row.type,
        length: Number(row.bytes),
        alternative: row.alternative,
        isDecoration: row.is_decoration,
      },
    ]),
  );
  return new Map(texts.map(({ id, document }) => [id, fileFaultsOf(document, library)]));
}
