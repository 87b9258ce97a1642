import { writeFile } from 'node:fs/promises';
import { FILE_TYPES, type FileKind } from '#core/files/file.ts';
import type { SiteKey } from '#core/model/ids.ts';
import type { LibraryFile } from '#contract/files.ts';
import type { Database } from '../database/connect.ts';
import { withFile } from '../files/with-file.ts';
import type { LibraryService } from '../library/library-service.ts';
import { ProblemError } from '../problem.ts';
import { putOldFile } from './old-file-repository.ts';

const KIND_OF_ENDING = new Map(Object.values(FILE_TYPES).map(({ ending, kind }) => [ending, kind]));
KIND_OF_ENDING.set('jpeg', 'picture');

/** What stands at an address, by its ending alone; null where that tells nothing. */
export function kindAt(address: string): FileKind | null {
  const ending = /\.([A-Za-z0-9]{1,5})$/.exec(new URL(address).pathname)?.[1]?.toLowerCase();
  return (ending !== undefined && KIND_OF_ENDING.get(ending)) || null;
}

interface Parts {
  readonly database: Database;
  readonly library: LibraryService;
}

interface OldFile {
  readonly site: SiteKey;
  readonly address: string;
  readonly bytes: Uint8Array;
  /** Who has it brought; null for nobody that is known. */
  readonly account: string | null;
}

/** Takes a file of the old site into the library, and has its address lead to it. Gives why it was not taken, in words, where it was not. */
export async function takeOldFile(
  { database, library }: Parts,
  { site, address, bytes, account }: OldFile,
): Promise<LibraryFile | string> {
  const name = new URL(address).pathname.split('/').at(-1) || 'file';
  try {
    return await withFile('old-file', async (path) => {
      await writeFile(path, bytes);
      const { file } = await library.take({ site, path, name, replaces: null, account });
      await putOldFile(database, site, address, file.id);
      return file;
    });
  } catch (fault) {
    if (fault instanceof ProblemError) return fault.message;
    throw fault;
  }
}
