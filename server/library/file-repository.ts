import { randomBytes } from 'node:crypto';
import type { Knex } from 'knex';
import type { FileContent, FileId } from '#core/files/file.ts';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { ArchivedFile } from '#contract/archive.ts';
import type { LibraryFile, SetFileBody } from '#contract/files.ts';
import { RELEASE_CHANNEL } from '../database/channels.ts';
import { TEXTS_OF } from '../database/texts-of-pages.ts';
import type { Prepared } from './prepare-file.ts';

/** A file as the database has it. */
export interface FileRow {
  readonly site: SiteKey;
  readonly id: FileId;
  readonly name: string;
  readonly type: string;
  readonly content: FileContent;
  /** PostgreSQL's bigint, as text. */
  readonly bytes: string;
  readonly width: number | null;
  readonly height: number | null;
  readonly pages: number | null;
  readonly has_picture: boolean;
  readonly focal_x: number;
  readonly focal_y: number;
  readonly alternative: string;
  readonly is_decoration: boolean;
  readonly state: LibraryFile['state'];
  readonly fault: string | null;
  readonly added_at: Date;
  readonly added_by: string | null;
  readonly removed_at: Date | null;
}

/** What is told of a file wherever it is shown. */
export const factsOf = (row: FileRow) => ({
  id: row.id,
  name: row.name,
  type: row.type,
  content: row.content,
  /** In bytes. */
  length: Number(row.bytes),
  width: row.width,
  height: row.height,
  pages: row.pages,
  hasPicture: row.has_picture,
  focalX: row.focal_x,
  focalY: row.focal_y,
  alternative: row.alternative,
  isDecoration: row.is_decoration,
});

const LETTERS = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz';

/** A new id of 16 letters and digits; those of all sites differ, so that a text that is copied to another site finds its files. */
export const newFileId = (): FileId =>
  Array.from(randomBytes(16), (byte) => LETTERS[byte % LETTERS.length]).join('') as FileId;

/** Whether a text shows something to some audiences alone. */
const isForSome = (
  text: string,
  what: 'files' | 'shared',
  shown: string,
): string => `(${text}.parts IS NOT NULL AND NOT EXISTS (
  SELECT FROM jsonb_array_elements(${text}.parts) AS part
  WHERE part -> '${what}' @> to_jsonb(${shown}) AND part -> 'only' = 'null' AND part -> 'except' = '[]'))`;

/** The files of a site, the newest first; one of them where an id is given, and none that was removed. */
export async function listFiles(database: Knex, site: SiteKey, id?: FileId): Promise<LibraryFile[]> {
  const uses = (of: 'node' | 'live_node') => `
    SELECT shown.file, array_agg(DISTINCT n.page) AS pages,
      array_agg(DISTINCT n.page) FILTER (WHERE ${isForSome('c', 'files', 'shown.file')}
        OR n.shared IS NOT NULL AND ${isForSome('host', 'shared', 'n.shared')}) AS in_sections
    FROM ${TEXTS_OF[of]} n
    JOIN content c ON c.site = n.site AND c.id = n.content AND c.files <> '{}'
    JOIN content host ON host.site = n.site AND host.id = n.host
    CROSS JOIN LATERAL unnest(c.files) AS shown (file)
    WHERE n.site = :site GROUP BY shown.file`;
  const { rows } = await database.raw<{
    rows: (FileRow & { by: string | null; used_by: PageId[]; live_on: PageId[]; live_in_sections: PageId[] })[];
  }>(
    `WITH used AS (${uses('node')}), live AS (${uses('live_node')})
     SELECT f.*, account.name AS by, coalesce(used.pages, '{}') AS used_by, coalesce(live.pages, '{}') AS live_on,
       coalesce(live.in_sections, '{}') AS live_in_sections
     FROM file f LEFT JOIN account ON account.id = f.added_by
     LEFT JOIN used ON used.file = f.id LEFT JOIN live ON live.file = f.id
     WHERE f.site = :site AND f.removed_at IS NULL ${id === undefined ? '' : 'AND f.id = :id'}
     ORDER BY f.added_at DESC, f.id`,
    { site, ...(id !== undefined && { id }) },
  );
  return rows.map((row) => ({
    ...factsOf(row),
    state: row.state,
    fault: row.fault,
    addedAt: row.added_at.toISOString(),
    addedBy: row.by,
    usedBy: row.used_by,
    liveOn: row.live_on,
    liveInSections: row.live_in_sections,
  }));
}

/** The files that somebody has brought to a site, removed ones too. */
export const filesAddedBy = async (database: Knex, site: SiteKey, added_by: string): Promise<ReadonlySet<FileId>> =>
  new Set(await database('file').where({ site, added_by }).pluck('id'));

export const fileAt = (database: Knex, site: SiteKey, id: FileId): Promise<FileRow | undefined> =>
  database('file').where({ site, id }).first();

