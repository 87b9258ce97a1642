import { settleReserved } from '#core/operations/settle-reserved.ts';
import type { SiteKey } from '#core/model/ids.ts';
import type { PlainAccount } from '../accounts/account-repository.ts';
import { firstToLookAfterAll } from '../accounts/account-repository.ts';
import type { Database } from '../database/connect.ts';
import type { EditService } from '../edits/edit-service.ts';
import { loadSite, sitesWithReservedSlugs } from './site-repository.ts';

/**
 * Gives pages other slugs whose own have been reserved since they were made. It is an edit of the draft like any other: it can be undone,
 * and with the next release the former addresses lead on.
 */
export async function settleReservedSlugs(database: Database, edits: EditService): Promise<void> {
  const account = await firstToLookAfterAll(database);
  if (account)
    for (const key of await sitesWithReservedSlugs(database)) await settleIn(key, { database, edits, account });
}

/** The same for one site, as after one was restored from an archive. */
export async function settleIn(
  key: SiteKey,
  { database, edits, account }: { database: Database; edits: EditService; account: PlainAccount },
): Promise<void> {
  const loaded = await loadSite(database, key);
  const operations = loaded ? settleReserved(loaded.site) : [];
  if (operations.length > 0) await edits.apply(key, account, { operations });
}
