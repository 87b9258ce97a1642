import type { Knex } from 'knex';
import type { TextDocument } from '#core/model/content.ts';
import type { SharedId } from '#core/model/shared-section.ts';
import type { FormId } from '#core/model/site-form.ts';
import type { FactId } from '#core/model/fact.ts';
import type { ContentId, PageId, SiteKey } from '#core/model/ids.ts';
import type { OldPageDecision } from '#core/model/old-page.ts';
import type { Goal } from '#core/model/plan.ts';
import type { Board } from '#core/model/board.ts';
import type { BoxId, Sketch } from '#core/model/sketch.ts';
import { MAX_NODES, type Site, makeSite } from '#core/model/site.ts';
import type { Operation } from '#core/operations/operation.ts';
import type { CommittedEdit, SiteSummary } from '#contract/api.ts';
import type { Works } from '#contract/releases.ts';
import { inBatches } from '../files/in-batches.ts';
import { adoptFiles } from '../library/file-repository.ts';
import type { StoredContent } from '../contents/content-service.ts';
import { RELEASE_CHANNEL } from '../database/channels.ts';
import type { ReleaseCounts } from '../edits/outcome.ts';
import {
  DRAFT_COLUMNS,
  DRAFT_RECORD,
  NODE_COLUMNS,
  NODE_RECORD,
  LIVE_COLUMNS,
  LIVE_RECORD,
  toDraftRow,
  toLiveRow,
} from '../database/node-rows.ts';
import {
  NEVER_LIVE,
  type SettingsRow,
  changedSettings,
  liveSettingsOf,
  settingsOf,
} from '../database/settings-columns.ts';
import { readDraft, readLive } from '../database/node-repository.ts';
import { oneOf } from '../database/one-of.ts';

export interface LoadedSite {
  readonly site: Site;
  readonly revision: number;
}

interface SiteRow extends SettingsRow {
  key: SiteKey;
  revision: number;
  goals: Goal[];
  practice: PageId | null;
  sketches: Sketch[];
  boards: Board[];
}

/**
 * A whole site as it is now, read at one moment; undefined where there is none of that key.
 * @throws ProblemError where it has more nodes than `most`
 */
export async function loadSite(database: Knex, key: SiteKey, most = MAX_NODES): Promise<LoadedSite | undefined> {
  return database.transaction(
    async (trx) => {
      const row = await trx<SiteRow>('site').where({ key }).whereNull('deleted_at').first();
      if (!row) return undefined;
      const nodes = await readDraft(trx, key, most);
      const { live } = await readLive(trx, key, most);
      const decisions = await trx('old_page_decision').where({ site: key });
      const site = makeSite(key, settingsOf(row), nodes, live, liveSettingsOf(row), {
        goals: row.goals,
        practice: row.practice,
        sketches: row.sketches,
        boards: row.boards,
        oldPages: decisions.map((one): [string, OldPageDecision] => [
          one.address,
          { letGo: one.let_go, declined: one.declined },
        ]),
      });
      return { site, revision: row.revision };
    },
    { isolationLevel: 'repeatable read', readOnly: true },
  );
}

/** The revisions that these sites have reached. */
export const revisionsOf = (database: Knex, keys: readonly SiteKey[]): Promise<{ key: SiteKey; revision: number }[]> =>
  keys.length === 0 ? Promise.resolve([]) : database('site').whereIn('key', keys).select('key', 'revision');

/** The committed edits after a revision, oldest first. */
export async function editsAfter(database: Knex, key: SiteKey, revision: number): Promise<CommittedEdit[]> {
  const rows = await database('edit_log')
    .leftJoin('account', 'account.id', 'edit_log.account')
    .where('edit_log.site', key)
    .andWhere('edit_log.revision', '>', revision)
    .orderBy('edit_log.revision')
    .select('revision', 'at', 'account.name as by', 'account', 'kind', 'request', 'words', 'operations');
  return rows.map((row): CommittedEdit => ({
    ...row,
    at: row.at.toISOString(),
    by: row.by ?? 'Somebody',
    account: row.account ?? '',
  }));
}

interface EditOfRequest {
  readonly revision: number;
  readonly operations: Operation[];
  readonly inverse: Operation[];
  readonly words: string;
  /** What is counted of it where it was a release. */
  readonly release: ReleaseCounts | null;
}