/** What is known of a file when it has come. */
export interface NewFile {
  readonly name: string;
  readonly type: string;
  readonly content: FileContent;
  readonly bytes: number;
  readonly width: number | null;
  readonly height: number | null;
  readonly account: string | null;
  readonly at: Date;
}

/** A ready file with these bytes, of whichever library; undefined where there is none. */
export const fileWithContent = (database: Knex, content: FileContent): Promise<FileRow | undefined> =>
  database('file').where({ content, state: 'ready' }).first();

/** The files of a site with what they were before they were replaced, removed ones too, for taking along. */
export async function filesToTake(trx: Knex, site: SiteKey): Promise<ArchivedFile[]> {
  const rows: FileRow[] = await trx('file').where({ site }).orderBy('id');
  const contents: { content: FileContent; file: FileId }[] = await trx('file_content')
    .where({ site })
    .orderBy('content');
  const byFile = new Map<FileId, FileContent[]>();
  for (const { content, file } of contents) byFile.set(file, [...(byFile.get(file) ?? []), content]);
  return rows.map((row) => ({
    id: row.id,
    name: row.name,
    type: row.type as ArchivedFile['type'],
    content: row.content,
    alternative: row.alternative,
    isDecoration: row.is_decoration,
    focalX: row.focal_x,
    focalY: row.focal_y,
    addedAt: row.added_at.toISOString(),
    isRemoved: row.removed_at !== null,
    formerContents: (byFile.get(row.id) ?? []).filter((one) => one !== row.content),
  }));
}

/** How long the files of a site are together, removed ones too, in bytes. */
export const bytesOfFiles = async (database: Knex, site: SiteKey): Promise<number> =>
  Number((await database('file').where({ site }).sum('bytes as bytes').first())?.bytes ?? 0);

/** A file of an archive, with what is known of its bytes. */
export interface BroughtFile extends ArchivedFile {
  readonly bytes: number;
  readonly width: number | null;
  readonly height: number | null;
  readonly pages: number | null;
  readonly hasPicture: boolean;
  readonly isReady: boolean;
}

/** Puts files that were brought into a library; where it has one of that id already, the one that was brought stands. */
export async function putFiles(
  trx: Knex,
  site: SiteKey,
  files: readonly BroughtFile[],
  { account, now }: { readonly account: string; readonly now: Date },
): Promise<void> {
  for (const file of files) {
    const { id, name, type, content, bytes, width, height, pages, alternative } = file;
    await trx('file')
      .insert({
        ...{ site, id, name, type, content, bytes, width, height, pages, alternative },
        has_picture: file.hasPicture,
        is_decoration: file.isDecoration,
        focal_x: file.focalX,
        focal_y: file.focalY,
        state: file.isReady ? 'ready' : 'waiting',
        added_at: file.addedAt,
        added_by: account,
        removed_at: file.isRemoved ? now : null,
      })
      .onConflict(['site', 'id'])
      .merge();
    for (const one of [...file.formerContents, content]) await nameContent(trx, site, id, one);
  }
}

/** Adds a file under a new id, or finds the one that has the same bytes, and puts it back where it was removed. */
export const addFile = (
  database: Knex,
  site: SiteKey,
  file: NewFile,
  id = newFileId(),
): Promise<{ id: FileId; isKnown: boolean }> =>
  database.transaction(async (trx) => {
    // The same file twice at once is one.
    await trx.raw('SELECT pg_advisory_xact_lock(hashtextextended(?, 26))', [`${site} ${file.content}`]);
    const known = await trx('file')
      .where({ site, content: file.content })
      .orderBy('added_at')
      .first('id', 'state', 'removed_at');
    if (known) {
      // What could not be prepared is tried again.
      const again = known.state === 'faulty' ? { state: 'waiting', fault: null } : {};
      await trx('file')
        .where({ site, id: known.id })
        .update({ removed_at: null, ...again });
      if (known.removed_at !== null) await tellVisitors(trx, [{ site, id: known.id }]);
      return { id: known.id, isKnown: true };
    }
    const { account, at, ...facts } = file;
    await trx('file').insert({ site, id, ...facts, added_by: account, added_at: at });
    await nameContent(trx, site, id, file.content);
    return { id, isKnown: false };
  });

/** Has the address of a content lead to a file from now on. */
const nameContent = (trx: Knex, site: SiteKey, file: FileId, content: FileContent): Promise<unknown> =>
  trx('file_content').insert({ site, content, file }).onConflict(['site', 'content']).merge(['file']);

/** Keeps what a document says, so that it is found by it. */
async function keepWords(trx: Knex, content: FileContent, { words = '' }: Prepared): Promise<void> {
  if (words !== '') await trx('file_words').insert({ content, words }).onConflict('content').ignore();
}

