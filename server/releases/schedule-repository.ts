import type { Knex } from 'knex';
import type { SiteKey } from '#core/model/ids.ts';
import { DELETED } from '../sites/deleted-site-repository.ts';
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
  /** The request that set it; null where it named none. */
  readonly request: string | null;
}

/**
 * Adds a release to come, and tells all processes, so that each of them may make it. Gives its id, or that of the one that its request
 * has added before.
 */
export const insertScheduled = (database: Knex, row: ScheduledRow): Promise<string> =>
  database.transaction(async (trx) => {
    const added = await trx('scheduled_release')
      .insert({ ...row, asked: JSON.stringify(row.asked) })
      .onConflict(['site', 'request'])
      .ignore()
      .returning('id');
    await trx.raw('SELECT pg_notify(?, ?)', [SCHEDULE_CHANNEL, row.site]);
    return added.length > 0
      ? row.id
      : trx('scheduled_release')
          .where({ site: row.site, request: row.request })
          .first('id')
          .then(({ id }) => id);
  });

/** A release that was set for a moment, whatever became of it. */
export const scheduledRelease = (database: Knex, id: string): Promise<ScheduledRow | undefined> =>
  database('scheduled_release').where({ id }).first();

/** A release that is still to come; undefined where it was made or called off. */
export const waitingRelease = (database: Knex, id: string): Promise<ScheduledRow | undefined> =>
  database('scheduled_release').where({ id, state: 'waiting' }).first();

/** The releases of a site whose moment has come, by their ids, the earliest first. */
export const dueReleases = (database: Knex, site: SiteKey, now: Date): Promise<string[]> =>
  database('scheduled_release').where({ site, state: 'waiting' }).andWhere('at', '<=', now).orderBy('at').pluck('id');

/** The sites that have one, the longest due first. */
export const sitesWithDue = (database: Knex, now: Date): Promise<SiteKey[]> =>
  database('scheduled_release')
    .where({ state: 'waiting' })
    .andWhere('at', '<=', now)
    .whereNot('site', 'like', `${DELETED}%`)
    .groupBy('site')
    .orderByRaw('min(at)')
    .pluck('site');

/** The moment of the next release to come; undefined where none is waiting. */
export const nextMoment = async (database: Knex): Promise<Date | undefined> =>
  (
    await database('scheduled_release')
      .where({ state: 'waiting' })
      .whereNot('site', 'like', `${DELETED}%`)
      .orderBy('at')
      .first('at')
  )?.at;

/** Apart from other advisory locks of Spur's. */
const SCHEDULE_LOCK = 7_337_003;

/** Does the work for a site's releases to come, unless another process is at it: then false. A process that dies lets go of it. */
export const aloneWith = (database: Knex, site: SiteKey, work: () => Promise<void>): Promise<boolean> =>
  database.transaction(async (trx) => {
    const { rows } = await trx.raw('SELECT pg_try_advisory_xact_lock(?, hashtext(?)) AS is_alone', [
      SCHEDULE_LOCK,
      site,
    ]);
    if (!rows[0].is_alone) return false;
    await work();
    return true;
  });

/** Says what became of a release to come. False where that was said before. */
export const settleScheduled = async (
  database: Knex,
  id: string,
  outcome: { state: ScheduledRelease['state']; done_at: Date; release?: number; fault?: string },
): Promise<boolean> => (await database('scheduled_release').where({ id, state: 'waiting' }).update(outcome)) > 0;

/** So many of those that are settled are listed. */
const MAX_SETTLED = 100;

/** The releases of a site that were set for a moment: all that are to come, then the latest. */
export async function listScheduled(database: Knex, site: SiteKey): Promise<ScheduledRelease[]> {
  const listed = () =>
    database('scheduled_release')
      .leftJoin('account', 'account.id', 'scheduled_release.account')
      .where('scheduled_release.site', site)
      .select('scheduled_release.*', 'account.name as by');
  const waiting = await listed().andWhere({ state: 'waiting' }).orderBy('at');
  const settled = await listed().whereNot({ state: 'waiting' }).orderBy('done_at', 'desc').limit(MAX_SETTLED);
  return [...waiting, ...settled].map((row) => ({
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
