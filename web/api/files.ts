import useSWR, { mutate } from 'swr';
import type { FileId } from '#core/files/file.ts';
import type { SiteKey } from '#core/model/ids.ts';
import type { LibraryFile, SetFileBody } from '#contract/files.ts';
import { call } from './client.ts';

/** While sizes are made it is looked so often how far they are. */
const LOOK_EVERY_MS = 1500;
const keyOf = (site: SiteKey): string => `/sites/${site}/files`;

/** The files of the library, the newest first; undefined until they are known. */
export const useLibrary = (site: SiteKey): readonly LibraryFile[] | undefined =>
  useSWR(keyOf(site), () => call('listFiles', { site }), {
    refreshInterval: (latest) => (latest?.files.some(({ state }) => state === 'waiting') ? LOOK_EVERY_MS : 0),
  }).data?.files;

/** Looks anew what the library has. */
export const lookIntoLibrary = (site: SiteKey): void => void mutate(keyOf(site));

/** Says what the library has of one file; nothing where it was removed. */
const hasNow = (site: SiteKey, id: FileId, file: LibraryFile | null): void =>
  void mutate(
    keyOf(site),
    (known: { files: LibraryFile[] } | undefined) => {
      if (!known) return known;
      const others = known.files.filter((one) => one.id !== id);
      if (file === null) return { files: others };
      const at = known.files.findIndex((one) => one.id === id);
      return { files: at === -1 ? [file, ...others] : known.files.with(at, file) };
    },
    { revalidate: false },
  );

/** Takes a file that has come into what is known of the library. */
export const takeIntoLibrary = (site: SiteKey, file: LibraryFile): void => hasNow(site, file.id, file);

/** Says something of a file; it shows at once. @throws ServerProblem, NoAnswer */
export async function setFile(site: SiteKey, file: LibraryFile, set: SetFileBody): Promise<void> {
  hasNow(site, file.id, { ...file, ...set });
  try {
    hasNow(site, file.id, await call('setFile', { site, file: file.id }, set));
  } catch (fault) {
    lookIntoLibrary(site);
    throw fault;
  }
}

/** @throws ServerProblem, NoAnswer */
export async function removeFile(site: SiteKey, file: FileId): Promise<void> {
  await call('removeFile', { site, file });
  hasNow(site, file, null);
}

/** @throws ServerProblem, NoAnswer */
export const putBackFile = async (site: SiteKey, file: FileId): Promise<void> =>
  hasNow(site, file, await call('putBackFile', { site, file }));
