import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import type { TextDocument } from '#core/model/content.ts';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import { JOINT_REQUEST, type JointNews } from '#contract/joint-text.ts';
import { JOINT_CHANNEL } from '../database/channels.ts';

/** The text of a page as several write it. */
export interface Place {
  readonly site: SiteKey;
  readonly page: PageId;
}

/** What is kept of a shared document besides its updates. The number of an update is its place among those of its text. */
export interface JointRow {
  /** Which beginning of the document it is. */
  readonly begun: string;
  readonly base: string;
  /** The text that the page has of it; '' for none. */
  readonly content: string;
  /** The shared document as it was when the page last had all of it. */
  readonly state: Buffer;
  readonly savedSeq: number;
  readonly seq: number;
  /** How many bytes of updates have come since it was saved last. */
  readonly bytes: number;
  /** The revision of the site when it was saved last. */
  readonly savedRevision: number;
  /** The text that the page has now. */
  readonly onPage: string;
}

/** The columns of a row of `joint_text`, with the text of the page as the database has it in this moment. */
const COLUMNS = `joint.begun, joint.base, joint.content, joint.state, joint.saved_seq, joint.seq, joint.bytes, joint.saved_revision,
  coalesce((SELECT node.content FROM node WHERE node.site = joint.site AND node.id = joint.page), '') AS on_page`;

/** The shared document of a text, with a lock until the transaction ends; null where there is none. */
export async function lockJoint(trx: Knex, { site, page }: Place): Promise<JointRow | null> {
  // What the page has is asked for when the lock is held.
  const { rows } = await trx.raw('SELECT seq FROM joint_text WHERE site = ? AND page = ? FOR UPDATE', [site, page]);
  return rows.length === 0 ? null : jointAt(trx, { site, page });
}

export async function jointAt(database: Knex, { site, page }: Place): Promise<JointRow | null> {
  const {
    rows: [row],
  } = await database.raw(`SELECT ${COLUMNS} FROM joint_text AS joint WHERE site = ? AND page = ?`, [site, page]);
  if (!row) return null;
  return {
    begun: row.begun,
    base: row.base,
    content: row.content,
    state: row.state,
    savedSeq: Number(row.saved_seq),
    seq: Number(row.seq),
    bytes: Number(row.bytes),
    savedRevision: Number(row.saved_revision),
    onPage: row.on_page,
  };
}

/** Begins the shared document of a text. False where there is one. */
export async function insertJoint(
  trx: Knex,
  { site, page }: Place,
  { base, state }: { readonly base: string; readonly state: Uint8Array },
  at: Date,
): Promise<boolean> {
  const rows = await trx('joint_text')
    .insert({
      site,
      page,
      begun: randomUUID(),
      base,
      content: base,
      state: Buffer.from(state),
      saved_revision: trx('site').where('key', site).select('revision'),
      written_at: at,
    })
    .onConflict(['site', 'page'])
    .ignore()
    .returning('page');
  return rows.length > 0;
}

export const deleteJoint = (trx: Knex, { site, page }: Place): Promise<number> =>
  trx('joint_text').where({ site, page }).delete();

/** The updates after a number, up to another one, in order. */
export async function updatesAfter(
  database: Knex,
  { site, page }: Place,
  after: number,
  upTo: number,
): Promise<{ seq: number; update: Buffer }[]> {
  const rows = await database('joint_update')
    .where({ site, page })
    .andWhere('seq', '>', after)
    .andWhere('seq', '<=', upTo)
    .orderBy('seq')
    .select('seq', 'update');
  return rows.map((row) => ({ seq: Number(row.seq), update: row.update }));
}

/** Adds an update. The row of the text is locked. @param account who wrote it; null for what was taken over from the page */
export async function addUpdate(
  trx: Knex,
  { site, page }: Place,
  { seq, update, account }: { readonly seq: number; readonly update: Uint8Array; readonly account: string | null },
  at: Date,
): Promise<void> {
  await trx('joint_update').insert({ site, page, seq, update: Buffer.from(update), account });
  await trx('joint_text')
    .where({ site, page })
    .update({ seq, written_at: at, bytes: trx.raw('bytes + ?', [update.length]) });
}

