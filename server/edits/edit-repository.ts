import type { Knex } from 'knex';
import type { ClientBase } from 'pg';
import type { PageId } from '#core/model/ids.ts';
import type { SiteNode } from '#core/model/node.ts';
import type { Site } from '#core/model/site.ts';
import { oldRedirects } from '#core/carryover/old-redirects.ts';
import { addressesLeft } from '#core/derive/redirects.ts';
import type { SettingsPart } from '#core/model/settings-parts.ts';
import type { Operation } from '#core/operations/operation.ts';
import type { HistoryEntry } from '#contract/api.ts';
import type { StoredContent } from '../contents/content-service.ts';
import { RELEASE_CHANNEL } from '../database/channels.ts';
import {
  DRAFT_COLUMNS,
  DRAFT_RECORD,
  DRAFT_UPDATES,
  NODE_COLUMNS,
  NODE_RECORD,
  NODE_UPDATES,
  LIVE_COLUMNS,
  LIVE_RECORD,
  LIVE_UPDATES,
  changedColumns,
  toDraftRow,
  toLiveRow,
} from '../database/node-rows.ts';
import { NEVER_LIVE, JSON_SETTINGS, changedSettings } from '../database/settings-columns.ts';
import { Statement, inTransaction, withConnection } from '../database/statement.ts';
import { type ReleaseCounts, UnknownOutcome, isOutcomeKnown } from './outcome.ts';
import { TURN_AFTER, type Turn, firstWords } from './turn.ts';

/** What is kept of a release besides what it did. */
export interface ReleaseToSave {
  readonly name: string;
  readonly note: string;
  /** Why it was made without the approval that it needs; empty where it needs none, or has it. */
  readonly override: string;
  readonly pages: number;
  readonly retired: number;
  /** The parts of the settings that went live with it. */
  readonly settings: readonly SettingsPart[];
  /** The release that it takes back, or null. */
  readonly takesBack: number | null;
}

export interface EditToSave {
  readonly before: Site;
  readonly after: Site;
  readonly revision: number;
  readonly touched: readonly PageId[];
  readonly operations: readonly Operation[];
  readonly inverse: readonly Operation[];
  readonly cells: readonly string[];
  readonly words: string;
  readonly kind: HistoryEntry['kind'];
  readonly account: string;
  readonly request: string | null;
  readonly at: string;
  readonly contents: readonly StoredContent[];
  /** For an undo and for making again: the revision of the edit that it turns round. */
  readonly turns: number | null;
  /** Whether whoever made it can undo it by itself. */
  readonly isUndoable: boolean;
  /** For a release: what is kept of it. */
  readonly release: ReleaseToSave | null;
  /** The revision whose tree it goes back to. */
  readonly wentBackTo: number | null;
  /** The accounts of those who made it with whose edit it is. */
  readonly beside: readonly string[];
}

/** What was saved: the revision that it made, and what is counted of a release. */
export interface Saved {
  readonly revision: number;
  readonly release: ReleaseCounts | null;
}

/** A release of more pages is written in so many at a time, within one transaction, so that it can be told how far it is. */
const LIVE_AT_A_TIME = 500;

/**
 * Saves an edit of the site at `revision`, and tells of a release: all of it in one statement, so in one
 * transaction and one journey to the database; only a release of very many pages takes several. Only rows that differ
 * are written. `onProgress` is told how many pages of a long release are written.
 * Gives the new revision, and what is counted of a release; null where the site is not at that revision any more: then nothing is
 * written. @throws UnknownOutcome where the database went away before it had answered
 */
