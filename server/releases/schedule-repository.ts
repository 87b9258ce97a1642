import type { Knex } from 'knex';
import type { SiteKey } from '#core/model/ids.ts';
import { SCHEDULE_CHANNEL } from '../database/channels.ts';
import type { ReleaseBody, ScheduledRelease } from '#contract/releases.ts';

export type AskedRelease = Pick<ReleaseBody, 'pages' | 'retire' | 'settings' | 'leadsTo'>;

export interface ScheduledRow {
  readonly id: string;
  readonly site: SiteKey;
  readonly at: Date;
  readonly name: string;
  readonly note: string;
  readonly asked: AskedRelease;
  readonly account: string;
  readonly made_at: Date;
  readonly state: ScheduledRelease['state'];
}

/** Adds a release to come, and tells all processes, so that each of them may make it. */
export const insertScheduled = (database: Knex, row: ScheduledRow): Promise<void> =>
  database.transaction(async (trx) => {
    await trx('scheduled_release').insert({ ...row, asked: JSON.stringify(row.asked) });
    await trx.raw('SELECT pg_notify(?, ?)', [SCHEDULE_CHANNEL, row.site]);
  });

/** A release that is still to come; undefined where it was made or called off. */
export const waitingRelease = (database: Knex, id: string): Promise<ScheduledRow | undefined> =>
  database('scheduled_release').where({ id, state: 'waiting' }).first();

/** All releases that are still to come. */
export const waitingReleases = (database: Knex): Promise<Pick<ScheduledRow, 'id' | 'at'>[]> =>
  database('scheduled_release').where({ state: 'waiting' }).select('id', 'at');

/** Says what became of a release to come. False where that was said before. */
export const settleScheduled = async (
  database: Knex,
  id: string,
  outcome: { state: ScheduledRelease['state']; done_at: Date; release?: number; fault?: string },
): Promise<boolean> => (await database('scheduled_release').where({ id, state: 'waiting' }).update(outcome)) > 0;

/** The releases of a site that were set for a moment: those to come first, then the latest. */
export async function listScheduled(database: Knex, site: SiteKey): Promise<ScheduledRelease[]> {
  const rows = await database('scheduled_release')
    .leftJoin('account', 'account.id', 'scheduled_release.account')
    .where('scheduled_release.site', site)
    .orderByRaw(`state <> 'waiting', CASE state WHEN 'waiting' THEN at END, done_at DESC`)
    .limit(100)
    .select('scheduled_release.*', 'account.name as by');
  return rows.map((row) => ({
    id: row.id,
    at: row.at.toISOString(),
    by: row.by ?? 'Somebody',
    name: row.name,
    note: row.note,
    pages: row.asked.pages,
    retire: row.asked.retire,
    state: row.state,
    doneAt: row.done_at?.toISOString() ?? null,
    release: row.release,
    fault: row.fault,
  }));
}
