import type { Knex } from 'knex';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { AboutBoard, AboutSketch, CommentKind, Proposes, Verdict } from '#core/model/feedback.ts';
import type { SketchId } from '#core/model/plan.ts';
import type { VariantId } from '#core/model/sketch.ts';
import type { CommentAnswer, FeedbackAnswer } from '#contract/sharing.ts';
import { FEEDBACK_CHANNEL } from '../database/channels.ts';
import { oneOf } from '../database/one-of.ts';

export interface Guest {
  readonly id: string;
  readonly name: string;
  readonly email: string | null;
}

const UNIQUE_VIOLATION = '23505';

/** What was said by all links of a site, or by one of them, oldest first. */
export async function feedbackOf(
  database: Knex,
  of: { readonly site: SiteKey } | { readonly share: string },
): Promise<FeedbackAnswer> {
  const said = (table: string) => {
    const query = database(`${table} as said`)
      .join('share_guest as guest', 'guest.id', 'said.guest')
      .join('share', 'share.id', 'guest.share')
      .select('said.*', 'guest.share', 'guest.name as by');
    return 'site' in of ? query.where('share.site', of.site) : query.where('share.id', of.share);
  };
  const [verdicts, comments, choices] = await Promise.all([
    said('share_verdict').orderBy(['said.given_at', 'said.guest', 'said.page']),
    said('share_comment').orderBy(['said.made_at', 'said.id']),
    said('share_choice').orderBy(['said.chosen_at', 'said.guest', 'said.sketch']),
  ]);
  return {
    verdicts: verdicts.map((row) => ({
      share: row.share,
      guest: row.guest,
      page: row.page,
      verdict: row.verdict,
      by: row.by,
      at: row.given_at.toISOString(),
      settledBy: row.settled_by,
    })),
    comments: comments.map(commentOf),
    choices: choices.map((row) => ({
      share: row.share,
      guest: row.guest,
      sketch: row.sketch,
      variant: row.variant,
      by: row.by,
      at: row.chosen_at.toISOString(),
    })),
  };
}

const commentOf = (row: Record<string, unknown> & { made_at: Date }): CommentAnswer =>
  ({
    id: row.id,
    share: row.share,
    guest: row.guest,
    page: row.page,
    kind: row.kind,
    text: row.text,
    proposes: row.proposes,
    about: row.about,
    isAccepted: row.is_accepted,
    by: row.by,
    at: row.made_at.toISOString(),
    answer: row.answer,
    answeredBy: row.answered_by,
    settledBy: row.settled_by,
  }) as CommentAnswer;

/** A comment of a site with where its maker wants answers sent to, locked until the transaction ends. */
export async function commentForAnswer(
  database: Knex,
  site: SiteKey,
  id: string,
): Promise<{ comment: CommentAnswer; email: string | null } | undefined> {
  const row = await database('share_comment as said')
    .join('share_guest as guest', 'guest.id', 'said.guest')
    .join('share', 'share.id', 'guest.share')
    .where({ 'said.id': id, 'share.site': site })
    .select('said.*', 'guest.share', 'guest.name as by', 'guest.email')
    .forUpdate('said')
    .first();
  return row && { comment: commentOf(row), email: row.email };
}

export async function setAnswer(
  database: Knex,
  id: string,
  set: {
    readonly answer: string;
    readonly answered_by: string | null;
    readonly settled_by: string | null;
    readonly is_accepted: boolean;
  },
): Promise<void> {
  await database('share_comment').where({ id }).update(set);
}

