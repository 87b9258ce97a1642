import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { ConcernKind, MailWish } from '#core/talk/thread.ts';
import type { EditConcern, SaidConcern } from '#contract/talk.ts';

/** So many of what was said are listed. */
export const MAX_LISTED = 200;
/** So much of a comment stands in the list. */
const WORDS_SHOWN = 200;

/** Somebody whom things can concern. */
export interface Talker {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly mails: MailWish;
  readonly looksAfterAll: boolean;
}

/** Everybody who may open a site: its colleagues who are not suspended, and those who look after the installation. */
export async function talkersOf(database: Knex, site: SiteKey): Promise<Talker[]> {
  const rows = await database('account')
    .where((who) =>
      who
        .where({ looks_after_all: true })
        .orWhereIn('id', database('colleague').where({ site, is_suspended: false }).select('account')),
    )
    .orderBy('name')
    .orderBy('id')
    .select('id', 'name', 'email', 'mails', 'looks_after_all');
  return rows.map(({ looks_after_all: looksAfterAll, ...row }) => ({ ...row, looksAfterAll }));
}

export const setMails = (database: Knex, account: string, mails: MailWish): Promise<unknown> =>
  database('account').where({ id: account }).update({ mails });

export const mailsOf = async (database: Knex, account: string): Promise<MailWish> =>
  (await database('account').where({ id: account }).first('mails'))?.mails ?? 'at-once';

/** The pages that colleagues follow, oldest first; those of one colleague where an account is named. */
export async function followsOf(
  database: Knex,
  site: SiteKey,
  account?: string,
): Promise<{ account: string; page: PageId; since: string }[]> {
  const rows = await database('follow')
    .where({ site, ...(account !== undefined && { account }) })
    .orderBy(['since', 'page'])
    .select('account', 'page', 'since');
  return rows.map((row) => ({ ...row, since: row.since.toISOString() }));
}

export const countFollows = async (database: Knex, site: SiteKey, account: string): Promise<number> =>
  Number((await database('follow').where({ site, account }).count('* as count').first())?.count ?? 0);

export async function setFollow(
  database: Knex,
  site: SiteKey,
  account: string,
  page: PageId,
  since: Date | null,
): Promise<void> {
  if (since === null) await database('follow').where({ site, account, page }).delete();
  else await database('follow').insert({ site, account, page, since }).onConflict().ignore();
}

/** Something that is to be told to some accounts. */
export interface Told {
  readonly site: SiteKey;
  readonly page: PageId;
  readonly thread: string | null;
  readonly comment: string | null;
  readonly proposal?: string;
  readonly by_name: string;
  readonly words?: string;
}

export const insertConcerns = (
  trx: Knex,
  told: Told,
  concerned: ReadonlyMap<string, ConcernKind>,
  at: Date,
): Promise<unknown> =>
  concerned.size === 0
    ? Promise.resolve()
    : trx('concern').insert(
        [...concerned].map(([account, kind]) => ({ ...told, id: randomUUID(), account, kind, at })),
      );

/** Who has been told of a comment already. */
export const toldOf = (trx: Knex, comment: string): Promise<string[]> =>
  trx('concern').where({ comment }).pluck('account');

/** What was said that concerns somebody, newest first; only what came since a moment, where one is given. */
export async function saidTo(
  database: Knex,
  site: SiteKey,
  account: string,
  since: Date | null = null,
): Promise<SaidConcern[]> {
  const query = database('concern')
    .leftJoin('thread_comment as said', 'said.id', 'concern.comment')
    .where({ 'concern.site': site, 'concern.account': account })
    .orderBy('concern.at', 'desc')
    .orderBy('concern.id')
    .limit(MAX_LISTED)
    .select('concern.*', database.raw('left(coalesce(said.text, concern.words), ?) AS shown', [WORDS_SHOWN]));
  if (since !== null) void query.andWhere('concern.at', '>', since);
  return (await query).map((row) => ({
    id: row.id,
    kind: row.kind,
    page: row.page,
    thread: row.thread,
    proposal: row.proposal,
    by: row.by_name,
    words: row.shown,
    at: row.at.toISOString(),
    isRead: row.read_at !== null,
  }));
}

