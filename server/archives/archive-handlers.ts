import { ProblemError } from '../problem.ts';
import type { Services } from '../handlers.ts';
import { siteOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { asNewSite } from '../sites/new-site.ts';
import { listSites } from '../sites/site-repository.ts';
import { readArchive } from './archive-repository.ts';
import { restoreArchive, sendArchive } from './archive-service.ts';

type Archives = 'takeArchive' | 'restoreArchive';

/** Whole sites with their history, out and in again. */
export function makeArchiveHandlers({
  database,
  liveOrigin,
  now,
}: Pick<Services, 'database' | 'liveOrigin' | 'now'>): Pick<Handlers, Archives> {
  return {
    takeArchive: async ({ request, response }) => {
      const key = siteOf(request);
      const isThere = await readArchive(database, key, now(), async (archive) => {
        response.set({
          'Content-Type': 'application/json; charset=utf-8',
          'Content-Disposition': `attachment; filename="${key}-archive.json"`,
          'Cache-Control': 'no-store',
        });
        await sendArchive(archive, response);
      });
      if (!isThere) throw new ProblemError('site-unknown', { site: key });
    },
    restoreArchive: async ({ body, account }) => {
      await asNewSite(body.key, () => restoreArchive(database, body, account, now()));
      return (await listSites(database, liveOrigin, body.key))[0];
    },
  };
}
