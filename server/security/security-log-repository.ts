import type { Knex } from 'knex';
import type { SiteKey } from '#core/model/ids.ts';
import type { Account } from '#contract/api.ts';
import type { SecurityEntry, SecurityEvent } from '#contract/people.ts';

const AT_ONCE = 100;

/** Writes down what concerns security. Passwords, links and codes are never among it. */
export const noteSecurity = (
  database: Knex,
  {
    at,
    event,
    site = null,
    account = null,
    about = '',
    place = '',
  }: {
    readonly at: Date;
    readonly event: SecurityEvent;
    readonly site?: SiteKey | null;
    readonly account?: Pick<Account, 'id' | 'name'> | null;
    readonly about?: string;
    readonly place?: string;
  },
): Promise<unknown> =>
  database('security_log').insert({
    at,
    event,
    site,
    account: account?.id ?? null,
    by_name: account?.name ?? null,
    about: about.slice(0, 300),
    place,
  });

/**
 * What happened, the latest first: on a site, and to the accounts of those who may open it; or to one account.
 * @param skip so many of the latest are left out
 */
export async function securityLog(
  database: Knex,
  of: { readonly site: SiteKey } | { readonly account: string },
  skip: number,
): Promise<{ entries: SecurityEntry[]; more: boolean }> {
  const rows = await database('security_log')
    .where((query) =>
      'site' in of
        ? query
            .where({ site: of.site })
            .orWhere((own) =>
              own
                .whereNull('site')
                .where((who) =>
                  who
                    .whereIn('account', database('colleague').where({ site: of.site }).select('account'))
                    .orWhereIn('account', database('account').where({ looks_after_all: true }).select('id')),
                ),
            )
        : query.where({ account: of.account }),
    )
    .orderBy('id', 'desc')
    .offset(skip)
    .limit(AT_ONCE + 1);
  return {
    entries: rows.slice(0, AT_ONCE).map((row) => ({
      at: row.at.toISOString(),
      event: row.event,
      by: row.by_name,
      about: row.about,
      place: row.place,
    })),
    more: rows.length > AT_ONCE,
  };
}
