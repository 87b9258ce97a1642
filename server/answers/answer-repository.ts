import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import type { AnswerState, Said } from '#core/forms/answer.ts';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { FormId } from '#core/model/site-form.ts';

/** An answer that comes. */
export interface NewAnswer {
  readonly site: SiteKey;
  readonly form: FormId;
  readonly formName: string;
  /** What the form bore: the same one is kept once. */
  readonly stamp: string;
  readonly sentAt: Date;
  readonly page: PageId;
  readonly pageTitle: string;
  /** The account of whoever was signed in. */
  readonly visitor: string | null;
  readonly said: readonly Said[];
  readonly keptDays: number;
}

/** An answer as it is kept. */
export interface KeptAnswer {
  readonly id: string;
  readonly form: FormId;
  readonly formName: string;
  readonly sentAt: Date;
  readonly page: PageId | null;
  readonly pageTitle: string;
  readonly visitorName: string | null;
  readonly said: readonly Said[];
  readonly state: AnswerState;
  readonly note: string;
}

interface AnswerRow {
  id: string;
  form: FormId;
  form_name: string;
  sent_at: Date;
  page: PageId | null;
  page_title: string;
  visitor_name: string | null;
  said: Said[];
  state: AnswerState;
  note: string;
}

const COLUMNS = [
  'id',
  'form',
  'form_name',
  'sent_at',
  'page',
  'page_title',
  'visitor_name',
  'said',
  'state',
  'note',
] as const;

const fromRow = (row: AnswerRow): KeptAnswer => ({
  id: row.id,
  form: row.form,
  formName: row.form_name,
  sentAt: row.sent_at,
  page: row.page,
  pageTitle: row.page_title,
  visitorName: row.visitor_name,
  said: row.said,
  state: row.state,
  note: row.note,
});

/** Keeps an answer. Gives its id; null where the same form was accepted before. */
export async function insertAnswer(database: Knex, answer: NewAnswer): Promise<string | null> {
  const id = randomUUID();
  const { rows } = await database.raw<{ rows: { id: string }[] }>(
    `INSERT INTO answer (id, site, form, form_name, stamp, sent_at, page, page_title, visitor, visitor_name, said, state, kept_days)
     SELECT ?, ?, ?, ?, ?, ?, ?, ?, v.id, v.name, ?::jsonb, 'new', ? FROM (SELECT 1) AS one LEFT JOIN visitor v ON v.id = ? AND v.site = ?
     ON CONFLICT (site, form, stamp) DO NOTHING RETURNING id`,
    [
      id,
      answer.site,
      answer.form,
      answer.formName,
      answer.stamp,
      answer.sentAt,
      answer.page,
      answer.pageTitle,
      JSON.stringify(answer.said),
      answer.keptDays,
      answer.visitor,
      answer.site,
    ],
  );
  return rows[0]?.id ?? null;
}

/** Whether a form that bore a stamp was accepted before. */
export const wasAnswered = async (database: Knex, site: SiteKey, form: FormId, stamp: string): Promise<boolean> =>
  (await database('answer').where({ site, form, stamp }).first('id')) !== undefined;

/** What is known of a visitor of a site, to begin a form with. */
export const visitorNamed = (
  database: Knex,
  site: SiteKey,
  visitor: string,
): Promise<{ name: string; email: string } | undefined> =>
  database('visitor').where({ id: visitor, site }).first('name', 'email');

/** Which answers are asked for; all, where nothing is said. */
export interface AnswerFilter {
  readonly form?: FormId;
  readonly state?: AnswerState;
  /** Only those that came before this one, by its id. */
  readonly before?: string;
}

const among = (database: Knex, site: SiteKey, { form, state }: AnswerFilter): Knex.QueryBuilder => {
  const query = database('answer').where({ site });
  if (form !== undefined) void query.andWhere({ form });
  if (state !== undefined) void query.andWhere({ state });
  return query;
};

