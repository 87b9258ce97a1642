import { ProblemError } from '../problem.ts';
import type { Services } from '../handlers.ts';
import { siteOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import {
  DELETED,
  eraseSite,
  listDeletedSites,
  nameOfSite,
  putSiteAside,
  putSiteBack,
} from './deleted-site-repository.ts';
import { asNewSite } from './new-site.ts';
import { listSites } from './site-repository.ts';

type Deleting = 'deleteSite' | 'listDeletedSites' | 'bringBackSite' | 'eraseSite';

/** Deleting sites, and bringing them back. */
export function makeDeletedSiteHandlers({
  database,
  cache,
  edits,
  visitorsSide,
  liveOrigin,
  now,
}: Pick<Services, 'database' | 'cache' | 'edits' | 'visitorsSide' | 'liveOrigin' | 'now'>): Pick<Handlers, Deleting> {
  const unknown = () => new ProblemError('deleted-site-unknown');
  return {
    deleteSite: async ({ request, body, account }) => {
      const key = siteOf(request);
      const name = await nameOfSite(database, key);
      if (name === undefined) throw new ProblemError('site-unknown', { site: key });
      if (body.name.trim() !== name.trim()) throw new ProblemError('name-differs', { name });
      // Edits that were sent before are made first; those after find no site.
      const id = await cache.inTurn(key, () => putSiteAside(database, key, account.id, now()));
      cache.forget(key);
      await visitorsSide.hasTaken(key);
      return (await listDeletedSites(database)).find((one) => one.id === id);
    },
    listDeletedSites: async () => ({ sites: await listDeletedSites(database) }),
    bringBackSite: async ({ request, body: { key, name }, account }) => {
      const id = String(request.params.deleted);
      if (!id.startsWith(DELETED)) throw unknown();
      await asNewSite(key, async () => {
        if (!(await putSiteBack(database, id, key))) throw unknown();
      });
      cache.forget(key);
      if ((await nameOfSite(database, key)) !== name)
        await edits.apply(key, account, { operations: [{ name: 'site.set', fields: { name } }] });
      return (await listSites(database, liveOrigin, key))[0];
    },
    eraseSite: async ({ request }) => {
      if (!(await eraseSite(database, String(request.params.deleted)))) throw unknown();
      return { ok: true };
    },
  };
}
