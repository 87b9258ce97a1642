import type { Knex } from 'knex';
import type { SiteKey } from '#core/model/ids.ts';

interface StoredLink {
  readonly token_hash: string;
  readonly account: string;
  readonly purpose: 'invitation' | 'password';
  readonly site: SiteKey | null;
  readonly expires_at: Date;
}

/** Keeps a link. Earlier ones of the account for the same purpose end. */
export async function putLink(trx: Knex, link: StoredLink): Promise<void> {
  await trx('account_link').where({ account: link.account, purpose: link.purpose }).delete();
  await trx('account_link').insert(link);
}

/** The link of that hash with its account, where it still works. */
export async function linkBy(database: Knex, token_hash: string, now: Date) {
  const row = await database('account_link')
    .join('account', 'account.id', 'account_link.account')
    .leftJoin('site', 'site.key', 'account_link.site')
    .where({ token_hash })
    .andWhere('account_link.expires_at', '>', now)
    .first(
      'account_link.purpose',
      'account_link.site',
      'account.id',
      'account.name',
      'account.email',
      'account.looks_after_all',
      'site.name as site_name',
    );
  return (
    row && {
      purpose: row.purpose as StoredLink['purpose'],
      site: row.site as SiteKey | null,
      siteName: row.site_name as string | null,
      account: row.id as string,
      name: row.name as string,
      email: row.email as string,
      looksAfterAll: row.looks_after_all as boolean,
    }
  );
}

/** Uses a link up, and with it all others of the account. False where it is gone already. */
export async function takeLinksOf(trx: Knex, account: string, token_hash: string): Promise<boolean> {
  const taken = await trx('account_link').where({ token_hash }).delete();
  if (taken > 0) await trx('account_link').where({ account }).delete();
  return taken > 0;
}
