import type { Knex } from 'knex';
import type { Database } from './connect.ts';
import * as first from './migrations/0001-sites.ts';
import * as second from './migrations/0002-preferences.ts';
import * as third from './migrations/0003-plans.ts';
import * as fourth from './migrations/0004-old-site.ts';
import * as fifth from './migrations/0005-starters.ts';
import * as sixth from './migrations/0006-sharing.ts';
import * as seventh from './migrations/0007-access.ts';
import * as eighth from './migrations/0008-visitors.ts';
import * as ninth from './migrations/0009-search.ts';
import * as tenth from './migrations/0010-joining.ts';
import * as eleventh from './migrations/0011-labels-passphrases-sections.ts';
import * as twelfth from './migrations/0012-directory.ts';
import * as thirteenth from './migrations/0013-engine-look.ts';
import * as fourteenth from './migrations/0014-menus.ts';
import * as fifteenth from './migrations/0015-publishing.ts';
import * as sixteenth from './migrations/0016-looks.ts';
import * as seventeenth from './migrations/0017-words-of-texts.ts';
import * as eighteenth from './migrations/0018-undo-in-the-log.ts';
import * as nineteenth from './migrations/0019-search-title.ts';
import * as twentieth from './migrations/0020-gone-back-to.ts';
import * as twentyThird from './migrations/0023-familiar-places.ts';
import * as twentyFourth from './migrations/0024-deleted-sites.ts';
import * as twentyFifth from './migrations/0025-proposals.ts';
import * as twentySixth from './migrations/0026-files.ts';
import * as twentySeventh from './migrations/0027-shared-sections.ts';
import * as twentyEighth from './migrations/0028-words-of-what-is-shown.ts';
import * as twentyNinth from './migrations/0029-hosts-of-frames.ts';
import * as thirtieth from './migrations/0030-old-files.ts';
import * as thirtySecond from './migrations/0032-words-of-fields.ts';
import * as thirtyThird from './migrations/0033-forms.ts';
import * as thirtyFourth from './migrations/0034-look.ts';
import * as thirtyFifth from './migrations/0035-words-of-fields-by-page.ts';
import * as thirtySixth from './migrations/0036-sketches.ts';
import * as thirtySeventh from './migrations/0037-people.ts';
import * as thirtyEighth from './migrations/0038-second-step.ts';
import * as thirtyNinth from './migrations/0039-identities.ts';
import * as fortieth from './migrations/0040-talk.ts';
import * as fortyFirst from './migrations/0041-approval.ts';
import * as fortySecond from './migrations/0042-practice.ts';
import * as fortyThird from './migrations/0043-joint-text.ts';
import * as fortyFourth from './migrations/0044-colleague-directory.ts';
import * as fortyFifth from './migrations/0045-handed-over.ts';
import * as fortySixth from './migrations/0046-findings-told.ts';
import * as fortySeventh from './migrations/0047-quicker-search-rows.ts';
import * as fortyEighth from './migrations/0048-joint-places.ts';
import * as thirtyFirst from './migrations/0031-details.ts';
import * as twentySecond from './migrations/0022-walks.ts';
import * as twentyFirst from './migrations/0021-scheduled-once.ts';

export interface Migration {
  readonly name: string;
  readonly up: (knex: Knex) => Promise<void>;
  readonly down: (knex: Knex) => Promise<void>;
}

