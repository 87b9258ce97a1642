import { afterAll, beforeAll, expect, it } from 'vitest';
import { toSiteKey } from '#core/model/ids.ts';
import type { CommittedEdit } from '#contract/api.ts';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';
import { SiteCache } from './site-cache.ts';

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
