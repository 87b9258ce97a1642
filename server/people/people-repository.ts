import type { Knex } from 'knex';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { Permission } from '#core/model/permission.ts';
import type { RoleAt } from '#core/people/powers.ts';
import type { Role, RoleId } from '#core/people/role.ts';
import { PEOPLE_CHANNEL } from '../database/channels.ts';

/** Somebody who works on a site, as it is kept. */
export interface StoredColleague {
  readonly account: string;
  readonly name: string;
  readonly email: string;
  /** Whether they have ever come: by a password that they chose, or by the provider of the organisation. */
  readonly isHere: boolean;
  readonly isSuspended: boolean;
  readonly lastSeen: Date | null;
  readonly roles: readonly RoleAt[];
  /** Who it is in the organisation's directory; null where that looks after nothing of theirs. */
  readonly directoryId: string | null;
  /** The places, of those above, whose role the directory gave. */
  readonly placesFromDirectory: readonly (PageId | null)[];
  /** Whether they are suspended because the directory has them no more. */
  readonly hasLeft: boolean;
}

/** Whether a site asks its colleagues for a second step; a site that is not there asks for nothing. */
export const needsSecondStepAt = async (database: Knex, site: SiteKey): Promise<boolean> =>
  (await database('site').where({ key: site }).first('needs_second_step'))?.needs_second_step ?? false;

export const setNeedsSecondStep = (trx: Knex, site: SiteKey, needs_second_step: boolean): Promise<number> =>
  trx('site').where({ key: site }).update({ needs_second_step });

/** The names of those who may open a site and sign in with a password alone. */
export const withoutSecondStep = (database: Knex, site: SiteKey): Promise<string[]> =>
  database('account')
    .where((who) =>
      who
        .where({ looks_after_all: true })
        .orWhereIn('id', database('colleague').where({ site, is_suspended: false }).select('account')),
    )
    .whereNotIn('id', database('second_step').select('account'))
    .whereNotIn('id', database('passkey').select('account'))
    .orderBy('name')
    .pluck('name');

/** The roles that were made for a site, by their names. */
export async function rolesMadeFor(database: Knex, site: SiteKey): Promise<Role[]> {
  const rows = await database('site_role').where({ site }).orderBy('name').orderBy('id');
  return rows.map((row) => ({ id: row.id as RoleId, name: row.name, permissions: row.permissions as Permission[] }));
}

/** Keeps a role. It is new where the site has none of that id. */
export const putRole = (database: Knex, site: SiteKey, role: Role): Promise<unknown> =>
  database('site_role')
    .insert({ site, ...role })
    .onConflict(['site', 'id'])
    .merge();

export const deleteRole = (database: Knex, site: SiteKey, id: RoleId): Promise<number> =>
  database('site_role').where({ site, id }).delete();

/** How many colleagues have a role. */
export const countWithRole = async (database: Knex, site: SiteKey, role: RoleId): Promise<number> =>
  Number(
    (await database('colleague_role').where({ site, role }).countDistinct('account as count').first())?.count ?? 0,
  );

/** The colleagues of a site by their names; one of them where an account is named. */
export async function colleaguesOf(database: Knex, site: SiteKey, account?: string): Promise<StoredColleague[]> {
  const rows = await database('colleague')
    .join('account', 'account.id', 'colleague.account')
    .where({ 'colleague.site': site, ...(account !== undefined && { 'colleague.account': account }) })
    .orderBy('account.name')
    .orderBy('account.id')
    .select('account.id', 'account.name', 'account.email', 'account.last_seen_at', 'colleague.is_suspended')
    .select('colleague.directory_id', 'colleague.has_left')
    .select(database.raw('(account.password_hash IS NOT NULL OR account.last_seen_at IS NOT NULL) AS is_here'));
  const roles = await keptRoles(database, site, account);
  return rows.map((row) => ({
    account: row.id,
    name: row.name,
    email: row.email,
    isHere: row.is_here,
    isSuspended: row.is_suspended,
    lastSeen: row.last_seen_at,
    roles: (roles.get(row.id) ?? []).map(({ page, role }) => ({ page, role })),
    directoryId: row.directory_id,
    placesFromDirectory: (roles.get(row.id) ?? []).filter((one) => one.isFromDirectory).map(({ page }) => page),
    hasLeft: row.has_left,
  }));
}