/** The latest answers, newest first. */
export async function latestAnswers(
  database: Knex,
  site: SiteKey,
  filter: AnswerFilter,
  most: number,
): Promise<KeptAnswer[]> {
  const query = among(database, site, filter)
    .orderBy('sent_at', 'desc')
    .orderBy('id', 'desc')
    .limit(most)
    .select(COLUMNS);
  if (filter.before !== undefined)
    void query.andWhereRaw(`(sent_at, id) < (SELECT sent_at, id FROM answer WHERE site = ? AND id = ?) AND id <> ?`, [
      site,
      filter.before,
      filter.before,
    ]);
  return ((await query) as AnswerRow[]).map(fromRow);
}

/** All answers to one form, oldest first, a part at a time. */
export async function* allAnswers(database: Knex, site: SiteKey, form: FormId): AsyncGenerator<KeptAnswer[]> {
  let last: KeptAnswer | undefined;
  for (;;) {
    const query = among(database, site, { form }).orderBy('sent_at').orderBy('id').limit(1000).select(COLUMNS);
    if (last) void query.andWhereRaw('(sent_at, id) > (?, ?::uuid)', [last.sentAt, last.id]);
    const some = ((await query) as AnswerRow[]).map(fromRow);
    if (some.length === 0) return;
    yield some;
    last = some.at(-1);
  }
}

export async function answerAt(database: Knex, site: SiteKey, id: string): Promise<KeptAnswer | undefined> {
  const row = (await database('answer').where({ site, id }).first(COLUMNS)) as AnswerRow | undefined;
  return row && fromRow(row);
}

/** How many answers there are to each form, those to forms that are gone too, under the name that it had last. */
export async function answerTotals(
  database: Knex,
  site: SiteKey,
): Promise<{ form: FormId; name: string; count: number; fresh: number }[]> {
  const { rows } = await database.raw<{ rows: { form: FormId; name: string; count: number; fresh: number }[] }>(
    `SELECT form, (array_agg(form_name ORDER BY sent_at DESC))[1] AS name, count(*)::int AS count,
       count(*) FILTER (WHERE state = 'new')::int AS fresh
     FROM answer WHERE site = ? GROUP BY form ORDER BY max(sent_at) DESC`,
    [site],
  );
  return rows;
}

/** @returns whether there is such an answer */
export const setAnswer = async (
  database: Knex,
  site: SiteKey,
  id: string,
  fields: { readonly state?: AnswerState; readonly note?: string },
): Promise<boolean> => (await database('answer').where({ site, id }).update(fields)) > 0;

/** Answers that are deleted take their files out of the library, unless colleagues show these somewhere. */
const DELETED = `WITH gone AS (DELETE FROM answer a USING site WHERE site.key = a.site AND WHICH RETURNING a.site, a.said),
  files AS (SELECT gone.site, said ->> 'value' AS id FROM gone, jsonb_array_elements(gone.said) AS said WHERE said ->> 'type' = 'file'),
  taken AS (UPDATE file SET removed_at = :now FROM files
    WHERE file.site = files.site AND file.id = files.id AND file.removed_at IS NULL AND file.added_by IS NULL
      AND NOT EXISTS (SELECT 1 FROM content c WHERE c.site = file.site AND c.files @> ARRAY[file.id] AND c.files <> '{}')
      AND NOT EXISTS (SELECT 1 FROM node n WHERE n.site = file.site AND CAST(n.details AS text) LIKE '%"' || file.id || '"%'))
  SELECT count(*)::int AS count FROM gone`;

const countDeleted = async (database: Knex, which: string, values: Record<string, Knex.Value>): Promise<number> => {
  const { rows } = await database.raw<{ rows: { count: number }[] }>(DELETED.replace('WHICH', which), values);
  return rows[0]!.count;
};

/** @returns whether there was such an answer */
export const deleteAnswer = async (database: Knex, site: SiteKey, id: string, now: Date): Promise<boolean> =>
  (await countDeleted(database, 'a.site = :site AND a.id = :id', { site, id, now })) > 0;

/** Deletes the answers that were kept long enough: as long as the form says that is live, else as it said when they were sent. Gives how many. */
export const deleteOldAnswers = (database: Knex, now: Date): Promise<number> =>
  countDeleted(
    database,
    `a.sent_at < CAST(:now AS timestamptz) - make_interval(days => coalesce(
       (SELECT (f ->> 'keptDays')::int FROM jsonb_array_elements(site.live_forms) AS f WHERE f ->> 'id' = a.form), a.kept_days))`,
    { now },
  );
