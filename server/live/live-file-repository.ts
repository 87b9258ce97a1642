import type { Knex } from 'knex';
import type { FileId } from '#core/files/file.ts';
import type { RenderedPart } from '#core/model/content.ts';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { FileRow } from '../library/file-repository.ts';
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
            id: row.id,
            name: row.name,
            type: row.type,
            content: row.content,
            length: Number(row.bytes),
            width: row.width,
            height: row.height,
            pages: row.pages,
            hasPicture: row.has_picture,
            focalX: row.focal_x,
            focalY: row.focal_y,
            alternative: row.alternative,
            isDecoration: row.is_decoration,
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

/** The file that has a content, or had it before it was replaced; undefined where there is none that can be shown. */
export async function fileOfContent(
  database: Knex,
  site: SiteKey,
  files: LiveFiles,
  content: string,
): Promise<LiveFile | undefined> {
  for (const file of files.values()) if (file.content === content) return file;
  const row: { file: FileId } | undefined = await database('file_content').where({ site, content }).first('file');
  return row && files.get(row.file);
}
