import type { Knex } from 'knex';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { About } from '#core/talk/thread.ts';

export interface StoredComment {
  readonly id: string;
  /** Null where the account is gone. */
  readonly account: string | null;
  readonly by: string;
  readonly text: string;
  readonly at: Date;
  readonly editedAt: Date | null;
}

/** Somebody to whom a thread was handed over, and in whose hands it was. */
export interface StoredHand {
  readonly to: string;
  readonly toName: string;
  readonly by: string;
  readonly byName: string;
}

/** What colleagues said of one thing, the first comment first. */
export interface StoredThread {
  readonly id: string;
  readonly page: PageId;
  readonly about: About;
  readonly settledBy: string | null;
  readonly settledAt: Date | null;
  /** To whom it was handed over, and by whom. */
  readonly handed: readonly StoredHand[];
  readonly comments: readonly StoredComment[];
}

/** The threads of a site that are open, oldest first; or all of one page; or one. */
export async function threadsOf(
  database: Knex,
  site: SiteKey,
  which: 'open' | { readonly page: PageId } | { readonly id: string },
): Promise<StoredThread[]> {
  const query = database('thread')
    .join('thread_comment as said', 'said.thread', 'thread.id')
    .where({ 'thread.site': site })
    .orderBy(['thread.made_at', 'thread.id', 'said.made_at', 'said.id'])
    .select('thread.id as thread', 'thread.page', 'thread.about', 'thread.settled_by', 'thread.settled_at')
    .select('said.id', 'said.account', 'said.by_name', 'said.text', 'said.made_at', 'said.edited_at')
    .select(
      database.raw(`(SELECT coalesce(json_agg(json_build_object('to', heir.id, 'toName', heir.name, 'by', giver.id, 'byName', giver.name)
                                              ORDER BY heir.name, heir.id, giver.id), '[]')
                     FROM thread_hand
                     JOIN account AS heir ON heir.id = thread_hand.account
                     JOIN account AS giver ON giver.id = thread_hand.handed_by
                     WHERE thread_hand.thread = thread.id) AS handed`),
    );
  if (which === 'open') void query.whereNull('thread.settled_by');
  else if ('page' in which) void query.where({ 'thread.page': which.page });
  else void query.where({ 'thread.id': which.id });
  const threads = new Map<string, Omit<StoredThread, 'comments'> & { readonly comments: StoredComment[] }>();
  for (const row of await query) {
    const thread = threads.get(row.thread) ?? {
      id: row.thread,
      page: row.page,
      about: row.about,
      settledBy: row.settled_by,
      settledAt: row.settled_at,
      handed: row.handed,
      comments: [] as StoredComment[],
    };
    threads.set(row.thread, thread);
    thread.comments.push({
      id: row.id,
      account: row.account,
      by: row.by_name,
      text: row.text,
      at: row.made_at,
      editedAt: row.edited_at,
    });
  }
  return [...threads.values()];
}

/** Puts threads into somebody's hands, and out of another's. */
export async function handThreads(trx: Knex, ids: readonly string[], from: string, to: string): Promise<void> {
  if (ids.length === 0) return;
  const passedOn = await trx('thread_hand')
    .where({ account: from })
    .whereIn('thread', [...ids])
    .delete(['thread', 'handed_by']);
  const hands = [...passedOn, ...ids.map((thread) => ({ thread, handed_by: from }))]
    .filter((one) => one.handed_by !== to)
    .map((one) => ({ ...one, account: to }));
  await trx('thread_hand').insert(hands).onConflict().ignore();
  // What comes back to somebody was never given away.
  await trx('thread_hand')
    .where({ handed_by: to })
    .whereIn('thread', [...ids])
    .delete();
}

/** How many threads are settled on which page. */
export async function countSettled(database: Knex, site: SiteKey): Promise<{ page: PageId; count: number }[]> {
  const rows = await database('thread')
    .where({ site })
    .whereNotNull('settled_by')
    .groupBy('page')
    .orderBy('page')
    .select('page')
    .count('* as count');
  return rows.map(({ page, count }) => ({ page: page as PageId, count: Number(count) }));
}

export const countThreads = async (database: Knex, site: SiteKey, page: PageId): Promise<number> =>
  Number((await database('thread').where({ site, page }).count('* as count').first())?.count ?? 0);

/** Locks a thread until the transaction ends, so that two changes do not decide on the same state. */
export const lockThread = (trx: Knex, site: SiteKey, id: string): Promise<unknown> =>
  trx('thread').where({ site, id }).forUpdate().select('id');

/** Gives whether it is new: one that is there already stays as it is. */
export async function insertThread(
  trx: Knex,
  thread: { readonly id: string; readonly site: SiteKey; readonly page: PageId; readonly about: About },
  at: Date,
): Promise<boolean> {
  const about = thread.about && JSON.stringify(thread.about);
  const made = await trx('thread')
    .insert({ ...thread, about, made_at: at })
    .onConflict('id')
    .ignore()
    .returning('id');
  return made.length > 0;
}

/** Gives whether it is new: one that is there already stays as it is. */
export async function insertComment(
  trx: Knex,
  comment: {
    readonly id: string;
    readonly thread: string;
    readonly account: string;
    readonly by_name: string;
    readonly text: string;
  },
  at: Date,
): Promise<boolean> {
  const made = await trx('thread_comment')
    .insert({ ...comment, made_at: at })
    .onConflict('id')
    .ignore()
    .returning('id');
  return made.length > 0;
}

export const setCommentText = (trx: Knex, id: string, text: string, at: Date): Promise<unknown> =>
  trx('thread_comment').where({ id }).update({ text, edited_at: at });

export const deleteComment = (trx: Knex, id: string): Promise<unknown> => trx('thread_comment').where({ id }).delete();

export const deleteThread = (trx: Knex, id: string): Promise<unknown> => trx('thread').where({ id }).delete();

/** Settles a thread, or reopens it for null. */
export const setSettled = (trx: Knex, id: string, by: string | null, at: Date): Promise<unknown> =>
  trx('thread')
    .where({ id })
    .update({ settled_by: by, settled_at: by === null ? null : at });
