import type { SiteKey } from '#core/model/ids.ts';
import type { Database } from '../database/connect.ts';
import { EDIT_CHANNEL, tell } from '../database/channels.ts';

/**
 * Tells all processes that a site has reached a revision, once what is being done now is over: the edit is answered first. Told within
 * the edit's own transaction, each one waited until the listening connections had been woken. Of several revisions the last is
 * told. What is lost because this process dies first, or the database is away, the others find when they look by themselves
 * (`SiteCache.followAll`).
 */
export function editTeller(database: Database): (site: SiteKey, revision: number) => void {
  const untold = new Map<SiteKey, number>();
  const tellAll = async (): Promise<void> => {
    const payloads = [...untold].map(([site, revision]) => `${site} ${revision}`);
    untold.clear();
    await tell(database, EDIT_CHANNEL, payloads);
  };
  return (site, revision) => {
    if (untold.size === 0) setImmediate(() => void tellAll().catch(() => undefined));
    untold.set(site, revision);
  };
}