export async function saveEdit(
  database: Knex,
  edit: EditToSave,
  onProgress: (done: number, total: number) => void = () => undefined,
): Promise<Saved | null> {
  const { before, after } = edit;
  const key = after.key;
  const statement = new Statement();
  const site = statement.value(key);
  const live = after.liveSettings;
  const account = `${statement.value(edit.account)}::uuid`;
  const at = `${statement.value(edit.at)}::timestamptz`;

  statement.part(
    'bumped',
    `UPDATE site SET revision = revision + 1, changed_at = ${at}, changed_by = ${account}
     ${settingsSql(statement, '', changedSettings(before.settings, after.settings))}
     ${live === before.liveSettings ? '' : settingsSql(statement, 'live_', live ? changedSettings(before.liveSettings, live) : NEVER_LIVE)}
     ${after.practice === before.practice ? '' : `, practice = ${statement.value(after.practice)}`}
     ${after.goals === before.goals ? '' : `, goals = ${statement.value(JSON.stringify(after.goals))}::jsonb`}
     ${after.sketches === before.sketches ? '' : `, sketches = ${statement.value(JSON.stringify(after.sketches))}::jsonb`}
     ${after.boards === before.boards ? '' : `, boards = ${statement.value(JSON.stringify(after.boards))}::jsonb`}
     ${edit.release ? ', release = release + 1' : ''}
     WHERE key = ${site} AND revision = ${statement.value(edit.revision)} RETURNING revision, release`,
  );
  saveNodes(statement, site, edit);
  const { put, gone } = liveRows(edit);
  const isLong = put.length > LIVE_AT_A_TIME;
  if (put.length > 0 && !isLong) statement.part('live_put', putLive(statement, edit, put, 'bumped,'));
  if (gone.length > 0)
    statement.part(
      'live_gone',
      `DELETE FROM live_node USING bumped WHERE site = ${site} AND id = ANY(${statement.value(gone)}::text[])`,
    );
  saveOldPages(statement, site, edit);
  if (edit.release) saveAddresses(statement, site, at, edit);
  if (edit.contents.length > 0) {
    statement.part(
      'texts',
      `INSERT INTO content (site, id, document, html, parts, files, shared, forms, boxes, written) SELECT ${site}, r.* FROM bumped,
       jsonb_to_recordset(${statement.value(JSON.stringify(edit.contents))}::jsonb) AS r (id text, document jsonb, html text, parts jsonb, files text[], shared text[], forms text[], boxes text[], written text[])
       ON CONFLICT DO NOTHING`,
    );
  }
  statement.part(
    'logged',
    `INSERT INTO edit_log (site, revision, at, account, kind, request, words, operations, inverse, cells, turn${edit.wentBackTo === null ? '' : ', went_back_to'}${edit.beside.length === 0 ? '' : ', beside'})
     SELECT ${site}, revision, ${at}, ${account}, ${statement.value(edit.kind)}, ${statement.value(edit.request)}, ${statement.value(edit.words)},
     ${statement.value(JSON.stringify(edit.operations))}::jsonb, ${statement.value(JSON.stringify(edit.inverse))}::jsonb,
     ${statement.value([...edit.cells])}::text[], ${statement.value(edit.isUndoable ? TURN_AFTER[edit.kind] : null)}${edit.wentBackTo === null ? '' : `, ${statement.value(edit.wentBackTo)}::bigint`}${edit.beside.length === 0 ? '' : `, ${statement.value([...edit.beside])}::uuid[]`} FROM bumped`,
  );
  if (edit.turns !== null)
    statement.part(
      'turned',
      `UPDATE edit_log SET turn = NULL FROM bumped WHERE site = ${site} AND edit_log.revision = ${statement.value(edit.turns)}`,
    );
  if (edit.release) {
    statement.part(
      'released',
      `INSERT INTO release (site, number, revision, at, account, pages, retired, name, note, override, settings, takes_back)
       SELECT ${site}, release, revision, ${at}, ${account}, ${statement.value(edit.release.pages)}, ${statement.value(edit.release.retired)},
       ${statement.value(edit.release.name)}, ${statement.value(edit.release.note)}, ${statement.value(edit.release.override)}, ${statement.value([...edit.release.settings])}::text[],
       ${statement.value(edit.release.takesBack)}::bigint FROM bumped`,
    );
  }
  const tellRelease = edit.release ? `, pg_notify('${RELEASE_CHANNEL}', ${site})` : '';
  const bump = async (connection: ClientBase): Promise<Saved | null> => {
    const [row] = await statement.run<{ revision: number; release: number }>(
      connection,
      `SELECT revision, release${tellRelease} FROM bumped`,
    );
    if (!row) return null;
    const { revision, release: number } = row;
    return { revision, release: edit.release && { number, pages: edit.release.pages, retired: edit.release.retired } };
  };
  const save = (work: (connection: ClientBase) => Promise<Saved | null>) =>
    withConnection(database, (connection) =>
      work(connection).catch((fault: unknown) => {
        throw isOutcomeKnown(fault) ? fault : new UnknownOutcome(fault);
      }),
    );
  if (!isLong) return save(bump);
  return save((connection) =>
    inTransaction(connection, async () => {
      const saved = await bump(connection);
      if (saved === null) return null;
      for (let done = 0; done < put.length; done += LIVE_AT_A_TIME) {
        onProgress(done, put.length);
        const some = new Statement();
        await some.run(connection, putLive(some, edit, put.slice(done, done + LIVE_AT_A_TIME), ''));
      }
      return saved;
    }),
  );
}

