import type { Knex } from 'knex';
import type { LoggedEdit } from '#core/changes/way-back.ts';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { Operation } from '#core/operations/operation.ts';
import { type EditKind, cellsOfKind } from '#core/people/edit-kinds.ts';
import type { HistoryEntry } from '#contract/api.ts';

/** So many entries a page of the history. */
export const HISTORY_PAGE = 100;

/** Which edits are looked for: by whom, of which kind, and of which pages; null for any. */
export interface HistoryFilter {
  readonly by: string | null;
  readonly of: EditKind | 'release' | null;
  readonly pages: readonly PageId[] | null;
}

/** The log in words, newest first: from before a revision, and of one person, where these are given. */
export async function historyBefore(
  database: Knex,
  key: SiteKey,
  before: number | null,
  { by, of, pages }: HistoryFilter,
): Promise<{ entries: HistoryEntry[]; more: boolean }> {
  const query = database('edit_log')
    .leftJoin('account', 'account.id', 'edit_log.account')
    .where('edit_log.site', key)
    .orderBy('revision', 'desc')
    .limit(HISTORY_PAGE + 1)
    .select('revision', 'at', 'account.name as by', 'kind', 'words');
  if (before !== null) void query.andWhere('revision', '<', before);
  // Who wrote in a text with somebody else made that edit too.
  if (by !== null)
    void query.andWhereRaw(
      '(account.name = :by OR EXISTS (SELECT FROM account AS one WHERE one.id = ANY(beside) AND one.name = :by))',
      { by },
    );
  if (of === 'release') void query.andWhere('kind', 'release');
  else if (of !== null)
    void query.andWhereRaw(`EXISTS (SELECT FROM unnest(cells) AS cell WHERE cell ~ ?)`, [cellsOfKind(of)]);
  if (pages !== null)
    void query.andWhereRaw(
      `EXISTS (SELECT FROM unnest(cells) AS cell WHERE split_part(cell, '.', 1) = ANY(?::text[]))`,
      [[...pages]],
    );
  const rows = await query;
  return {
    entries: rows.slice(0, HISTORY_PAGE).map((row) => ({ ...row, at: row.at.toISOString(), by: row.by ?? 'Somebody' })),
    more: rows.length > HISTORY_PAGE,
  };
}

/** When, and by whom, each of these pages was last removed. */
export async function lastRemovals(
  database: Knex,
  key: SiteKey,
  pages: readonly string[],
): Promise<Map<string, { at: string; by: string }>> {
  const rows = await database('edit_log')
    .leftJoin('account', 'account.id', 'edit_log.account')
    .joinRaw('CROSS JOIN LATERAL unnest(cells) AS cell')
    .where('edit_log.site', key)
    .andWhereRaw('cells && ?::text[]', [pages.map((page) => `${page}.there`)])
    .andWhereRaw('cell = ANY(?::text[])', [pages.map((page) => `${page}.there`)])
    .orderBy('revision')
    .select('cell', 'at', 'account.name as by');
  return new Map(
    rows.map((row) => [row.cell.slice(0, -'.there'.length), { at: row.at.toISOString(), by: row.by ?? 'Somebody' }]),
  );
}

/** The cells of pages that each kind of change is of. */
const CHANGES = {
  all: `cell NOT LIKE '%.live'`,
  access: `(cell LIKE '%.access.%' OR cell LIKE '%.hidden')`,
  live: `cell NOT LIKE '%.live' AND cell NOT LIKE '%.plan%'`,
} as const;

/** Each page's latest change; of who may open it, or of what visitors get with the next release, where one of these is asked for. */
export async function latestChanges(
  database: Knex,
  key: SiteKey,
  of: 'all' | 'access' | 'live' = 'all',
): Promise<{ page: PageId; by: string; at: string }[]> {
  const { rows } = await database.raw(
    `SELECT DISTINCT ON (page) page, at, coalesce(account.name, 'Somebody') AS by
     FROM (SELECT split_part(cell, '.', 1) AS page, revision, at, account
           FROM edit_log CROSS JOIN LATERAL unnest(cells) AS cell
           WHERE site = ? AND cell ~ '^[0-9A-Za-z]+[.]' AND cell NOT LIKE 'site.%' AND ${CHANGES[of]}) AS change
     LEFT JOIN account ON account.id = change.account
     ORDER BY page, revision DESC`,
    [key],
  );
  return (rows as { page: PageId; by: string; at: Date }[]).map((row) => ({ ...row, at: row.at.toISOString() }));
}

/** The ways back from the edits after a revision, newest edit first. */
export const inversesAfter = (database: Knex, key: SiteKey, revision: number): Promise<Operation[][]> =>
  database('edit_log')
    .where({ site: key })
    .andWhere('revision', '>', revision)
    .orderBy('revision', 'desc')
    .pluck('inverse');

/** The edits that lead from now back to a revision: those since, and what they went back to lies among them. */
export async function editsBackTo(database: Knex, key: SiteKey, revision: number): Promise<LoggedEdit[]> {
  const since = () => database('edit_log').where({ site: key });
  const lowest = await since().andWhere('revision', '>', revision).min('went_back_to as lowest').first();
  const rows = await since()
    .andWhere('revision', '>', Math.min(revision, lowest?.lowest ?? revision))
    .orderBy('revision')
    .select('revision', 'operations', 'inverse', 'went_back_to');
  return rows.map(({ went_back_to: wentBackTo, ...edit }) => ({ ...edit, wentBackTo }));
}

/** The moment of a revision, or undefined where the log does not have it. */
export async function momentOf(database: Knex, key: SiteKey, revision: number): Promise<string | undefined> {
  const row = await database('edit_log').where({ site: key, revision }).first('at');
  return row?.at.toISOString();
}
