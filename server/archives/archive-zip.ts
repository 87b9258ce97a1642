import { createWriteStream } from 'node:fs';
import { open } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { type Entry, type ZipFile, openPromise } from 'yauzl';
import { type FileId, MAX_FILE_LENGTH, fileTypeOf } from '#core/files/file.ts';
import type { ArchivedFile } from '#contract/archive.ts';
import type { StaticFile } from '../exports/static-site.ts';
import type { FileStore } from '../library/file-store.ts';
import { ArchiveFault, limited } from './archive-file.ts';

/** The archive itself, within the file that has the library beside it. */
const TEXT = 'archive.json';
const FOLDER = 'files/';
/** As many files of a library as are read from one archive. */
const MAX_FILES = 50_000;

/** What stands in an archive with its files: the text, and what the store has of the library. */
export async function* archiveWithFiles(
  text: AsyncIterable<Uint8Array>,
  files: readonly ArchivedFile[],
  store: FileStore,
): AsyncGenerator<StaticFile> {
  yield { path: TEXT, content: text };
  for (const { id, type, content } of files) {
    const bytes = (await store.get(content, 'whole')) ?? (await store.get(content, 'original'));
    if (bytes) yield { path: pathOf(id, type), content: bytes.read() };
  }
}

const pathOf = (id: FileId, type: string): string => `${FOLDER}${id}.${fileTypeOf(type).ending}`;

/** An archive that was brought with its files. */
export interface OpenArchive {
  /** Writes the bytes of a file to disk; false where the archive has none. @throws ArchiveFault */
  readonly fileTo: (file: Pick<ArchivedFile, 'id' | 'type'>, path: string) => Promise<boolean>;
  readonly close: () => void;
}

/** Whether what was brought is packed as a ZIP file, by its first bytes. */
export async function isZip(file: string): Promise<boolean> {
  const handle = await open(file);
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(4), 0, 4, 0);
    return bytesRead === 4 && buffer.readUInt32BE() === 0x504b0304;
  } finally {
    await handle.close();
  }
}

/** Opens an archive with its files, and writes its text to `text`. @throws ArchiveFault */
export async function openArchive(file: string, text: string): Promise<OpenArchive> {
  const zip = await openPromise(file, { autoClose: false, validateEntrySizes: true }).catch(broken);
  try {
    const entries = await entriesIn(zip);
    const itself = entries.get(TEXT);
    if (!itself) throw new ArchiveFault(`It is a ZIP file without ‘${TEXT}’, and so is no archive of Spur.`);
    await pipeline(await zip.openReadStreamPromise(itself), limited(), createWriteStream(text)).catch(broken);
    return {
      fileTo: async ({ id, type }, path) => {
        const entry = entries.get(pathOf(id, type));
        if (!entry) return false;
        await pipeline(await zip.openReadStreamPromise(entry), createWriteStream(path)).catch(broken);
        return true;
      },
      close: () => zip.close(),
    };
  } catch (fault) {
    zip.close();
    return broken(fault);
  }
}

async function entriesIn(zip: ZipFile): Promise<ReadonlyMap<string, Entry>> {
  const entries = new Map<string, Entry>();
  for await (const entry of zip.eachEntry()) {
    if (entries.size > MAX_FILES) throw new ArchiveFault(`It has more than ${MAX_FILES} files.`);
    // The sizes that it announces are held while it is read.
    if (entry.fileName !== TEXT && entry.uncompressedSize > MAX_FILE_LENGTH)
      throw new ArchiveFault(`${entry.fileName.slice(0, 100)}: a file is at most ${MAX_FILE_LENGTH / 1e9} GB long.`);
    entries.set(entry.fileName, entry);
  }
  return entries;
}

function broken(fault: unknown): never {
  if (fault instanceof ArchiveFault) throw fault;
  throw new ArchiveFault(`It is a ZIP file that cannot be read: ${(fault as Error).message}`);
}
