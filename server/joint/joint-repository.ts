import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import type { TextDocument } from '#core/model/content.ts';
import type { SiteKey } from '#core/model/ids.ts';
import { type TextPlace, placeText, textPlaceIn } from '#core/model/text-place.ts';
import { JOINT_REQUEST, type JointNews } from '#contract/joint-text.ts';
import { JOINT_CHANNEL } from '../database/channels.ts';

/** A text as several write it: that of a page, or another one. */
export interface Place {
  readonly site: SiteKey;
  readonly text: TextPlace;
}

/** How the database names it. */
const keyOf = ({ site, text }: Place): { site: SiteKey; place: string } => ({ site, place: placeText(text) });

/** What is kept of a shared document besides its updates. The number of an update is its place among those of its text. */
export interface JointRow {
  /** Which beginning of the document it is. */
  readonly begun: string;
  readonly base: string;
  /** The text that the site has of it; '' for none. */
  readonly content: string;
  /** The shared document as it was when the site last had all of it. */
  readonly state: Buffer;
  readonly savedSeq: number;
  readonly seq: number;
  /** How many bytes of updates have come since it was saved last. */
  readonly bytes: number;
  /** The revision of the site when it was saved last. */
  readonly savedRevision: number;
  /** The text that its place has now. */
  readonly inPlace: string;
}

/** The columns of a row of `joint_text`, with the text of its place as the database has it in this moment. */
const COLUMNS = `begun, base, content, state, saved_seq, seq, bytes, saved_revision, coalesce(text_at(site, place), '') AS in_place`;

/** The shared document of a text, with a lock until the transaction ends; null where there is none. */
export async function lockJoint(trx: Knex, place: Place): Promise<JointRow | null> {
  // What its place has is asked for when the lock is held.
  const row = await trx('joint_text').where(keyOf(place)).forUpdate().first('seq');
  return row ? jointAt(trx, place) : null;
}

export async function jointAt(database: Knex, place: Place): Promise<JointRow | null> {
  const row = await database('joint_text').where(keyOf(place)).first(database.raw(COLUMNS));
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
    inPlace: row.in_place,
  };
}

/** Begins the shared document of a text. False where there is one. */
export async function insertJoint(
  trx: Knex,
  place: Place,
  { base, state }: { readonly base: string; readonly state: Uint8Array },
  at: Date,
): Promise<boolean> {
  const rows = await trx('joint_text')
    .insert({
      ...keyOf(place),
      begun: randomUUID(),
      base,
      content: base,
      state: Buffer.from(state),
      saved_revision: trx('site').where('key', place.site).select('revision'),
      written_at: at,
    })
    .onConflict(['site', 'place'])
    .ignore()
    .returning('place');
  return rows.length > 0;
}

export const deleteJoint = (trx: Knex, place: Place): Promise<number> => trx('joint_text').where(keyOf(place)).delete();

/** The updates after a number, up to another one, in order. */
export async function updatesAfter(
  database: Knex,
  place: Place,
  after: number,
  upTo: number,
): Promise<{ seq: number; update: Buffer }[]> {
  const rows = await database('joint_update')
    .where(keyOf(place))
    .andWhere('seq', '>', after)
    .andWhere('seq', '<=', upTo)
    .orderBy('seq')
    .select('seq', 'update');
  return rows.map((row) => ({ seq: Number(row.seq), update: row.update }));
}

/** Adds an update. The row of the text is locked. @param account who wrote it; null for what was taken over from its place */
export async function addUpdate(
  trx: Knex,
  place: Place,
  { seq, update, account }: { readonly seq: number; readonly update: Uint8Array; readonly account: string | null },
  at: Date,
): Promise<void> {
  await trx('joint_update').insert({ ...keyOf(place), seq, update: Buffer.from(update), account });
  await trx('joint_text')
    .where(keyOf(place))
    .update({ seq, written_at: at, bytes: trx.raw('bytes + ?', [update.length]) });
}

/** So many updates that are saved are kept, for who has not heard of them yet. */
const KEPT_UPDATES = 300;

