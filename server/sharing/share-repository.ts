import { randomBytes } from 'node:crypto';
import type { Knex } from 'knex';
import type { SiteKey } from '#core/model/ids.ts';

/** 192 bits of chance. */
const TOKEN_BYTES = 24;

/** A new secret for a link. */
export const newToken = (): string => randomBytes(TOKEN_BYTES).toString('base64url');

/** A link as it is kept. */
export interface Share {
  readonly id: string;
  readonly site: SiteKey;
  readonly name: string;
  readonly token: string;
  readonly passphrase_hash: string | null;
  readonly made_by: string | null;
  readonly made_by_name: string;
  readonly made_at: Date;
  readonly expires_at: Date;
  readonly withdrawn_at: Date | null;
  readonly last_opened_at: Date | null;
}

/** A link with how much was said by it. */
export type CountedShare = Share & { readonly guests: number; readonly verdicts: number; readonly comments: number };

const counted = (database: Knex) =>
  database<Share>('share').select(
    'share.*',
    database.raw('(SELECT count(*)::int FROM share_guest WHERE share = share.id) AS guests'),
    database.raw(
      '(SELECT count(*)::int FROM share_verdict v JOIN share_guest g ON g.id = v.guest WHERE g.share = share.id) AS verdicts',
    ),
    database.raw(
      '(SELECT count(*)::int FROM share_comment c JOIN share_guest g ON g.id = c.guest WHERE g.share = share.id) AS comments',
    ),
  );

/** The links of a site, newest first. */
export const sharesOf = async (database: Knex, site: SiteKey): Promise<CountedShare[]> =>
  counted(database).where({ site }).orderBy('made_at', 'desc').orderBy('id') as unknown as Promise<CountedShare[]>;

export const shareByToken = (database: Knex, token: string): Promise<Share | undefined> =>
  database<Share>('share').where({ token }).first();

export const shareById = (database: Knex, site: SiteKey, id: string): Promise<Share | undefined> =>
  database<Share>('share').where({ site, id }).first();

/** How many links of a site work. */
export const countOpenShares = async (database: Knex, site: SiteKey, now: Date): Promise<number> =>
  Number(
    (
      await database('share')
        .where({ site, withdrawn_at: null })
        .where('expires_at', '>', now)
        .count('* as count')
        .first()
    )?.count ?? 0,
  );

/** Gives the id of the link that was made. */
export async function insertShare(
  database: Knex,
  share: Omit<Share, 'withdrawn_at' | 'last_opened_at'>,
): Promise<string> {
  await database('share').insert(share);
  return share.id;
}

/** Gives whether there was such a link. One that is withdrawn already stays as it is. */
export async function withdrawShare(database: Knex, site: SiteKey, id: string, at: Date): Promise<boolean> {
  await database('share').where({ site, id, withdrawn_at: null }).update({ withdrawn_at: at });
  return (await shareById(database, site, id)) !== undefined;
}

/** Remembers that a link was opened, to the minute. */
export async function markOpened(database: Knex, id: string, at: Date): Promise<void> {
  const aMinuteAgo = new Date(at.getTime() - 60_000);
  await database('share')
    .where({ id })
    .where((either) => either.whereNull('last_opened_at').orWhere('last_opened_at', '<', aMinuteAgo))
    .update({ last_opened_at: at });
}
