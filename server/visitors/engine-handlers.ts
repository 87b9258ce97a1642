import { engineReport } from '#core/derive/engine-findings.ts';
import type { Services } from '../handlers.ts';
import { loadRelease } from '../live/live-repository.ts';
import { ProblemError } from '../problem.ts';
import { siteOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { readAsEngine } from '../standins/search-engine.ts';

/** So many addresses of a site are read at most, and so many findings are told. */
const MOST_ADDRESSES = 3000;
const MOST_FINDINGS = 500;

/** What a search engine sees of the live site, next to what is intended. */
export function makeEngineHandlers({
  database,
  cache,
  liveOrigin,
  now,
}: Pick<Services, 'database' | 'cache' | 'liveOrigin' | 'now'>): Pick<Handlers, 'lookAsEngine'> {
  return {
    lookAsEngine: async ({ request }) => {
      const key = siteOf(request);
      await cache.current(key);
      const release = await loadRelease(database, key);
      if (!release) throw new ProblemError('nothing-live');
      const readAt = now();
      const { seen, isWhole } = await readAsEngine(liveOrigin, key, MOST_ADDRESSES);
      const { indexed, intended, findings } = engineReport(release.site, seen, readAt.getTime());
      return {
        readAt: readAt.toISOString(),
        addresses: seen.length,
        isWhole,
        indexed,
        intended,
        count: findings.length,
        findings: findings.slice(0, MOST_FINDINGS),
      };
    },
  };
}