/** In order, without gaps. A migration that has landed is never edited. */
export const MIGRATIONS: readonly Migration[] = [
  { name: '0001-sites', up: first.up, down: first.down },
  { name: '0002-preferences', up: second.up, down: second.down },
  { name: '0003-plans', up: third.up, down: third.down },
  { name: '0004-old-site', up: fourth.up, down: fourth.down },
  { name: '0005-starters', up: fifth.up, down: fifth.down },
  { name: '0006-sharing', up: sixth.up, down: sixth.down },
  { name: '0007-access', up: seventh.up, down: seventh.down },
  { name: '0008-visitors', up: eighth.up, down: eighth.down },
  { name: '0009-search', up: ninth.up, down: ninth.down },
  { name: '0010-joining', up: tenth.up, down: tenth.down },
  { name: '0011-labels-passphrases-sections', up: eleventh.up, down: eleventh.down },
  { name: '0012-directory', up: twelfth.up, down: twelfth.down },
  { name: '0013-engine-look', up: thirteenth.up, down: thirteenth.down },
  { name: '0014-menus', up: fourteenth.up, down: fourteenth.down },
  { name: '0015-publishing', up: fifteenth.up, down: fifteenth.down },
  { name: '0016-looks', up: sixteenth.up, down: sixteenth.down },
  { name: '0017-words-of-texts', up: seventeenth.up, down: seventeenth.down },
  { name: '0018-undo-in-the-log', up: eighteenth.up, down: eighteenth.down },
  { name: '0019-search-title', up: nineteenth.up, down: nineteenth.down },
  { name: '0020-gone-back-to', up: twentieth.up, down: twentieth.down },
  { name: '0021-scheduled-once', up: twentyFirst.up, down: twentyFirst.down },
  { name: '0022-walks', up: twentySecond.up, down: twentySecond.down },
  { name: '0023-familiar-places', up: twentyThird.up, down: twentyThird.down },
  { name: '0024-deleted-sites', up: twentyFourth.up, down: twentyFourth.down },
  { name: '0025-proposals', up: twentyFifth.up, down: twentyFifth.down },
  { name: '0026-files', up: twentySixth.up, down: twentySixth.down },
  { name: '0027-shared-sections', up: twentySeventh.up, down: twentySeventh.down },
  { name: '0028-words-of-what-is-shown', up: twentyEighth.up, down: twentyEighth.down },
  { name: '0029-hosts-of-frames', up: twentyNinth.up, down: twentyNinth.down },
  { name: '0030-old-files', up: thirtieth.up, down: thirtieth.down },
  { name: '0031-details', up: thirtyFirst.up, down: thirtyFirst.down },
  { name: '0032-words-of-fields', up: thirtySecond.up, down: thirtySecond.down },
  { name: '0033-forms', up: thirtyThird.up, down: thirtyThird.down },
  { name: '0034-look', up: thirtyFourth.up, down: thirtyFourth.down },
  { name: '0035-words-of-fields-by-page', up: thirtyFifth.up, down: thirtyFifth.down },
  { name: '0036-sketches', up: thirtySixth.up, down: thirtySixth.down },
  { name: '0037-people', up: thirtySeventh.up, down: thirtySeventh.down },
  { name: '0038-second-step', up: thirtyEighth.up, down: thirtyEighth.down },
  { name: '0039-identities', up: thirtyNinth.up, down: thirtyNinth.down },
  { name: '0040-talk', up: fortieth.up, down: fortieth.down },
  { name: '0041-approval', up: fortyFirst.up, down: fortyFirst.down },
  { name: '0042-practice', up: fortySecond.up, down: fortySecond.down },
  { name: '0043-joint-text', up: fortyThird.up, down: fortyThird.down },
  { name: '0044-colleague-directory', up: fortyFourth.up, down: fortyFourth.down },
  { name: '0045-handed-over', up: fortyFifth.up, down: fortyFifth.down },
  { name: '0046-findings-told', up: fortySixth.up, down: fortySixth.down },
  { name: '0047-quicker-search-rows', up: fortySeventh.up, down: fortySeventh.down },
  { name: '0048-joint-places', up: fortyEighth.up, down: fortyEighth.down },
];

/**
 * Brings the database's schema up to this program's. Several processes may do so at once: one waits for the other.
 * @throws where the database was made by a newer Spur than this one.
 */
export async function migrate(database: Database): Promise<void> {
  const lock = 7_337_001;
  await database.transaction(async (trx) => {
    await trx.raw('SELECT pg_advisory_xact_lock(?)', [lock]);
    await trx.raw(
      'CREATE TABLE IF NOT EXISTS schema_migration (name text PRIMARY KEY, run_at timestamptz NOT NULL DEFAULT now())',
    );
    const run = new Set<string>(await trx('schema_migration').pluck('name'));
    const known = new Set(MIGRATIONS.map((migration) => migration.name));
    const newer = [...run].filter((name) => !known.has(name)).sort();
    if (newer.length > 0) {
      throw new Error(
        `The database was made by a newer Spur (it has '${newer[0]}', which this one does not know). Start that version, or restore a backup from before it.`,
      );
    }
    for (const migration of MIGRATIONS) {
      if (run.has(migration.name)) continue;
      await migration.up(trx);
      await trx('schema_migration').insert({ name: migration.name });
    }
  });
}
