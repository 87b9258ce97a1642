import type { Knex } from 'knex';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import { type LiveNode, type Settings, newSettings } from '#core/model/site.ts';
import type { ReleaseSummary } from '#contract/releases.ts';

/** What visitors had of a release's pages, and of the settings, before it. */
export interface DoneRelease {
  readonly number: number;
  readonly before: Readonly<Record<PageId, LiveNode | null>>;
  readonly settings: Settings | null;
}

/** The releases of a site, newest first. */
export async function listReleases(database: Knex, key: SiteKey): Promise<ReleaseSummary[]> {
  const rows = await database('release')
    .leftJoin('account', 'account.id', 'release.account')
    .where('release.site', key)
    .orderBy('number', 'desc')
    .limit(200)
    .select(
      'number',
      'revision',
      'at',
      'account.name as by',
      'pages',
      'retired',
      'release.name',
      'note',
      'override',
      'settings',
      'takes_back as takesBack',
    );
  return rows.map((row) => ({ ...row, at: row.at.toISOString(), by: row.by ?? 'Somebody' }));
}

/** What a release did, from its way back; undefined where there is none of that number. */
export async function releaseDone(database: Knex, key: SiteKey, number: number): Promise<DoneRelease | undefined> {
  return (await doneReleases(database, key, (query) => void query.where('number', number)))[0];
}

/** The releases after one, the earliest first. */
export const releasesSince = (database: Knex, key: SiteKey, number: number): Promise<DoneRelease[]> =>
  doneReleases(database, key, (query) => void query.where('number', '>', number));

async function doneReleases(
  database: Knex,
  key: SiteKey,
  which: (query: Knex.QueryBuilder) => void,
): Promise<DoneRelease[]> {
  const query = database('release')
    .join('edit_log', (join) => join.on('edit_log.site', 'release.site').andOn('edit_log.revision', 'release.revision'))
    .where('release.site', key)
    .orderBy('number')
    .select('number', 'inverse');
  which(query);
  const rows: { number: number; inverse: { before: DoneRelease['before']; settings: Settings | null }[] }[] =
    await query;
  return rows.map(({ number, inverse: [way] }) => ({
    number,
    before: way?.before ?? {},
    // Logs that are older than audiences, menus or redirects have none in their settings.
    settings: way?.settings ? { ...newSettings(way.settings.name, way.settings.language), ...way.settings } : null,
  }));
}
