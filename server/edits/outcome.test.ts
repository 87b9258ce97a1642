import type { ClientBase } from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { toSiteKey } from '#core/model/ids.ts';
import type { OperationsBody } from '#contract/api.ts';
import { type Database, connect } from '../database/connect.ts';
import { OPEN_GATE, ReleaseService } from '../releases/release-service.ts';
import { SiteCache } from '../sites/site-cache.ts';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';
import { EVERYBODY_MAY } from '../testing/everybody-may.ts';
import { EditService } from './edit-service.ts';
import { isOutcomeKnown } from './outcome.ts';

let server: TestServer;
let ines: Person;
let database: Database;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  database = connect(server.url);
});
afterAll(async () => {
  await database.destroy();
  await server.close();
});

const KEY = toSiteKey('quay');
const add = (page: string): OperationsBody['operations'] =>
  [{ name: 'page.add', page, place: { parent: null }, title: { en: page } }] as never;

interface KnexClient {
  acquireConnection: () => Promise<ClientBase>;
  releaseConnection: (connection: ClientBase) => Promise<void>;
}

/** Lets the connection break at the statement that saves an edit, before or after the database has it. */
function breakAt(moment: 'before' | 'after', times = 1): void {
  const client = database.client as KnexClient;
  const { acquireConnection: lend, releaseConnection: takeBack } = Object.getPrototypeOf(client) as KnexClient;
  const lent = new WeakMap<ClientBase, ClientBase>();
  client.releaseConnection = (connection) => takeBack.call(client, lent.get(connection) ?? connection);
  let left = times;
  client.acquireConnection = async () => {
    const connection = await lend.call(client);
    const breaking = new Proxy(connection, {
      get(target, name) {
        const value: unknown = Reflect.get(target, name, target);
        if (name !== 'query') return typeof value === 'function' ? value.bind(target) : value;
        return async (...asked: [{ text?: string }]) => {
          const query = value as (...asked: unknown[]) => Promise<unknown>;
          const isSaving = left > 0 && asked[0].text?.includes('INSERT INTO edit_log');
          if (!isSaving) return query.apply(target, asked);
          left -= 1;
          if (moment === 'after') await query.apply(target, asked);
          throw new Error('Connection terminated unexpectedly');
        };
      },
      set: (target, name, value) => Reflect.set(target, name, value, target),
    });
    lent.set(breaking, connection);
    return breaking;
  };
}

describe('an edit while the database goes away', () => {
  const edits = () => new EditService(database, new SiteCache(database), EVERYBODY_MAY, () => new Date());
  const logged = async (request: string) =>
    Number((await server.database('edit_log').where({ request }).count())[0]!.count);

  it('is answered as made where it was', async () => {
    await server.site('quay');
    breakAt('after');
    const done = await edits().apply(KEY, ines.account, { operations: add('home'), request: 'made-and-broken' });
    expect(done.site.nodes.size).toBe(1);
    expect(await logged('made-and-broken')).toBe(1);
  });

  it('is answered as not known where nobody knows, and the same request makes it once', async () => {
    breakAt('before');
    const body = { operations: add('visit'), request: 'maybe-it-was-made' };
    const service = edits();
    await expect(service.apply(KEY, ines.account, body)).rejects.toMatchObject({ code: 'outcome-unknown' });
    await service.apply(KEY, ines.account, body);
    await service.apply(KEY, ines.account, body);
    expect(await logged('maybe-it-was-made')).toBe(1);
  });

  it('is answered the same again where it was a release', async () => {
    const cache = new SiteCache(database);
    const releases = new ReleaseService(
      database,
      cache,
      new EditService(database, cache, EVERYBODY_MAY, () => new Date()),
      OPEN_GATE,
    );
    const all = { pages: 'all' as const, retire: [], request: 'release-and-break' };
    breakAt('after');
    const first = await releases.make(KEY, ines.account, all);
    expect(first).toMatchObject({ number: 1, pages: 2, retired: 0 });
    expect(await releases.make(KEY, ines.account, all)).toEqual(first);
    const back = await releases.takeBack(KEY, ines.account, 1, { anyway: true, request: 'back-and-again' });
    expect(back).toMatchObject({ number: 2, pages: 0, retired: 2 });
    expect(await releases.takeBack(KEY, ines.account, 1, { anyway: true, request: 'back-and-again' })).toEqual(back);
  });

  it('is known not to be saved where the database says why', () => {
    expect(isOutcomeKnown(Object.assign(new Error('duplicate key'), { code: '23505' }))).toBe(true);
    for (const code of [undefined, 'ECONNRESET', '57P01', '08006'])
      expect(isOutcomeKnown(Object.assign(new Error('gone'), { code }))).toBe(false);
  });
});
