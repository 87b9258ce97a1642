import type { Knex } from 'knex';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { applyOperations } from '#core/operations/apply.ts';
import type { Account } from '#contract/api.ts';
import type { ArchiveHead, ArchivedEdit } from '#contract/archive.ts';
import { packSite } from '#contract/packed-site.ts';
import { passphrasesIn } from '#core/derive/access.ts';
import type { StoredContent } from '../contents/content-service.ts';
import { inBatches } from '../files/in-batches.ts';
import { type BroughtFile, filesToTake, putFiles } from '../library/file-repository.ts';
import { insertSite, loadSite } from '../sites/site-repository.ts';
import { ArchiveFault } from './archive-file.ts';

/** So many edits are read, or written, at once. */
const EDITS_AT_ONCE = 1000;
/** So many texts. */
const CONTENTS_AT_ONCE = 200;
/** Between so many, others get their turn. */
const EDITS_TAKEN_BACK_AT_ONCE = 50;

/** An archive on its way out: what is long comes in pieces, of the history the oldest first. */
export interface ReadArchive {
  readonly head: ArchiveHead;
  readonly contents: AsyncIterable<readonly { readonly id: string; readonly document: object }[]>;
  readonly history: AsyncIterable<readonly ArchivedEdit[]>;
}

/**
 * Reads a site with all that became of it, at one moment; `write` is given it and reads the history to its end.
 * Gives false where there is no such site.
 */
export async function readArchive(
  database: Knex,
  key: SiteKey,
  now: Date,
  write: (archive: ReadArchive) => Promise<void>,
): Promise<boolean> {
  return database.transaction(
    async (trx) => {
      const loaded = await loadSite(trx, key);
      if (!loaded) return false;
      const people = await peopleOf(trx, key);
      const places = new Map(people.map(({ id }, index) => [id, index]));
      const place = (account: string | null) => (account === null ? null : (places.get(account) ?? null));
      const head = await headOf(trx, key, loaded.site, Number(loaded.revision), now, people, place);
      await write({ head, contents: contentsOf(trx, key), history: historyOf(trx, key, place) });
      return true;
    },
    { isolationLevel: 'repeatable read', readOnly: true },
  );
}

const peopleOf = (trx: Knex, key: SiteKey): Promise<{ id: string; name: string; email: string }[]> =>
  trx('account')
    .whereIn('id', trx('edit_log').where({ site: key }).select('account'))
    .orderBy('name')
    .select('id', 'name', 'email');

async function headOf(
  trx: Knex,
  key: SiteKey,
  site: Site,
  revision: number,
  now: Date,
  people: readonly { name: string; email: string }[],
  place: (account: string | null) => number | null,
): Promise<ReadArchive['head']> {
  const row = await trx('site').where({ key }).first<{ release: string }>('release');
  const live: { id: PageId; live_at: Date }[] = await trx('live_node')
    .where({ site: key })
    .orderBy('id')
    .select('id', 'live_at');
  const former = await trx('former_address').where({ site: key }).orderBy('path').select('path', 'page', 'since');
  const releases = await trx('release').where({ site: key }).orderBy('number');
  const asked = [...passphrasesIn(site)];
  return {
    format: 'spur-archive',
    version: 1,
    writtenAt: now.toISOString(),
    site: packSite(site, revision),
    release: Number(row.release),
    liveAt: Object.fromEntries(live.map((one) => [one.id, one.live_at.toISOString()])),
    formerAddresses: former.map((one) => ({ ...one, since: one.since.toISOString() })),
    oldRedirects: await trx('live_redirect').where({ site: key }).orderBy('path').select('path', 'page'),
    passphrases: await trx('passphrase').where({ site: key }).whereIn('id', asked).orderBy('id').select('id', 'hash'),
    files: await filesToTake(trx, key),
    people: people.map(({ name, email }) => ({ name, email })),
    releases: releases.map((one) => ({
      number: Number(one.number),
      revision: Number(one.revision),
      at: one.at.toISOString(),
      by: place(one.account),
      pages: one.pages,
      retired: one.retired,
      name: one.name,
      note: one.note,
      settings: one.settings,
      takesBack: one.takes_back === null ? null : Number(one.takes_back),
    })),
  };
}

async function* contentsOf(trx: Knex, key: SiteKey): AsyncGenerator<{ id: string; document: object }[]> {
  for (let after = ''; ;) {
    const rows: { id: string; document: object }[] = await trx('content')
      .where({ site: key })
      .andWhere('id', '>', after)
      .orderBy('id')
      .limit(CONTENTS_AT_ONCE)
      .select('id', 'document');
    if (rows.length === 0) return;
    yield rows;
    after = rows.at(-1)!.id;
  }
}

