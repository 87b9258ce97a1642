import type { Knex } from 'knex';
import type { FileId } from '#core/files/file.ts';
import type { RenderedPart } from '#core/model/content.ts';
import type { PageId, SiteKey } from '#core/model/ids.ts';
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
export async function fileUses(
  database: Knex,
  site: SiteKey,
  file: FileId,
  of: 'node' | 'live_node',
): Promise<FileUse[]> {
  const rows: { id: PageId; parts: RenderedPart[] | null }[] = await database(`${of} as n`)
    .join('content as c', (join) => join.on('c.site', 'n.site').andOn('c.id', 'n.content'))
    .where('n.site', site)
    .where(of === 'node' ? { 'n.removed_with': null } : { 'n.is_retired': false })
    .whereRaw(`c.files @> ARRAY[?]::text[] AND c.files <> '{}'`, [file])
    .select('n.id', 'c.parts');
  return rows.map(({ id, parts }) => ({ page: id, parts: parts?.filter((one) => one.files?.includes(file)) ?? null }));
}

/** The files by the contents that they have and had before they were replaced. */
export async function filesByContent(database: Knex, site: SiteKey): Promise<ReadonlyMap<string, FileId>> {
  const rows: { content: string; file: FileId }[] = await database('file_content').where({ site });
  return new Map(rows.map(({ content, file }) => [content, file]));
}

/** The file that has a content, or had it before it was replaced; undefined where there is none that can be shown. */
export function fileOfContent(
  files: LiveFiles,
  byContent: ReadonlyMap<string, FileId>,
  content: string,
): LiveFile | undefined {
  const file = byContent.get(content);
  return file && files.get(file);
}