/** The edit that a request made, if it was made already. */
export async function editOfRequest(database: Knex, key: SiteKey, request: string): Promise<EditOfRequest | undefined> {
  const row = await database('edit_log')
    .leftJoin('release', (join) =>
      join.on('release.site', 'edit_log.site').andOn('release.revision', 'edit_log.revision'),
    )
    .where({ 'edit_log.site': key, request })
    .first('edit_log.revision', 'operations', 'inverse', 'words', 'number', 'pages', 'retired');
  if (!row) return undefined;
  const { number, pages, retired, ...edit } = row;
  return { ...edit, release: number === null ? null : { number, pages, retired } };
}

const CONTENTS_AT_ONCE = 500;

/** Adds a whole site: for a new one, and for demo and benchmark data. SQLSTATE 23505 where the key is taken. */
export async function insertSite(
  database: Knex,
  site: Site,
  account: string | null,
  contents: Iterable<StoredContent> | AsyncIterable<StoredContent> = [],
): Promise<void> {
  await database.transaction(async (trx) => {
    await trx('site').insert({
      key: site.key,
      ...Object.fromEntries(changedSettings(null, site.settings)),
      ...Object.fromEntries(
        (site.liveSettings ? changedSettings(null, site.liveSettings) : NEVER_LIVE).map(([column, value]) => [
          `live_${column}`,
          value,
        ]),
      ),
      release: site.liveSettings ? 1 : 0,
      changed_by: account,
      goals: JSON.stringify(site.goals),
      practice: site.practice,
      sketches: JSON.stringify(site.sketches),
      boards: JSON.stringify(site.boards),
    });
    const nodes = [...site.nodes.values()].map(toDraftRow);
    await trx.raw(
      `INSERT INTO node (site, ${NODE_COLUMNS}, ${DRAFT_COLUMNS})
       SELECT ?, r.* FROM jsonb_to_recordset(?::jsonb) AS r (${NODE_RECORD}, ${DRAFT_RECORD})`,
      [site.key, JSON.stringify(nodes)],
    );
    // Before the live pages: what is live is indexed for search with its text.
    for await (const some of inBatches(contents, CONTENTS_AT_ONCE)) {
      await trx.raw(
        `INSERT INTO content (site, id, document, html, parts, files, shared, forms, boxes, written)
         SELECT ?, r.* FROM jsonb_to_recordset(?::jsonb) AS r (id text, document jsonb, html text, parts jsonb, files text[], shared text[], forms text[], boxes text[], written text[])
         ON CONFLICT DO NOTHING`,
        [site.key, JSON.stringify(some)],
      );
      await adoptFiles(trx, site.key, [...new Set(some.flatMap(({ files }) => files))]);
    }
    const live = [...site.live.values()].map(toLiveRow);
    await trx.raw(
      `INSERT INTO live_node (site, ${NODE_COLUMNS}, ${LIVE_COLUMNS})
       SELECT ?, r.* FROM jsonb_to_recordset(?::jsonb) AS r (${NODE_RECORD}, ${LIVE_RECORD})`,
      [site.key, JSON.stringify(live)],
    );
    const decided = [...site.oldPages].map(([address, { letGo, declined }]) => ({ address, let_go: letGo, declined }));
    await trx.raw(
      `INSERT INTO old_page_decision (site, address, let_go, declined)
       SELECT ?, r.* FROM jsonb_to_recordset(?::jsonb) AS r (address text, let_go jsonb, declined jsonb)`,
      [site.key, JSON.stringify(decided)],
    );
  });
}

/** The sites in the order of their names; one of them where a key is given. */
export async function listSites(database: Knex, liveOrigin: string, key?: SiteKey): Promise<SiteSummary[]> {
  const query = database('site')
    .leftJoin('account', 'account.id', 'site.changed_by')
    .whereNull('site.deleted_at')
    .orderBy(['site.name', 'site.key'])
    .select('site.key', 'site.name', 'site.changed_at', 'account.name as changed_by')
    .select(
      database.raw(
        `(SELECT count(*) FROM node WHERE site = site.key AND removed_with IS NULL AND type = 'page')::int AS pages`,
      ),
      database.raw(
        `(SELECT count(*) FROM live_node WHERE site = site.key AND NOT is_retired AND type = 'page')::int AS live_pages`,
      ),
    );
  if (key !== undefined) void query.where('site.key', key);
  const rows = await query;
  return rows.map((row) => ({
    key: row.key,
    name: row.name,
    pages: row.pages,
    livePages: row.live_pages,
    liveAddress: `${liveOrigin}/${row.key}/`,
    changedAt: row.changed_at.toISOString(),
    changedBy: row.changed_by,
  }));
}

export const countSites = async (database: Knex): Promise<number> =>
  Number((await database('site').whereNull('deleted_at').count('* as count').first())?.count ?? 0);