async function* historyOf(
  trx: Knex,
  key: SiteKey,
  place: (account: string | null) => number | null,
): AsyncGenerator<readonly ArchivedEdit[]> {
  for (let after = 0; ;) {
    const rows = await trx('edit_log')
      .where({ site: key })
      .andWhere('revision', '>', after)
      .orderBy('revision')
      .limit(EDITS_AT_ONCE)
      .select('revision', 'at', 'account', 'kind', 'words', 'operations', 'inverse', 'cells', 'went_back_to');
    if (rows.length === 0) return;
    yield rows.map(({ account, at, revision, went_back_to: wentBackTo, ...row }) => ({
      ...row,
      ...(wentBackTo !== null && { wentBackTo }),
      revision: Number(revision),
      at: at.toISOString(),
      by: place(account),
    }));
    after = Number(rows.at(-1).revision);
  }
}

/** An archive on its way in: what is long comes piece by piece. */
export interface BroughtArchive {
  readonly site: Site;
  readonly head: ArchiveHead;
  readonly contents: AsyncIterable<StoredContent>;
  readonly history: AsyncIterable<ArchivedEdit>;
  /** What of its library could be kept. */
  readonly files: readonly BroughtFile[];
}

/**
 * Writes a site with all that became of it. SQLSTATE 23505 where the key is taken. @throws ArchiveFault where its history does not
 * lead back to the beginning. Nothing is written then.
 */
export async function writeArchive(
  database: Knex,
  { site, head, contents, history, files }: BroughtArchive,
  { account, now }: { readonly account: Account; readonly now: Date },
): Promise<void> {
  const { key } = site;
  await database.transaction(async (trx) => {
    await insertSite(trx, site, account.id, contents);
    await putFiles(trx, key, files, { account: account.id, now });
    await trx('site').where({ key }).update({ revision: head.site.revision, release: head.release, changed_at: now });
    await trx.raw(
      `UPDATE live_node SET live_at = r.at FROM jsonb_to_recordset(?::jsonb) AS r (id text, at timestamptz)
       WHERE live_node.site = ? AND live_node.id = r.id`,
      [JSON.stringify(Object.entries(head.liveAt).map(([id, at]) => ({ id, at }))), key],
    );
    // People are known again by their mail addresses; what others did has nobody's name.
    const known: { id: string; email: string }[] = await trx('account').select('id', trx.raw('lower(email) AS email'));
    const ids = head.people.map(({ email }) => known.find((one) => one.email === email.toLowerCase())?.id ?? null);
    const idOf = (by: number | null) => (by === null ? null : (ids[by] ?? null));
    for await (const some of inBatches(history, EDITS_AT_ONCE))
      await trx('edit_log').insert(
        some.map(({ by, operations, inverse, wentBackTo = null, ...edit }) => ({
          site: key,
          ...edit,
          went_back_to: wentBackTo,
          account: idOf(by),
          operations: JSON.stringify(operations),
          inverse: JSON.stringify(inverse),
        })),
      );
    await goBackToBeginning(trx, site);
    const insert = (table: string, rows: readonly object[]) => trx.batchInsert(table, [...rows], EDITS_AT_ONCE);
    await insert(
      'release',
      head.releases.map(({ by, takesBack, ...one }) => ({
        site: key,
        ...one,
        account: idOf(by),
        takes_back: takesBack,
      })),
    );
    await insert(
      'former_address',
      head.formerAddresses.map((one) => ({ site: key, ...one })),
    );
    await insert(
      'live_redirect',
      head.oldRedirects.map((one) => ({ site: key, ...one })),
    );
    await insert(
      'passphrase',
      head.passphrases.map((one) => ({ site: key, ...one })),
    );
  });
}

/** Takes back every edit of a site, the latest first, to see that each can be. @throws ArchiveFault */
async function goBackToBeginning(trx: Knex, site: Site): Promise<void> {
  let at = site;
  for (let before = Number.MAX_SAFE_INTEGER; ;) {
    const edits: { revision: string; inverse: ArchivedEdit['inverse'] }[] = await trx('edit_log')
      .where({ site: site.key })
      .andWhere('revision', '<', before)
      .orderBy('revision', 'desc')
      .limit(EDITS_TAKEN_BACK_AT_ONCE)
      .select('revision', 'inverse');
    if (edits.length === 0) return;
    for (const { revision, inverse } of edits) {
      const back = applyOperations(at, inverse);
      if (!back.ok)
        throw new ArchiveFault(`Edit ${revision} of the history cannot be taken back from the state after it.`);
      at = back.site;
    }
    before = Number(edits.at(-1)!.revision);
  }
}
