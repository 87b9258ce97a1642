import { afterAll, beforeAll, expect, it } from 'vitest';
import { toSiteKey } from '#core/model/ids.ts';
import type { CommittedEdit } from '#contract/api.ts';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';
import { KEPT_UNUSED_MS, SiteCache } from './site-cache.ts';

let server: TestServer;
let ines: Person;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
});
afterAll(() => server.close());

const add = (page: string) => ({ name: 'page.add', page, place: { parent: null }, title: { en: page } });

it('finds by itself the edits that nobody told it of, each once and in order', async () => {
  const key = toSiteKey('unheard');
  await server.site(key);
  await server.site('other');
  // Nobody passes on to this one what is told.
  const deaf = new SiteCache(server.database);
  await deaf.current(key);
  const found: CommittedEdit[] = [];
  deaf.onEdit(key, (edit) => found.push(edit));
  await ines.operations(key, add('first'));
  await ines.operations(key, add('second'));
  await ines.operations('other', add('elsewhere'));
  expect(found).toEqual([]);
  await deaf.followAll();
  await deaf.followAll();
  expect(found.map((edit) => [edit.revision, edit.by])).toEqual([
    [1, 'Ines'],
    [2, 'Ines'],
  ]);
  expect([...(await deaf.known(key)).site.nodes.keys()].sort()).toEqual(['first', 'second']);
});

it('7: lets go of a site that nobody uses or looks at, and reads it again when it is asked for', async () => {
  const [used, seen, idle] = ['used', 'seen', 'idle'].map((key) => toSiteKey(key));
  let now = Date.now();
  const cache = new SiteCache(server.database, () => now);
  for (const key of [used!, seen!, idle!]) {
    await server.site(key);
    await ines.operations(key, add('home'));
    await cache.current(key);
  }
  const stop = cache.onEdit(seen!, () => undefined);
  now += KEPT_UNUSED_MS - 1;
  expect(cache.dropUnused()).toBe(3);
  await cache.current(used!);
  now += 2;
  expect(cache.dropUnused()).toBe(2);
  expect((await cache.current(idle!)).site.nodes.size).toBe(1);
  stop();
  now += KEPT_UNUSED_MS + 1;
  expect(cache.dropUnused()).toBe(0);
});