/** A text of a site. */
export const contentAt = (
  database: Knex,
  key: SiteKey,
  id: string,
): Promise<{ id: string; document: object } | undefined> =>
  database('content').where({ site: key, id }).first('id', 'document');

/** The pages of the tree whose text holds every one of these words. Upper and lower case are the same. */
export async function pagesWithText(database: Knex, key: SiteKey, words: readonly string[]): Promise<PageId[]> {
  const query = database('draft_text as t')
    .join('content', (join) => join.on('content.site', 't.site').andOn('content.id', 't.content'))
    .where('t.site', key)
    .distinct('t.page');
  for (const word of words) {
    const literal = word.replace(/[\\%_]/g, '\\$&');
    void query.andWhereRaw(
      `regexp_replace(content.html || coalesce(content.parts::text, ''), '<[^>]*>', ' ', 'g') ILIKE ?`,
      [`%${literal}%`],
    );
  }
  return (await query).map((row: { page: PageId }) => row.page);
}

/** The pages of the tree whose text names a fact of the site. */
export const pagesWithFact = (database: Knex, key: SiteKey, fact: FactId): Promise<PageId[]> =>
  database('draft_text as t')
    .join('content', (join) => join.on('content.site', 't.site').andOn('content.id', 't.content'))
    .where('t.site', key)
    .whereRaw(`content.html || coalesce(content.parts::text, '') ~ ?`, [`data-fact=\\\\?"${fact}`])
    .distinct('t.page')
    .pluck('t.page');

/** The pages of the tree whose text shows a form, by itself or in a shared section. */
export const pagesWithForm = (database: Knex, key: SiteKey, form: FormId): Promise<PageId[]> =>
  database('draft_text as t')
    .join('content', (join) => join.on('content.site', 't.site').andOn('content.id', 't.content'))
    .where('t.site', key)
    .whereRaw(`content.forms @> ARRAY[?]::text[] AND content.forms <> '{}'`, [form])
    .distinct('t.page')
    .pluck('t.page');

/** The pages of the tree whose text shows a shared section. */
export const pagesWithShared = (database: Knex, key: SiteKey, shared: SharedId): Promise<PageId[]> =>
  database('node')
    .join('content', (join) => join.on('content.site', 'node.site').andOn('content.id', 'node.content'))
    .where('node.site', key)
    .whereNull('removed_with')
    .whereRaw(`content.shared @> ARRAY[?]::text[] AND content.shared <> '{}'`, [shared])
    .pluck('node.id');

/** The pages of the tree whose text has places for boxes of sketches. */
export const plannedTexts = (
  database: Knex,
  key: SiteKey,
): Promise<{ page: PageId; boxes: BoxId[]; written: BoxId[] }[]> =>
  database('node')
    .join('content', (join) => join.on('content.site', 'node.site').andOn('content.id', 'node.content'))
    .where('node.site', key)
    .whereNull('removed_with')
    .whereRaw(`content.boxes <> '{}'`)
    .select('node.id as page', 'content.boxes', 'content.written');

/** These texts of a site, as far as it has them. */
export const contentsOf = (
  database: Knex,
  key: SiteKey,
  ids: readonly ContentId[],
): Promise<{ id: ContentId; document: TextDocument }[]> =>
  database('content').where({ site: key }).where(oneOf('id', ids)).select('id', 'document');

/** The sites that may have pages with reserved slugs, by a pattern that is wider than the rule. */
export const sitesWithReservedSlugs = (database: Knex): Promise<SiteKey[]> =>
  database('node')
    .whereRaw(`slug::text ~* '"text": *"(index\\.html|feed\\.xml|con|prn|aux|nul|com[0-9]|lpt[0-9])["\\.]'`)
    .whereNull('removed_with')
    .distinct('site')
    .pluck('site');

/** Which of these texts the site has. */
export const contentsThere = (database: Knex, key: SiteKey, ids: readonly string[]): Promise<string[]> =>
  database('content').where({ site: key }).where(oneOf('id', ids)).pluck('id');

/** What visitors will read while the site is closed for works; null while it is open. */
export const worksOf = async (database: Knex, key: SiteKey): Promise<Works | null> =>
  (await database('site').where({ key }).first('works'))?.works ?? null;

/** Closes the site for works or opens it, and tells the visitors' side. */
export async function setWorks(database: Knex, key: SiteKey, works: Works | null): Promise<void> {
  await database.raw(
    `WITH changed AS (UPDATE site SET works = ?::jsonb WHERE key = ? RETURNING key) SELECT pg_notify(?, key) FROM changed`,
    [works === null ? null : JSON.stringify(works), key, RELEASE_CHANNEL],
  );
}
