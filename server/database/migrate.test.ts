import { randomBytes, randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { setTimeout as pause } from 'node:timers/promises';
import { toSiteKey } from '#core/model/ids.ts';
import { makeSite, newSettings } from '#core/model/site.ts';
import { insertSite } from '../sites/site-repository.ts';
import { type Database, connect } from './connect.ts';
import { listen } from './listen.ts';
import { MIGRATIONS, type Migration, migrate } from './migrate.ts';
import { until } from '../testing/test-server.ts';

const base = process.env.SPUR_TEST_DATABASE!;
const name = `spur_migrate_${randomBytes(6).toString('hex')}`;
const url = base?.replace(/\/[^/]+$/, `/${name}`);
let admin: Database;
let database: Database;
beforeAll(async () => {
  admin = connect(base);
  await admin.raw(`CREATE DATABASE ${name}`);
  database = connect(url);
});
afterAll(async () => {
  await database.destroy();
  await admin.raw(`DROP DATABASE ${name} WITH (FORCE)`);
  await admin.destroy();
});

describe('migrations', () => {
  it('are numbered without gaps', () =>
    expect(MIGRATIONS.map((migration) => Number(migration.name.slice(0, 4)))).toEqual(
      MIGRATIONS.map((_, index) => index + 1),
    ));

  it('run once, though several processes begin at the same moment', async () => {
    const others = [connect(url), connect(url)];
    await Promise.all([database, ...others].map(migrate));
    await Promise.all(others.map((other) => other.destroy()));
    expect(await database('schema_migration').pluck('name')).toEqual(MIGRATIONS.map((migration) => migration.name));
  });

  it('refuse a database of a newer Spur, and say what to do', async () => {
    await database('schema_migration').insert({ name: '9999-from-the-future' });
    await expect(migrate(database)).rejects.toThrow(
      /made by a newer Spur.*'9999-from-the-future'.*Start that version/s,
    );
    await database('schema_migration').where({ name: '9999-from-the-future' }).delete();
  });

  it('can be taken back and run again', async () => {
    await database.transaction(async (trx) => {
      for (const migration of [...MIGRATIONS].reverse()) await migration.down(trx);
      await trx('schema_migration').delete();
    });
    await migrate(database);
    expect(await database.schema.hasTable('node')).toBe(true);
  });
});

/** A migration with those after it, the last one first. */
function migrationsFrom(wanted: string): Migration & { readonly later: readonly Migration[] } {
  const number = MIGRATIONS.findIndex((migration) => migration.name === wanted);
  return { ...MIGRATIONS[number]!, later: MIGRATIONS.slice(number + 1).reverse() };
}

describe('the migration of undo into the log', () => {
  it('keeps what can be undone and made again, in its order, there and back', async () => {
    const { later, up, down } = migrationsFrom('0018-undo-in-the-log');
    const account = randomUUID();
    await database('account').insert({
      id: account,
      name: 'Ines',
      email: 'i@quay.example',
      password_hash: '',
    });
    await insertSite(database, makeSite(toSiteKey('quay'), newSettings('Quay', 'en'), []), account);
    await database.transaction(async (trx) => {
      for (const migration of later) await migration.down(trx);
      await down(trx);
      const log = (revision: number, kind: string, words: string) => ({
        site: 'quay',
        revision,
        at: new Date(),
        account,
        kind,
        words,
        operations: '[]',
        inverse: JSON.stringify([revision]),
        cells: [],
      });
      await trx('edit_log').insert([
        log(1, 'edit', 'added A'),
        log(2, 'edit', 'added B'),
        log(3, 'edit', 'added C'),
        log(4, 'undo', 'undid: added C'),
        log(5, 'undo', 'undid: added B'),
      ]);
      const steps = [
        { revision: 1, is_undone: false, words: 'added A' },
        { revision: 5, is_undone: true, words: 'added B' },
        { revision: 4, is_undone: true, words: 'added C' },
      ];
      for (const step of steps)
        await trx('undo_step').insert({ ...step, site: 'quay', account, operations: JSON.stringify([step.revision]) });
      await up(trx);
      expect(await trx('edit_log').orderBy('revision').pluck('turn')).toEqual(['undo', null, null, 'redo', 'redo']);
      await down(trx);
      expect(await trx('undo_step').orderBy('id').select('revision', 'is_undone', 'words', 'operations')).toEqual(
        steps.map((step) => ({ ...step, operations: [step.revision] })),
      );
      await up(trx);
      for (const migration of [...later].reverse()) await migration.up(trx);
    });
  });
});

describe('the migration of texts that several write', () => {
  it('keeps what is written in the texts of pages, and how far each is saved, there and back', async () => {
    const { later, up, down } = migrationsFrom('0048-joint-places');
    const site = 'ferries';
    const account = await database('account')
      .first('id')
      .then(({ id }) => id as string);
    await insertSite(database, makeSite(toSiteKey(site), newSettings('Ferries', 'en'), []), account);
    const begun = randomUUID();
    await database.transaction(async (trx) => {
      for (const migration of later) await migration.down(trx);
      await down(trx);
      const page = { site, page: 'p1' };
      const text = {
        begun,
        base: '',
        content: 'abc',
        state: Buffer.from([1]),
        saved_revision: 1,
        written_at: new Date(),
      };
      await trx('joint_text').insert({ ...page, ...text, seq: 3, saved_seq: 2 });
      await trx('joint_update').insert({ ...page, seq: 3, update: Buffer.from([2]), account });
      const edit = { site, at: new Date(), account, kind: 'edit', words: '', inverse: '[]', cells: [] };
      const saves = (content: string | null) => JSON.stringify([{ name: 'page.set', page: 'p1', fields: { content } }]);
      await trx('edit_log').insert([
        { ...edit, revision: 1, request: `text ${begun} 1`, operations: saves('abc') },
        { ...edit, revision: 2, request: `text ${begun} 2`, operations: saves(null) },
        { ...edit, revision: 3, request: 'another', operations: saves('abc') },
      ]);
      const requests = () => trx('edit_log').where({ site }).orderBy('revision').pluck('request');
      await up(trx);
      expect(await trx('joint_text').where({ site }).pluck('place')).toEqual(['page p1']);
      expect(await trx('joint_update').where({ site }).pluck('place')).toEqual(['page p1']);
      expect(await requests()).toEqual([`text ${begun} 1 abc`, `text ${begun} 2 `, 'another']);
      await trx('joint_text').insert({ site, place: 'notes p1', ...text });
      await down(trx);
      expect(await trx('joint_text').where({ site }).pluck('page')).toEqual(['p1']);
      expect(await trx('joint_update').where({ site }).pluck('page')).toEqual(['p1']);
      expect(await requests()).toEqual([`text ${begun} 1`, `text ${begun} 2`, 'another']);
      await up(trx);
      for (const migration of [...later].reverse()) await migration.up(trx);
    });
  });
});

describe('listening', () => {
  it('goes on after the connection was broken, and says that something may have been missed', async () => {
    const heard: string[] = [];
    let resyncs = 0;
    const stop = await listen(url, { a_channel: (payload) => heard.push(payload) }, () => resyncs++);
    await database.raw(`SELECT pg_notify('a_channel', 'one')`);
    await until('the first word is heard', () => heard.includes('one'));
    await database.raw(
      `SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE query LIKE 'LISTEN%' AND datname = current_database()`,
    );
    await until('it listens again', () => resyncs === 1);
    await database.raw(`SELECT pg_notify('a_channel', 'two')`);
    await until('the second word is heard', () => heard.includes('two'));
    await stop();
    await pause(150);
    expect(resyncs).toBe(1);
  });
});
