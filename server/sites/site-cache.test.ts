import { afterAll, beforeAll, expect, it } from 'vitest';
import { toSiteKey } from '#core/model/ids.ts';
import { MAX_NODES } from '#core/model/site.ts';
import type { CommittedEdit } from '#contract/api.ts';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';
import { requireRoom } from '../edits/edit-service.ts';
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

it('opens no site that is larger than can be held, says so, and goes on for all others', async () => {
  const [full, beside] = [toSiteKey('full'), toSiteKey('beside')];
  for (const key of [full, beside]) {
    await server.site(key);
    await ines.operations(key, add('home'), add('courses'), add('visit'));
  }
  const cache = new SiteCache(server.database, Date.now, 3);
  expect((await cache.current(full)).site.nodes.size).toBe(3);
  await ines.operations(full, add('news'));
  const later = new SiteCache(server.database, Date.now, 3);
  await expect(later.current(full)).rejects.toThrow('more than 3 pages');
  expect((await later.current(beside)).site.nodes.size).toBe(3);
});

it('refuses only what makes a full site larger', () => {
  expect(() => requireRoom(MAX_NODES, MAX_NODES + 1)).toThrow('holds at most 250,000 pages');
  expect(() => requireRoom(MAX_NODES - 1, MAX_NODES)).not.toThrow();
  expect(() => requireRoom(MAX_NODES + 5, MAX_NODES + 4)).not.toThrow();
  expect(() => requireRoom(MAX_NODES + 5, MAX_NODES + 5)).not.toThrow();
});
