import type { Knex } from 'knex';
import type { SiteKey } from '#core/model/ids.ts';
import { EDIT_CHANNEL } from '../database/channels.ts';
import { Statement, withConnection } from '../database/statement.ts';

/**
 * Tells all processes that a site has reached a revision, once what is being done now is over: the edit is answered first. Told within
 * the edit's own transaction, each one waited until the listening connections had been woken. Of several revisions the last is
 * told. What is lost because this process dies first, or the database is away, the others find when they look by themselves
 * (`SiteCache.followAll`).
 */
export function editTeller(database: Knex): (site: SiteKey, revision: number) => void {
  const untold = new Map<SiteKey, number>();
  const tell = async (): Promise<void> => {
    const payloads = [...untold].map(([site, revision]) => `${site} ${revision}`);
    untold.clear();
    const statement = new Statement();
    const values = statement.value(payloads);
    await withConnection(database, (connection) =>
      statement.run(connection, `SELECT pg_notify('${EDIT_CHANNEL}', told) FROM unnest(${values}::text[]) AS told`),
    );
  };
  return (site, revision) => {
    if (untold.size === 0) setImmediate(() => void tell().catch(() => undefined));
    untold.set(site, revision);
  };
}