/** Says what its place has now. The row of the text is locked. */
export async function setSaved(
  trx: Knex,
  place: Place,
  saved: { readonly content: string; readonly seq: number; readonly state: Uint8Array; readonly revision: number },
): Promise<void> {
  await trx('joint_text')
    .where(keyOf(place))
    .update({
      content: saved.content,
      saved_seq: saved.seq,
      state: Buffer.from(saved.state),
      saved_revision: saved.revision,
      bytes: 0,
    });
  await trx('joint_update')
    .where(keyOf(place))
    .andWhere('seq', '<=', saved.seq - KEPT_UPDATES)
    .delete();
}

/** The accounts that wrote after a number, up to another one, by their ids: who wrote last comes first. */
export async function writersBetween(database: Knex, place: Place, after: number, upTo: number): Promise<string[]> {
  return database('joint_update')
    .where(keyOf(place))
    .andWhere('seq', '>', after)
    .andWhere('seq', '<=', upTo)
    .whereNotNull('account')
    .groupBy('account')
    .orderByRaw('max(seq) DESC')
    .pluck('account');
}

/** The request of the edit that gives a place what its document says with the update of that number: a text, by its id, or nothing. */
export const requestOf = (begun: string, seq: number, content: string): string =>
  `${JOINT_REQUEST}${begun} ${seq} ${content}`;

/** The last edit that gave its place what this document said, after the revision at which it is known to be saved. */
export async function lastSaveAfter(
  trx: Knex,
  { site }: Place,
  { begun, savedRevision }: Pick<JointRow, 'begun' | 'savedRevision'>,
): Promise<{ seq: number; content: string; revision: number } | undefined> {
  const row = await trx('edit_log')
    .where({ site })
    .andWhere('revision', '>', savedRevision)
    .andWhere('request', 'like', `${JOINT_REQUEST}${begun} %`)
    .orderBy('revision', 'desc')
    .first('revision', 'request');
  if (!row) return undefined;
  const [, , seq, content] = row.request.split(' ');
  return { seq: Number(seq), content, revision: Number(row.revision) };
}

/** The texts in which something is written that their places do not have, and was not written since a moment; without those of removed pages. */
export async function unsavedBefore(database: Knex, moment: Date): Promise<Place[]> {
  const rows = await database('joint_text')
    .whereRaw('seq > saved_seq AND text_at(site, place) IS NOT NULL')
    .whereRaw(
      `NOT EXISTS (SELECT FROM node WHERE node.site = joint_text.site AND split_part(place, ' ', 1) IN ('page', 'notes')
        AND node.id = split_part(place, ' ', 2) AND removed_with IS NOT NULL)`,
    )
    .andWhere('written_at', '<', moment)
    .limit(100)
    .select('site', 'place');
  return rows.map(({ site, place }) => ({ site, text: textPlaceIn(place) }));
}

/** Forgets the shared documents that nobody has written in since a moment, and whose places have all of them, or are gone. */
export const deleteQuiet = (database: Knex, moment: Date): Promise<number> =>
  database('joint_text')
    .whereRaw('(seq = saved_seq OR text_at(site, place) IS NULL)')
    .andWhere('written_at', '<', moment)
    .delete();

/** A text by its id; null for '', which is none. */
export async function documentAt(database: Knex, site: SiteKey, content: string): Promise<TextDocument | null> {
  if (content === '') return null;
  const row = await database('content').where({ site, id: content }).first('document');
  return row?.document ?? null;
}

/** The text that a place has now, by its id; '' for none. */
export async function contentInPlace(database: Knex, { site, text }: Place): Promise<string> {
  const { rows } = await database.raw('SELECT text_at(?, ?) AS content', [site, placeText(text)]);
  return rows[0].content ?? '';
}

/** Tells all processes; within a transaction, once it holds. */
export const tellJoint = (database: Knex, site: SiteKey, news: JointNews): Promise<unknown> =>
  database.raw('SELECT pg_notify(?, ?)', [JOINT_CHANNEL, JSON.stringify({ site, ...news })]);
