import { derivedOf } from '#core/derive/derived.ts';
import { liveSiteOf } from '#core/derive/live-site.ts';
import { type RedirectSources, resolveRedirect, leadingAddresses } from '#core/derive/redirects.ts';
import { readRedirectTable } from '#core/formats/redirect-table.ts';
import type { Site } from '#core/model/site.ts';
import type { LiveRedirect } from '#contract/releases.ts';
import type { Services } from '../handlers.ts';
import { siteOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { type StoredAddresses, letMissedBe, missedAddresses, storedAddresses } from './redirect-repository.ts';

type Redirects = 'listRedirects' | 'readRedirects' | 'listMissed' | 'letMissedBe';

/** The addresses that lead elsewhere, and those that lead nowhere. */
export function makeRedirectHandlers({
  database,
  cache,
  liveOrigin,
}: Pick<Services, 'database' | 'cache' | 'liveOrigin'>): Pick<Handlers, Redirects> {
  return {
    listRedirects: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      return { redirects: liveRedirects(site, await storedAddresses(database, site.key)) };
    },
    readRedirects: async ({ request, body }) => {
      const { site } = await cache.current(siteOf(request));
      return { rows: readRedirectTable(body.text, site, `${liveOrigin}/${site.key}`) };
    },
    listMissed: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      const sources = sourcesOf(await storedAddresses(database, site.key));
      const { rowAt } = derivedOf(liveSiteOf(site));
      const stillLost = ({ path }: { path: string }) =>
        !rowAt.has(path) && resolveRedirect(site, sources, path) === undefined;
      return { addresses: (await missedAddresses(database, site.key)).filter(stillLost) };
    },
    letMissedBe: async ({ request, body }) => {
      const { site } = await cache.current(siteOf(request));
      await letMissedBe(database, site.key, body.path, body.isLetBe);
      return { ok: true };
    },
  };
}

const sourcesOf = ({ former, ofOldSite }: StoredAddresses): RedirectSources => ({
  former: new Map([...former].map(([path, { page }]) => [path, page])),
  ofOldSite,
});

/** Every address of the live site that leads elsewhere, with since when and how often visitors met it. */
export function liveRedirects(site: Site, stored: StoredAddresses): LiveRedirect[] {
  if (site.liveSettings === null) return [];
  return leadingAddresses(site, sourcesOf(stored)).map(({ path, to, because, redirect, isResting }) => {
    const hits = stored.hits.get(path);
    return {
      path,
      to,
      because,
      redirect: redirect?.id ?? null,
      isResting,
      // An address that somebody redirects by hand may be one that a page had before.
      since: redirect === null ? (stored.former.get(path)?.since.toISOString() ?? null) : null,
      hits: hits?.hits ?? 0,
      lastHit: hits?.last.toISOString() ?? null,
    };
  });
}
