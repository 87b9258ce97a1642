import { createReadStream, createWriteStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import type { Request } from 'express';
import { type SiteKey, siteKeySchema } from '#core/model/ids.ts';
import { siteName } from '#contract/api.ts';
import type { ArchivedFile } from '#contract/archive.ts';
import { sendZip } from '../exports/zip-stream.ts';
import { withFile } from '../files/with-file.ts';
import { ProblemError } from '../problem.ts';
import type { Services } from '../handlers.ts';
import { siteOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { asNewSite } from '../sites/new-site.ts';
import { settleIn } from '../sites/settle-reserved-slugs.ts';
import { listSites } from '../sites/site-repository.ts';
import { bytesOfFiles } from '../library/file-repository.ts';
import { MAX_ARCHIVE_BYTES, MAX_WITH_FILES } from './archive-file.ts';
import { readArchive } from './archive-repository.ts';
import { archiveWithFiles } from './archive-zip.ts';
import { archiveText, restoreArchive } from './archive-service.ts';

/** The key of a site that is to be made. @throws ProblemError */
function newKeyOf(request: Request): SiteKey {
  const parsed = siteKeySchema.safeParse(request.params.site);
  if (parsed.success) return parsed.data;
  throw new ProblemError('body-invalid', {}, [{ pointer: '/site', detail: parsed.error.issues[0]!.message }]);
}

type Archives = 'takeArchive' | 'restoreArchive';

/** Whole sites with their history, out and in again. */
export function makeArchiveHandlers({
  database,
  edits,
  library,
  liveOrigin,
  now,
}: Pick<Services, 'database' | 'edits' | 'library' | 'liveOrigin' | 'now'>): Pick<Handlers, Archives> {
  return {
    takeArchive: async ({ request, response }) => {
      const key = siteOf(request);
      const isWithFiles = request.query.files === 'yes';
      // It is known before anything is sent: half an archive would be found out when it is needed.
      if (isWithFiles && (await bytesOfFiles(database, key)) > MAX_WITH_FILES - MAX_ARCHIVE_BYTES)
        throw new ProblemError('archive-too-large', { limit: '3.5 GB' });
      await withFile('archive', async (file) => {
        // It is written to disk first: a slow reader holds a file, and no connection to the database.
        let files: readonly ArchivedFile[] = [];
        const isThere = await readArchive(database, key, now(), (archive) => {
          ({ files } = archive.head);
          return pipeline(archiveText(archive), createWriteStream(file));
        });
        if (!isThere) throw new ProblemError('site-unknown', { site: key });
        response.set({
          'Content-Type': isWithFiles ? 'application/zip' : 'application/json; charset=utf-8',
          'Content-Disposition': `attachment; filename="${key}-archive.${isWithFiles ? 'zip' : 'json'}"`,
          'Cache-Control': 'no-store',
        });
        if (isWithFiles)
          return sendZip(
            archiveWithFiles(createReadStream(file) as AsyncIterable<Buffer>, files, library.store),
            response,
          );
        await pipeline(createReadStream(file), response).catch((fault: NodeJS.ErrnoException) => {
          // Whoever went away needs no more of it.
          if (fault.code !== 'ERR_STREAM_PREMATURE_CLOSE') throw fault;
        });
      });
    },
    restoreArchive: async ({ request, account }) => {
      const key = newKeyOf(request);
      const name = typeof request.query.name === 'string' ? request.query.name : '';
      await asNewSite(key, () => restoreArchive({ database, library }, request, { key, name, account, now: now() }));
      const called = siteName.safeParse(request.query.called);
      if (called.success)
        await edits.apply(key, account, { operations: [{ name: 'site.set', fields: { name: called.data } }] });
      await settleIn(key, { database, edits, account });
      return (await listSites(database, liveOrigin, key))[0];
    },
  };
}