/** Columns of settings as they stand in an UPDATE, each with a comma before it. */
const settingsSql = (
  statement: Statement,
  prefix: string,
  changed: readonly (readonly [column: string, value: string | null])[],
): string =>
  changed
    .map(
      ([column, value]) =>
        `, ${prefix}${column} = ${statement.value(value)}${(JSON_SETTINGS as readonly string[]).includes(column) ? '::jsonb' : ''}`,
    )
    .join('');

function saveNodes(statement: Statement, site: string, { before, after, touched }: EditToSave): void {
  const put: SiteNode[] = [];
  const gone: PageId[] = [];
  for (const id of touched) {
    const node = after.nodes.get(id);
    if (!node) gone.push(id);
    else if (node !== before.nodes.get(id)) put.push(node);
  }
  const [first] = put;
  const known = first && before.nodes.get(first.id);
  if (known && put.length === 1) {
    // Most edits change a field or two of one page. To write no more than these saves a sixth of the statement.
    const changed = changedColumns(known, first);
    const set = changed.map(({ column, type, value }) => `${column} = ${statement.value(value)}::${type}`).join(', ');
    if (changed.length > 0)
      statement.part(
        'put',
        `UPDATE node SET ${set} FROM bumped WHERE site = ${site} AND id = ${statement.value(first.id)}`,
      );
  } else if (put.length > 0) {
    statement.part(
      'put',
      `INSERT INTO node (site, ${NODE_COLUMNS}, ${DRAFT_COLUMNS}) SELECT ${site}, r.* FROM bumped,
       jsonb_to_recordset(${statement.value(JSON.stringify(put.map(toDraftRow)))}::jsonb) AS r (${NODE_RECORD}, ${DRAFT_RECORD})
       ON CONFLICT (site, id) DO UPDATE SET ${NODE_UPDATES}, ${DRAFT_UPDATES}`,
    );
  }
  if (gone.length > 0)
    statement.part(
      'gone',
      `DELETE FROM node USING bumped WHERE site = ${site} AND id = ANY(${statement.value(gone)}::text[])`,
    );
}

/** What visitors have of the pages that an edit touched, where it differs from before: the rows to write, and the pages to take out. */
function liveRows({ before, after, touched }: EditToSave): { put: object[]; gone: PageId[] } {
  const put: object[] = [];
  const gone: PageId[] = [];
  if (after.live !== before.live)
    for (const id of touched) {
      const entry = after.live.get(id);
      if (entry === before.live.get(id)) continue;
      if (entry) put.push(toLiveRow(entry));
      else gone.push(id);
    }
  return { put, gone };
}

/** Writes rows of what is live; `beside` are further sources of the statement. */
const putLive = (statement: Statement, { after, at }: EditToSave, rows: readonly object[], beside: string): string =>
  `INSERT INTO live_node (site, ${NODE_COLUMNS}, ${LIVE_COLUMNS}, live_at)
   SELECT ${statement.value(after.key)}, r.*, ${statement.value(at)}::timestamptz FROM ${beside}
   jsonb_to_recordset(${statement.value(JSON.stringify(rows))}::jsonb) AS r (${NODE_RECORD}, ${LIVE_RECORD})
   ON CONFLICT (site, id) DO UPDATE SET ${NODE_UPDATES}, ${LIVE_UPDATES}, live_at = excluded.live_at`;

