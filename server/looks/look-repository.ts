import type { Knex } from 'knex';
import type { SiteKey } from '#core/model/ids.ts';
import { DELETED } from '../sites/deleted-site-repository.ts';

/** What looks at a whole site in the background. */
export type LookKind = 'engine' | 'links';

/** The latest look of a kind at a site. */
export interface Look {
  readonly id: string;
  readonly state: 'running' | 'stopped' | 'failed' | 'done';
  readonly addresses_read: number;
  readonly addresses_known: number;
  /** What came of it, or of the one before while it is under way. */
  readonly report: unknown;
  /** When the process that does it has told last. */
  readonly told_at: Date;
}

export const latestLook = (database: Knex, site: SiteKey, kind: LookKind): Promise<Look | undefined> =>
  database<Look & { site: SiteKey; kind: LookKind }>('look').where({ site, kind }).first();

/** Begins a look in place of the one before, whose report stays until there is another. */
export async function beginLook(database: Knex, site: SiteKey, kind: LookKind, id: string, at: Date): Promise<void> {
  const row = { site, kind, id, state: 'running', addresses_read: 0, addresses_known: 0, told_at: at };
  await database('look')
    .insert(row)
    .onConflict(['site', 'kind'])
    .merge(['id', 'state', 'addresses_read', 'addresses_known', 'told_at']);
}

/** Tells how a look goes. Gives whether it is to go on: not, where it was stopped or another one has begun. */
export async function tellLook(
  database: Knex,
  site: SiteKey,
  kind: LookKind,
  id: string,
  told: Partial<Omit<Look, 'id' | 'report'>> & { readonly report?: object },
): Promise<boolean> {
  const { report, ...fields } = told;
  const changed = await database('look')
    .where({ site, kind, id, state: 'running' })
    .update({ ...fields, ...(report && { report: JSON.stringify(report) }) });
  return changed > 0;
}

export async function stopLook(database: Knex, site: SiteKey, kind: LookKind): Promise<void> {
  await database('look').where({ site, kind, state: 'running' }).update({ state: 'stopped' });
}

/** The sites that a look of the kind was begun at. */
export const sitesLookedAt = (database: Knex, kind: LookKind): Promise<SiteKey[]> =>
  database('look').where({ kind }).whereNot('site', 'like', `${DELETED}%`).orderBy('site').pluck('site');
