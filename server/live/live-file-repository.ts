import type { Knex } from 'knex';
import { filesInFields } from '#core/derive/file-fields.ts';
import type { FileId } from '#core/files/file.ts';
import type { RenderedPart } from '#core/model/content.ts';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { TEXTS_OF } from '../database/texts-of-pages.ts';
import { type FileRow, factsOf } from '../library/file-repository.ts';
import { type FileUse, type LiveFile, type LiveFiles, NO_FILES } from './live-files.ts';

/** The files of a site that pages can show. @param isDraft whether those that are not ready yet are among them */
export async function liveFiles(database: Knex, site: SiteKey, isDraft = false): Promise<LiveFiles> {
  const rows: FileRow[] = await database('file')
    .where({ site, removed_at: null })
    .whereIn('state', isDraft ? ['ready', 'waiting'] : ['ready']);
  return rows.length === 0
    ? NO_FILES
    : new Map(
        rows.map((row): [FileId, LiveFile] => [
          row.id,
          {
            ...factsOf(row),
            isReady: row.state === 'ready',
          },
        ]),
      );
}

/** Where a file is shown, in the draft or in what is live. */
async function fileUses(database: Knex, site: SiteKey, file: FileId, of: 'node' | 'live_node'): Promise<FileUse[]> {
  const rows: { page: PageId; shared: string | null; parts: RenderedPart[] | null; around: RenderedPart[] | null }[] =
    await database(`${TEXTS_OF[of]} as n`)
      .join('content as c', (join) => join.on('c.site', 'n.site').andOn('c.id', 'n.content'))
      .join('content as host', (join) => join.on('host.site', 'n.site').andOn('host.id', 'n.host'))
      .where('n.site', site)
      .whereRaw(`c.files @> ARRAY[?]::text[] AND c.files <> '{}'`, [file])
      .select('n.page', 'n.shared', 'c.parts', 'host.parts as around');
  return rows.map(({ page, shared, parts, around }) => ({
    page,
    parts: parts?.filter((one) => one.files?.includes(file)) ?? null,
    around: (shared !== null && around?.filter((one) => one.shared?.includes(shared))) || null,
  }));
}

/** The files by the contents that they have and had before they were replaced. */
export async function filesByContent(database: Knex, site: SiteKey): Promise<ReadonlyMap<string, FileId>> {
  const rows: { content: string; file: FileId }[] = await database('file_content').where({ site });
  return new Map(rows.map(({ content, file }) => [content, file]));
}

/**
 * The files that have a content now; where none has it, the one that had it before it was replaced. Two files of a site come to have the
 * same bytes where one of them is replaced by those of the other.
 */
export function filesOfContent(
  files: LiveFiles,
  byContent: ReadonlyMap<string, FileId>,
  content: string,
): readonly LiveFile[] {
  const known = byContent.get(content);
  if (known === undefined) return [];
  const now = [...files.values()].filter((file) => file.content === content);
  const former = files.get(known);
  return now.length > 0 || !former ? now : [former];
}

/** Where any of some files is shown: in texts, and in the fields of pages. @param site the tree that `of` is of */
export async function usesOfAll(
  database: Knex,
  site: Site,
  files: readonly LiveFile[],
  of: 'node' | 'live_node',
): Promise<FileUse[]> {
  const inTexts = await Promise.all(files.map(({ id }) => fileUses(database, site.key, id, of)));
  const { shown } = filesInFields(site);
  const inFields = files.flatMap(({ id }) => shown.get(id) ?? []);
  return [...inTexts.flat(), ...inFields.map((page): FileUse => ({ page, parts: null, around: null }))];
}

/** The files that addresses of the old site lead to, by path and query. */
export async function oldFiles(database: Knex, site: SiteKey): Promise<ReadonlyMap<string, FileId>> {
  const rows: { path: string; file: FileId }[] = await database('old_file').where({ site });
  return new Map(rows.map(({ path, file }) => [path, file]));
}
