import type { Knex } from 'knex';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { SiteNode } from '#core/model/node.ts';
import { type LiveNode, MAX_NODES } from '#core/model/site.ts';
import { ProblemError } from '../problem.ts';
import { AS_TEXTS, DRAFT_UNUSUAL, LIVE_UNUSUAL, type TextRow, draftNodes, liveNodes } from './node-rows.ts';

/** All nodes of a draft, those that were removed among them. @throws ProblemError where they are more than `most` */
export async function readDraft(database: Knex, site: SiteKey, most = MAX_NODES): Promise<SiteNode[]> {
  await requireFewer(database, 'node', site, most);
  const rows = await database('node').where({ site }).select(database.raw(DRAFT_UNUSUAL)).options(AS_TEXTS);
  return draftNodes(rows as TextRow[]);
}

/** What is live of a site, and since when each node is. @throws ProblemError where it is more than a site can hold */
export async function readLive(
  database: Knex,
  site: SiteKey,
  most = MAX_NODES,
): Promise<{ readonly live: LiveNode[]; readonly liveAt: Map<PageId, Date> }> {
  await requireFewer(database, 'live_node', site, most);
  const rows = (await database('live_node')
    .where({ site })
    .select(database.raw(`${LIVE_UNUSUAL}, extract(epoch FROM date_trunc('milliseconds', live_at))`))
    .options(AS_TEXTS)) as TextRow[];
  const live = liveNodes(rows);
  const momentOf = (row: TextRow) => new Date(Math.round(Number(row.at(-1)) * 1000));
  return { live, liveAt: new Map(live.map(({ node }, at) => [node.id, momentOf(rows[at]!)])) };
}

/** A site with so many nodes would take the memory of all others that the process has open. */
async function requireFewer(database: Knex, table: 'node' | 'live_node', site: SiteKey, most: number): Promise<void> {
  if (await database(table).where({ site }).offset(most).first('id'))
    throw new ProblemError('site-too-large', { limit: most.toLocaleString('en') });
}