interface KeptRole extends RoleAt {
  readonly isFromDirectory: boolean;
}

/** The roles of each colleague, by their accounts. */
async function keptRoles(database: Knex, site: SiteKey, account?: string): Promise<Map<string, KeptRole[]>> {
  const rows = await database('colleague_role')
    .where({ site, ...(account !== undefined && { account }) })
    .orderByRaw('page NULLS FIRST');
  const found = new Map<string, KeptRole[]>();
  for (const { account: of, page, role, is_from_directory: isFromDirectory } of rows) {
    const roles = found.get(of) ?? [];
    found.set(of, [...roles, { page: page as PageId | null, role: role as RoleId, isFromDirectory }]);
  }
  return found;
}

/** The roles of all colleagues of a site who are not suspended, by their accounts. */
export async function rolesInForce(database: Knex, site: SiteKey): Promise<Map<string, RoleAt[]>> {
  const roles: Map<string, RoleAt[]> = await keptRoles(database, site);
  for (const account of await database('colleague').where({ site, is_suspended: true }).pluck('account'))
    roles.delete(account);
  return roles;
}

/** The sites on which somebody is a colleague. */
export const sitesOfColleague = (database: Knex, account: string): Promise<SiteKey[]> =>
  database('colleague').where({ account, is_suspended: false }).pluck('site');

/** Whether somebody is a colleague of any site, suspended or not. */
export const isColleagueAnywhere = async (database: Knex, account: string): Promise<boolean> =>
  (await database('colleague').where({ account }).first('site')) !== undefined;

/**
 * Makes somebody a colleague with roles, or gives a colleague these roles in place of those before.
 * @param fromDirectory the places whose role the directory gave
 */
export async function putColleague(
  trx: Knex,
  site: SiteKey,
  account: string,
  roles: readonly RoleAt[],
  invitedBy: string | null = null,
  fromDirectory: readonly (PageId | null)[] = [],
): Promise<void> {
  await trx('colleague').insert({ site, account, invited_by: invitedBy }).onConflict(['site', 'account']).ignore();
  await trx('colleague_role').where({ site, account }).delete();
  const isFromDirectory = new Set(fromDirectory);
  const rows = roles.map(({ page, role }) => ({
    site,
    account,
    page,
    role,
    is_from_directory: isFromDirectory.has(page),
  }));
  await trx('colleague_role').insert(rows);
}

/** Shuts a colleague out, or lets them in again: whoever is let in by hand is nobody of the directory's any more. */
export async function setSuspended(trx: Knex, site: SiteKey, account: string, is_suspended: boolean): Promise<void> {
  await trx('colleague').where({ site, account }).update({ is_suspended });
  if (is_suspended) return;
  const left = await trx('colleague')
    .where({ site, account, has_left: true })
    .update({ directory_id: null, has_left: false });
  if (left > 0) await trx('colleague_role').where({ site, account }).update({ is_from_directory: false });
}

/** How the directory has a colleague. */
export const setOfDirectory = (
  trx: Knex,
  site: SiteKey,
  account: string,
  { directoryId, isSuspended, hasLeft }: Pick<StoredColleague, 'directoryId' | 'isSuspended' | 'hasLeft'>,
): Promise<number> =>
  trx('colleague')
    .where({ site, account })
    .update({ directory_id: directoryId, is_suspended: isSuspended, has_left: hasLeft });

export const deleteColleague = (trx: Knex, site: SiteKey, account: string): Promise<number> =>
  trx('colleague').where({ site, account }).delete();

/** Locks the colleagues of a site until the transaction ends, so that two changes do not decide on the same state. */
export const lockColleagues = (trx: Knex, site: SiteKey): Promise<unknown> =>
  trx.raw('SELECT pg_advisory_xact_lock(hashtext(?))', [`people ${site}`]);

/** Tells all processes, when the transaction is committed, that colleagues or roles of a site have changed. */
export const tellPeople = (trx: Knex, site: SiteKey): Promise<unknown> =>
  trx.raw('SELECT pg_notify(?, ?)', [PEOPLE_CHANNEL, site]);