function saveOldPages(statement: Statement, site: string, { before, after }: EditToSave): void {
  if (after.oldPages === before.oldPages) return;
  const put: object[] = [];
  after.oldPages.forEach((decision, address) => {
    if (decision !== before.oldPages.get(address))
      put.push({ address, let_go: decision.letGo, declined: decision.declined });
  });
  const gone = [...before.oldPages.keys()].filter((address) => !after.oldPages.has(address));
  if (put.length > 0)
    statement.part(
      'decided',
      `INSERT INTO old_page_decision (site, address, let_go, declined) SELECT ${site}, r.* FROM bumped,
       jsonb_to_recordset(${statement.value(JSON.stringify(put))}::jsonb) AS r (address text, let_go jsonb, declined jsonb)
       ON CONFLICT (site, address) DO UPDATE SET let_go = excluded.let_go, declined = excluded.declined`,
    );
  if (gone.length > 0)
    statement.part(
      'undecided',
      `DELETE FROM old_page_decision USING bumped WHERE site = ${site} AND address = ANY(${statement.value(gone)}::text[])`,
    );
}

/** With a release go the addresses that leave use, with the page that had them, and those of the old site. */
function saveAddresses(statement: Statement, site: string, at: string, { before, after }: EditToSave): void {
  const left = [...addressesLeft(before, after)].map(([path, page]) => ({ path, page }));
  if (left.length > 0)
    statement.part(
      'addresses_left',
      `INSERT INTO former_address (site, path, page, since) SELECT ${site}, r.*, ${at} FROM bumped,
       jsonb_to_recordset(${statement.value(JSON.stringify(left))}::jsonb) AS r (path text, page text)
       ON CONFLICT (site, path) DO UPDATE SET page = excluded.page, since = excluded.since`,
    );
  const rows = oldRedirects(after).map(({ path, page }) => ({ path, page }));
  const paths = rows.map((row) => row.path);
  statement.part(
    'redirects_gone',
    `DELETE FROM live_redirect USING bumped WHERE site = ${site} AND NOT path = ANY(${statement.value(paths)}::text[])`,
  );
  statement.part(
    'redirects',
    `INSERT INTO live_redirect (site, path, page) SELECT ${site}, r.* FROM bumped,
     jsonb_to_recordset(${statement.value(JSON.stringify(rows))}::jsonb) AS r (path text, page text)
     ON CONFLICT (site, path) DO UPDATE SET page = excluded.page`,
  );
}

export interface UndoStep {
  readonly revision: number;
  readonly operations: Operation[];
  readonly words: string;
}

/**
 * The person's latest edit that can be undone, or what was undone last and can be made again, with its words as they were at first.
 * Nothing can be made again once the person has edited anew.
 */
export async function nextUndoStep(
  database: Knex,
  site: string,
  account: string,
  turn: Turn,
): Promise<UndoStep | undefined> {
  const steps = database('edit_log').where({ site, account, turn });
  if (turn === 'redo') {
    const edits = database('edit_log').where({ site, account, kind: 'edit' });
    void steps.andWhere('revision', '>', edits.select(database.raw('coalesce(max(revision), 0)')));
  }
  const step = await steps.orderBy('revision', 'desc').first('revision', 'inverse', 'words', 'kind');
  return step && { revision: step.revision, operations: step.inverse, words: firstWords(step) };
}

export const dropUndoStep = (database: Knex, site: string, revision: number): Promise<number> =>
  database('edit_log').where({ site, revision }).update({ turn: null });

/** The latest change by somebody else, after a revision, of any of these cells. */
export async function laterChangeByOthers(
  database: Knex,
  site: string,
  account: string,
  revision: number,
  cells: readonly string[],
): Promise<{ by: string; words: string; at: Date } | undefined> {
  return database('edit_log')
    .leftJoin('account', 'account.id', 'edit_log.account')
    .where('edit_log.site', site)
    .andWhere('revision', '>', revision)
    .andWhereRaw('edit_log.account IS DISTINCT FROM ?::uuid', [account])
    .andWhereRaw('cells && ?::text[]', [[...cells]])
    .orderBy('revision', 'desc')
    .first('account.name as by', 'words', 'at');
}
