import type { Request } from 'express';
import { type FileId, fileIdSchema } from '#core/files/file.ts';
import { filesInFields } from '#core/derive/file-fields.ts';
import { liveSiteOf } from '#core/derive/live-site.ts';
import type { Site } from '#core/model/site.ts';
import type { LibraryFile } from '#contract/files.ts';
import type { Services } from '../handlers.ts';
import { ProblemError } from '../problem.ts';
import { siteOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { setFile, setRemoved } from './file-repository.ts';
import { sendLibraryFile } from './send-library-file.ts';

type Files = 'listFiles' | 'showFileBytes' | 'setFile' | 'removeFile' | 'putBackFile';

/** What the workbench does with the files of a site. */
export function makeLibraryHandlers({
  database,
  cache,
  library,
  now,
}: Pick<Services, 'database' | 'cache' | 'library' | 'now'>): Pick<Handlers, Files> {
  const known = async (request: Request) => {
    const { site } = await cache.current(siteOf(request));
    return site.key;
  };
  /** A file with the pages that name it in a field besides those whose text shows it. */
  const withFields = (site: Site): ((file: LibraryFile) => LibraryFile) => {
    const draft = filesInFields(site).named;
    const live = filesInFields(liveSiteOf(site)).shown;
    return (file) => {
      const [named = [], shown = []] = [draft.get(file.id), live.get(file.id)];
      if (named.length === 0 && shown.length === 0) return file;
      return {
        ...file,
        usedBy: [...new Set([...file.usedBy, ...named])],
        liveOn: [...new Set([...file.liveOn, ...shown])],
        liveInSections: file.liveInSections.filter((page) => !shown.includes(page)),
      };
    };
  };
  const shownFile = async (request: Request, id: FileId): Promise<LibraryFile> => {
    const { site } = await cache.current(siteOf(request));
    return withFields(site)(await library.show(site.key, id));
  };
  return {
    listFiles: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      return { files: (await library.list(site.key)).map(withFields(site)) };
    },
    showFileBytes: async ({ request, response }) => {
      const file = await library.show(await known(request), idOf(request));
      return sendLibraryFile(library, file, request, response);
    },
    setFile: async ({ request, body }) => {
      const key = await known(request);
      const id = idOf(request);
      if (!(await setFile(database, key, id, body))) throw new ProblemError('file-unknown', { file: id });
      return shownFile(request, id);
    },
    removeFile: async ({ request }) => {
      const id = idOf(request);
      if (!(await setRemoved(database, await known(request), id, now())))
        throw new ProblemError('file-unknown', { file: id });
      return { ok: true };
    },
    putBackFile: async ({ request }) => {
      const key = await known(request);
      const id = idOf(request);
      if (!(await setRemoved(database, key, id, null))) throw new ProblemError('file-unknown', { file: id });
      return shownFile(request, id);
    },
  };
}

/** @throws ProblemError */
function idOf(request: Request): FileId {
  const parsed = fileIdSchema.safeParse(request.params.file);
  if (!parsed.success) throw new ProblemError('file-unknown', { file: String(request.params.file).slice(0, 60) });
  return parsed.data;
}