/** Says what has become of a content in all libraries that have it. */
export async function setPrepared(database: Knex, content: FileContent, prepared: Prepared): Promise<void> {
  await keepWords(database, content, prepared);
  const { bytes, width, height, pages, hasPicture } = prepared;
  await tellVisitors(
    database,
    await database('file')
      .where({ content })
      .update({ bytes, width, height, pages, has_picture: hasPicture, state: 'ready', fault: null })
      .returning(['site', 'id']),
  );
}

export const setFaulty = async (database: Knex, content: FileContent, fault: string): Promise<void> =>
  void (await database('file').where({ content, state: 'waiting' }).update({ state: 'faulty', fault }));

/** Puts other bytes in the place of a file's: wherever it is shown, they show from now on. */
export async function replaceContent(
  database: Knex,
  site: SiteKey,
  id: FileId,
  { type, content }: Pick<NewFile, 'type' | 'content'>,
  prepared: Prepared,
): Promise<void> {
  const { bytes, width, height, pages, hasPicture } = prepared;
  await database.transaction(async (trx) => {
    await keepWords(trx, content, prepared);
    await trx('file')
      .where({ site, id })
      .update({ type, content, bytes, width, height, pages, has_picture: hasPicture, state: 'ready', fault: null });
    await nameContent(trx, site, id, content);
    await tellVisitors(trx, [{ site, id }]);
  });
}

export async function setFile(database: Knex, site: SiteKey, id: FileId, set: SetFileBody): Promise<boolean> {
  const columns = {
    ...(set.name !== undefined && { name: set.name }),
    ...(set.alternative !== undefined && { alternative: set.alternative }),
    ...(set.isDecoration !== undefined && { is_decoration: set.isDecoration }),
    ...(set.focalX !== undefined && { focal_x: set.focalX }),
    ...(set.focalY !== undefined && { focal_y: set.focalY }),
  };
  if (Object.keys(columns).length === 0) return (await fileAt(database, site, id))?.removed_at === null;
  const changed = await database('file')
    .where({ site, id, removed_at: null })
    .update(columns)
    .returning(['site', 'id']);
  await tellVisitors(database, changed);
  return changed.length > 0;
}

/** Takes a file out of the library, or puts it back with null. Gives whether there was one. */
export async function setRemoved(database: Knex, site: SiteKey, id: FileId, at: Date | null): Promise<boolean> {
  const query = database('file').where({ site, id });
  void (at === null ? query.whereNotNull('removed_at') : query.whereNull('removed_at'));
  const changed = await query.update({ removed_at: at }).returning(['site', 'id']);
  await tellVisitors(database, changed);
  return changed.length > 0;
}

/** Tells the visitors' side of files that live pages show. */
async function tellVisitors(database: Knex, files: readonly { site: SiteKey; id: FileId }[]): Promise<void> {
  if (files.length === 0) return;
  await database.raw(
    `SELECT pg_notify(?, told.site) FROM (
       SELECT DISTINCT changed.site FROM jsonb_to_recordset(?::jsonb) AS changed (site text, id text)
       JOIN content c ON c.site = changed.site AND c.files @> ARRAY[changed.id] AND c.files <> '{}'
       JOIN live_text n ON n.site = c.site AND n.content = c.id
       UNION
       SELECT changed.site FROM jsonb_to_recordset(?::jsonb) AS changed (site text, id text)
       JOIN live_node n ON n.site = changed.site AND n.details IS NOT NULL
       WHERE EXISTS (SELECT FROM jsonb_each_text(n.details) AS said WHERE said.value = changed.id)) told`,
    [RELEASE_CHANNEL, JSON.stringify(files), JSON.stringify(files)],
  );
}

/** Contents that are still to be prepared, the oldest first. */
export const waitingContents = (database: Knex): Promise<FileContent[]> =>
  database('file').where({ state: 'waiting' }).groupBy('content').orderByRaw('min(added_at)').pluck('content');

/** The type of what has a content and waits; undefined where nothing waits any more. */
export const waitingType = async (database: Knex, content: FileContent): Promise<string | undefined> =>
  (await database('file').where({ content, state: 'waiting' }).first('type'))?.type;

/** Takes files over from the libraries of other sites, for texts that were copied from there and name them. */
export async function adoptFiles(trx: Knex, site: SiteKey, ids: readonly FileId[]): Promise<void> {
  if (ids.length === 0) return;
  const { rows } = await trx.raw<{ rows: FileRow[] }>(
    `INSERT INTO file SELECT DISTINCT ON (f.id) (jsonb_populate_record(f, jsonb_build_object('site', ?::text, 'removed_at', null))).*
     FROM file f WHERE f.id = ANY (?::text[]) AND f.site <> ? AND NOT EXISTS (SELECT FROM file own WHERE own.site = ? AND own.id = f.id)
     ORDER BY f.id, f.added_at ON CONFLICT DO NOTHING RETURNING *`,
    [site, [...ids], site, site],
  );
  for (const { id, content } of rows) await nameContent(trx, site, id, content);
}
