import type { Knex } from 'knex';
import type { SiteKey } from '#core/model/ids.ts';
import type { EngineReport } from '#contract/engine.ts';

/** The latest look at a site. */
export interface EngineLook {
  readonly id: string;
  readonly state: 'running' | 'stopped' | 'failed' | 'done';
  readonly addresses_read: number;
  readonly addresses_known: number;
  /** What came of it, or of the one before while it is under way. */
  readonly report: EngineReport | null;
  /** When the process that does it has told last. */
  readonly told_at: Date;
}

export const engineLook = (database: Knex, site: SiteKey): Promise<EngineLook | undefined> =>
  database<EngineLook & { site: SiteKey }>('engine_look').where({ site }).first();

/** Begins a look in place of the one before, whose report stays until there is another. */
export async function beginLook(database: Knex, site: SiteKey, id: string, at: Date): Promise<void> {
  const row = { site, id, state: 'running', addresses_read: 0, addresses_known: 0, told_at: at };
  await database('engine_look')
    .insert(row)
    .onConflict('site')
    .merge(['id', 'state', 'addresses_read', 'addresses_known', 'told_at']);
}

/** Tells how a look goes. Gives whether it is to go on: not, where it was stopped or another one has begun. */
export async function tellLook(
  database: Knex,
  site: SiteKey,
  id: string,
  told: Partial<Omit<EngineLook, 'id' | 'report'>> & { readonly report?: EngineReport },
): Promise<boolean> {
  const { report, ...fields } = told;
  const changed = await database('engine_look')
    .where({ site, id, state: 'running' })
    .update({ ...fields, ...(report && { report: JSON.stringify(report) }) });
  return changed > 0;
}

export async function stopLook(database: Knex, site: SiteKey): Promise<void> {
  await database('engine_look').where({ site, state: 'running' }).update({ state: 'stopped' });
}
