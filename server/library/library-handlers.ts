import type { Request } from 'express';
import { type FileId, fileIdSchema } from '#core/files/file.ts';
import type { Services } from '../handlers.ts';
import { ProblemError } from '../problem.ts';
import { siteOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { setFile, setRemoved } from './file-repository.ts';
import { FileRights } from './file-rights.ts';
import { sendLibraryFile } from './send-library-file.ts';

type Files = 'listFiles' | 'showFileBytes' | 'setFile' | 'removeFile' | 'putBackFile';

/** What the workbench does with the files of a site. */
export function makeLibraryHandlers(
  services: Pick<Services, 'database' | 'cache' | 'people' | 'library' | 'now'>,
): Pick<Handlers, Files> {
  const { database, cache, library, now } = services;
  const rights = new FileRights(services);
  const known = async (request: Request) => {
    const { site } = await cache.current(siteOf(request));
    return site.key;
  };
  return {
    listFiles: async ({ request, account }) => ({ files: await rights.list(await known(request), account) }),
    showFileBytes: async ({ request, response, account }) => {
      const file = await rights.show(await known(request), idOf(request), account);
      return sendLibraryFile(library, file, request, response);
    },
    setFile: async ({ request, body, account }) => {
      const key = await known(request);
      const id = idOf(request);
      await rights.requireChange(key, id, account);
      if (!(await setFile(database, key, id, body))) throw new ProblemError('file-unknown', { file: id });
      return rights.show(key, id, account);
    },
    removeFile: async ({ request }) => {
      const id = idOf(request);
      if (!(await setRemoved(database, await known(request), id, now())))
        throw new ProblemError('file-unknown', { file: id });
      return { ok: true };
    },
    putBackFile: async ({ request, account }) => {
      const key = await known(request);
      const id = idOf(request);
      await rights.requireChange(key, id, account);
      if (!(await setRemoved(database, key, id, null))) throw new ProblemError('file-unknown', { file: id });
      return rights.show(key, id, account);
    },
  };
}

/** @throws ProblemError */
function idOf(request: Request): FileId {
  const parsed = fileIdSchema.safeParse(request.params.file);
  if (!parsed.success) throw new ProblemError('file-unknown', { file: String(request.params.file).slice(0, 60) });
  return parsed.data;
}