/** So many updates that the page has are kept, for who has not heard of them yet. */
const KEPT_UPDATES = 300;

/** Says what the page has now. The row of the text is locked. */
export async function setSaved(
  trx: Knex,
  { site, page }: Place,
  saved: { readonly content: string; readonly seq: number; readonly state: Uint8Array; readonly revision: number },
): Promise<void> {
  await trx('joint_text')
    .where({ site, page })
    .update({
      content: saved.content,
      saved_seq: saved.seq,
      state: Buffer.from(saved.state),
      saved_revision: saved.revision,
      bytes: 0,
    });
  await trx('joint_update')
    .where({ site, page })
    .andWhere('seq', '<=', saved.seq - KEPT_UPDATES)
    .delete();
}

/** The accounts that wrote after a number, up to another one, by their ids: who wrote last comes first. */
export async function writersBetween(
  database: Knex,
  { site, page }: Place,
  after: number,
  upTo: number,
): Promise<string[]> {
  return database('joint_update')
    .where({ site, page })
    .andWhere('seq', '>', after)
    .andWhere('seq', '<=', upTo)
    .whereNotNull('account')
    .groupBy('account')
    .orderByRaw('max(seq) DESC')
    .pluck('account');
}

/** The request of the edit that gives a page what its document says with the update of that number. */
export const requestOf = (begun: string, seq: number): string => `${JOINT_REQUEST}${begun} ${seq}`;

/** The last edit that gave the page what this document said, after the revision at which it is known to be saved. */
export async function lastSaveAfter(
  trx: Knex,
  { site }: Place,
  { begun, savedRevision }: Pick<JointRow, 'begun' | 'savedRevision'>,
): Promise<{ seq: number; content: string; revision: number } | undefined> {
  const row = await trx('edit_log')
    .where({ site })
    .andWhere('revision', '>', savedRevision)
    .andWhere('request', 'like', `${requestOf(begun, 0).slice(0, -1)}%`)
    .orderBy('revision', 'desc')
    .first('revision', 'request', trx.raw(`operations -> 0 -> 'fields' ->> 'content' AS content`));
  return row && { seq: Number(row.request.split(' ')[2]), content: row.content ?? '', revision: Number(row.revision) };
}

/** The texts of pages in the tree in which something is written that these do not have, and was not written since a moment. */
export async function unsavedBefore(database: Knex, moment: Date): Promise<Place[]> {
  return database('joint_text')
    .join('node', { 'node.site': 'joint_text.site', 'node.id': 'joint_text.page' })
    .whereRaw('seq > saved_seq')
    .whereNull('node.removed_with')
    .andWhere('written_at', '<', moment)
    .limit(100)
    .select('joint_text.site', 'joint_text.page');
}

/** Forgets the shared documents that nobody has written in since a moment, and whose pages have all of them, or are gone. */
export const deleteQuiet = (database: Knex, moment: Date): Promise<number> =>
  database('joint_text')
    .whereRaw(
      '(seq = saved_seq OR NOT EXISTS (SELECT FROM node WHERE node.site = joint_text.site AND node.id = joint_text.page))',
    )
    .andWhere('written_at', '<', moment)
    .delete();

/** A text by its id; null for '', which is none. */
export async function documentAt(database: Knex, site: SiteKey, content: string): Promise<TextDocument | null> {
  if (content === '') return null;
  const row = await database('content').where({ site, id: content }).first('document');
  return row?.document ?? null;
}

/** The text that a page has now, by its id; '' for none. */
export async function contentOnPage(database: Knex, { site, page }: Place): Promise<string> {
  const row = await database('node').where({ site, id: page }).first('content');
  return row?.content ?? '';
}

/** Tells all processes; within a transaction, once it holds. */
export const tellJoint = (database: Knex, site: SiteKey, news: JointNews): Promise<unknown> =>
  database.raw('SELECT pg_notify(?, ?)', [JOINT_CHANNEL, JSON.stringify({ site, ...news })]);