/** Settles what waits on pages of a site (`by` a name), or opens it again (null). */
export async function setSettled(
  database: Knex,
  site: SiteKey,
  pages: readonly PageId[],
  by: string | null,
): Promise<void> {
  const guests = database('share_guest')
    .join('share', 'share.id', 'share_guest.share')
    .where('share.site', site)
    .select('share_guest.id');
  for (const table of ['share_verdict', 'share_comment']) {
    const query = database(table).where(oneOf('page', pages)).whereIn('guest', guests.clone());
    if (table === 'share_verdict') query.whereNot('verdict', 'agreed');
    const reopened = table === 'share_comment' ? { settled_by: null, is_accepted: false } : { settled_by: null };
    if (by === null) await query.whereNotNull('settled_by').update(reopened);
    else await query.whereNull('settled_by').update({ settled_by: by });
  }
}

export const guestAt = (database: Knex, share: string, id: string): Promise<Guest | undefined> =>
  database('share_guest').where({ id, share }).select('id', 'name', 'email').first();

export const countGuests = async (database: Knex, share: string): Promise<number> =>
  Number((await database('share_guest').where({ share }).count('* as count').first())?.count ?? 0);

/** Gives whether the name was free in that link. */
export async function insertGuest(database: Knex, share: string, guest: Guest, at: Date): Promise<boolean> {
  try {
    await database('share_guest').insert({ ...guest, share, made_at: at });
    return true;
  } catch (fault) {
    if ((fault as { code?: string }).code === UNIQUE_VIOLATION) return false;
    throw fault;
  }
}

/** Keeps a verdict in place of the guest's earlier one; what was settled waits again where it says something else. */
export async function putVerdict(
  database: Knex,
  guest: string,
  page: PageId,
  verdict: Verdict | null,
  at: Date,
): Promise<void> {
  if (verdict === null) {
    await database('share_verdict').where({ guest, page }).delete();
    return;
  }
  await database('share_verdict')
    .insert({ guest, page, verdict, given_at: at })
    .onConflict(['guest', 'page'])
    .merge({
      verdict,
      given_at: at,
      settled_by: database.raw(
        'CASE WHEN share_verdict.verdict = excluded.verdict THEN share_verdict.settled_by END',
      ) as never,
    });
}

/** Keeps which variant of a sketch a guest would take, in place of their earlier choice; null takes it back. */
export async function putChoice(
  database: Knex,
  guest: string,
  sketch: SketchId,
  variant: VariantId | null,
  at: Date,
): Promise<void> {
  if (variant === null) await database('share_choice').where({ guest, sketch }).delete();
  else
    await database('share_choice')
      .insert({ guest, sketch, variant, chosen_at: at })
      .onConflict(['guest', 'sketch'])
      .merge();
}

export const countComments = async (database: Knex, share: string): Promise<number> =>
  Number(
    (
      await database('share_comment')
        .join('share_guest', 'share_guest.id', 'share_comment.guest')
        .where('share_guest.share', share)
        .count('* as count')
        .first()
    )?.count ?? 0,
  );

export async function insertComment(
  database: Knex,
  comment: {
    readonly id: string;
    readonly guest: string;
    readonly page: PageId | null;
    readonly kind: CommentKind;
    readonly text: string;
    readonly proposes?: Proposes;
    readonly about?: AboutSketch | AboutBoard | null;
  },
  at: Date,
): Promise<void> {
  await database('share_comment').insert({ ...comment, made_at: at });
}

/** Takes a guest's own comment back, unless it has an answer or was accepted: then who did that comes back. */
export async function deleteComment(
  database: Knex,
  guest: string,
  id: string,
): Promise<'deleted' | 'unknown' | { readonly answeredBy: string }> {
  const deleted = await database('share_comment').where({ id, guest, answered_by: null, is_accepted: false }).delete();
  if (deleted > 0) return 'deleted';
  const kept = await database('share_comment').where({ id, guest }).select('answered_by', 'settled_by').first();
  return kept ? { answeredBy: kept.answered_by ?? kept.settled_by } : 'unknown';
}

/** Tells every process that the feedback of a site has changed, when the transaction is committed. */
export async function tellFeedback(database: Knex, site: SiteKey): Promise<void> {
  await database.raw('SELECT pg_notify(?, ?)', [FEEDBACK_CHANNEL, site]);
}
