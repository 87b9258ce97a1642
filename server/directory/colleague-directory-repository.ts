import type { Knex } from 'knex';
import type { SiteKey } from '#core/model/ids.ts';
import type { GroupRole } from '#core/people/colleague-sync.ts';
import type { LastSync } from '#contract/directory.ts';
import { DELETED } from '../sites/deleted-site-repository.ts';

/** What a site takes from the directory for its colleagues. */
export interface ColleagueDirectory {
  readonly groupRoles: readonly GroupRole[];
  readonly isNightly: boolean;
  readonly last: LastSync | null;
}

const NOTHING: ColleagueDirectory = { groupRoles: [], isNightly: false, last: null };

export async function colleagueDirectory(database: Knex, site: SiteKey): Promise<ColleagueDirectory> {
  const row = await database('colleague_directory').where({ site }).first();
  return row ? { groupRoles: row.group_roles, isNightly: row.is_nightly, last: row.last } : NOTHING;
}

export async function putColleagueDirectory(
  database: Knex,
  site: SiteKey,
  { groupRoles, isNightly }: Pick<ColleagueDirectory, 'groupRoles' | 'isNightly'>,
): Promise<void> {
  const row = { site, group_roles: JSON.stringify(groupRoles), is_nightly: isNightly };
  await database('colleague_directory').insert(row).onConflict('site').merge(['group_roles', 'is_nightly']);
}

export async function putLastColleagueSync(database: Knex, site: SiteKey, last: LastSync): Promise<void> {
  await database('colleague_directory')
    .insert({ site, last: JSON.stringify(last) })
    .onConflict('site')
    .merge(['last']);
}

/** The sites whose colleagues are synchronised at night. */
export const nightlyColleagueSites = (database: Knex): Promise<SiteKey[]> =>
  database('colleague_directory')
    .where({ is_nightly: true })
    .whereNot('site', 'like', `${DELETED}%`)
    .orderBy('site')
    .pluck('site');