/** What others have changed of pages, each from a moment on; what was last changed comes first. */
export async function editsTo(
  database: Knex,
  site: SiteKey,
  account: string,
  pages: ReadonlyMap<PageId, string>,
): Promise<EditConcern[]> {
  if (pages.size === 0) return [];
  const earliest = [...pages.values()].reduce((a, b) => (a < b ? a : b));
  const { rows } = await database.raw(
    `SELECT page, CAST(count(*) AS int) AS count, max(at) AS at, (array_agg(words ORDER BY revision DESC))[1] AS words,
            array_agg(DISTINCT coalesce(name, 'Somebody')) AS by,
            coalesce(max(at) <= (SELECT until FROM concern_read
                                 WHERE site = :site AND account = :account AND what = 'edits ' || page), false) AS is_read
     FROM (SELECT DISTINCT revision, at, account, words, split_part(cell, '.', 1) AS page
           FROM edit_log CROSS JOIN LATERAL unnest(cells) AS cell
           WHERE site = :site AND at > CAST(:earliest AS timestamptz) AND account IS DISTINCT FROM :account
             AND cell NOT LIKE '%.live') AS change
     JOIN unnest(CAST(:pages AS text[]), CAST(:since AS timestamptz[])) AS own (page, since) USING (page)
     LEFT JOIN account ON account.id = change.account
     WHERE at > own.since
     GROUP BY page
     ORDER BY max(at) DESC, page
     LIMIT ${MAX_LISTED}`,
    { site, account, earliest, pages: [...pages.keys()], since: [...pages.values()] },
  );
  return (rows as (Omit<EditConcern, 'at' | 'isRead'> & { at: Date; is_read: boolean })[]).map(
    ({ is_read: isRead, at, ...row }) => ({ ...row, at: at.toISOString(), isRead }),
  );
}

/** Marks what was said as read, or as unread. Of what others were told nothing is touched. */
export const setSaidRead = (
  trx: Knex,
  site: SiteKey,
  account: string,
  ids: readonly string[],
  readAt: Date | null,
): Promise<unknown> =>
  trx('concern')
    .where({ site, account })
    .whereIn('id', [...ids])
    .update({ read_at: readAt });

/** Marks what follows from the tree as read up to a moment, or as unread (null). */
export async function setRead(
  trx: Knex,
  site: SiteKey,
  account: string,
  what: readonly string[],
  until: Date | null,
): Promise<void> {
  if (what.length === 0) return;
  if (until === null)
    await trx('concern_read')
      .where({ site, account })
      .whereIn('what', [...what])
      .delete();
  else
    await trx('concern_read')
      .insert([...new Set(what)].map((one) => ({ site, account, what: one, until })))
      .onConflict(['site', 'account', 'what'])
      .merge();
}

/** What else was read, besides edits. */
export const readBy = (database: Knex, site: SiteKey, account: string): Promise<string[]> =>
  database('concern_read')
    .where({ site, account })
    .andWhereRaw(`what NOT LIKE 'edits %'`)
    .orderBy('what')
    .pluck('what');

/** Whether anybody works on a site besides those who look after the installation. */
export const hasColleagues = async (database: Knex): Promise<boolean> =>
  (await database('colleague').first('site')) !== undefined;

/** The sites with colleagues. */
export const sitesWithPeople = (database: Knex): Promise<SiteKey[]> =>
  database('colleague').distinct('site').orderBy('site').pluck('site');

/** Up to when the last daily mail about a site told somebody, and which findings stood then, by their names. */
export interface Mailed {
  readonly until: Date;
  readonly findings: readonly string[];
}

/** Null before the first mail. The row is locked until the transaction ends. */
export const lastMailed = async (trx: Knex, site: SiteKey, account: string): Promise<Mailed | null> =>
  (await trx('daily_mail').where({ site, account }).forUpdate().first('until', 'findings')) ?? null;

export const setMailed = (trx: Knex, site: SiteKey, account: string, { until, findings }: Mailed): Promise<unknown> =>
  trx('daily_mail')
    .insert({ site, account, until, findings: [...findings] })
    .onConflict(['site', 'account'])
    .merge();
