import { gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { contentIdOf } from '#core/model/content.ts';
import type { Archive } from '#contract/archive.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
let file: Archive;

const add = (page: string, parent: string | null = null, more: object = {}) => ({
  name: 'page.add',
  page,
  place: { parent },
  title: { en: page },
  ...more,
});

beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site('quay');
  const document = {
    type: 'doc' as const,
    content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Seven to nine.' }] }],
  };
  const content = contentIdOf(document);
  const edit = async (operations: object[], contents: object[] = []) => {
    const done = await ines.post('/api/sites/quay/operations', { operations, contents });
    expect(done.status, done.text).toBe(200);
  };
  const release = async (more: object) => {
    const done = await ines.post('/api/sites/quay/releases', { pages: 'all', ...more });
    expect(done.status, done.text).toBe(200);
  };
  await edit(
    [
      { name: 'audience.add', audience: 'staff', title: 'Staff' },
      add('home'),
      add('courses', null, { content }),
      add('evening', 'courses'),
      add('handbook', null, { access: { only: ['staff'] } }),
      { name: 'fact.add', fact: 'phone', title: 'Telephone', text: '01632 960001', inFooter: true },
      { name: 'redirect.add', redirect: 'r1', from: '/kurse', to: { page: 'courses' } },
    ],
    [{ id: content, document }],
  );
  await release({ name: 'First', note: 'All of it' });
  await edit([{ name: 'page.set', page: 'courses', fields: { slug: { en: { text: 'learn', own: true } } } }]);
  await release({ name: 'Second' });
  await ines.post('/api/sites/quay/undo', {});
  await edit([{ name: 'page.remove', page: 'evening' }, add('news')]);
  const taken = await ines.get('/api/sites/quay/archive');
  expect(taken.headers.get('content-disposition')).toBe('attachment; filename="quay-archive.json"');
  file = taken.json as Archive;
});
afterAll(() => server.close());

const restore = (key: string, archive: unknown, pack = (text: string) => Buffer.from(text)) =>
  ines.post('/api/archives', { key, name: 'quay.json', bytes: pack(JSON.stringify(archive)).toString('base64') });
const of = async (key: string, path: string) =>
  JSON.parse((await ines.get(`/api/sites/${key}/${path}`)).text.replaceAll(/"(quay|harbour)"/g, '"KEY"'));

describe('a site that is brought back', () => {
  it('has the tree, what is live, the history and the releases, under another key', async () => {
    const made = await restore('harbour', file, gzipSync);
    expect([made.status, made.json.key]).toEqual([200, 'harbour']);
    for (const path of ['tree', 'history', 'releases', 'removed', 'redirects', 'tree?revision=1', 'tree?revision=3'])
      expect(await of('harbour', path), path).toEqual(await of('quay', path));
    const again = await of('harbour', 'archive');
    expect({ ...again, writtenAt: '' }).toEqual({ ...(await of('quay', 'archive')), writtenAt: '' });
  });

  it('answers visitors as the one that it was taken of, redirects too', async () => {
    for (const path of ['/', '/learn', '/courses', '/courses/evening', '/kurse', '/handbook', '/search?q=seven']) {
      const [own, its] = [await server.live(`/quay${path}`), await server.live(`/harbour${path}`)];
      const [a, b] = [own, its].map((one) =>
        [one.status, one.headers.get('location'), one.text].join().replace(/quay|harbour/g, 'KEY'),
      );
      expect(b).toBe(a);
    }
  });

  it('goes on from there: edits, releases, going back and taking back', async () => {
    await ines.operations('harbour', add('boats'));
    expect((await ines.post('/api/sites/harbour/releases', { pages: ['boats'] })).json.number).toBe(3);
    await until('it is live', async () => (await server.live('/harbour/boats')).status === 200);
    expect((await ines.post('/api/sites/harbour/releases/2/take-back', { anyway: true })).status).toBe(200);
    await until('it is taken back', async () => (await server.live('/harbour/courses')).status === 200);
  });
});

describe('an archive that cannot be taken', () => {
  const without = (change: (archive: Archive) => unknown): Archive => {
    const copy = structuredClone(file);
    change(copy);
    return copy;
  };
  it.each<[string, () => unknown, RegExp]>([
    ['a text', () => 'Dear Ines', /format|expected object/i],
    ['another format', () => without((one) => Object.assign(one, { format: 'spur-site' })), /format/],
    ['an edit too few', () => without((one) => one.history.pop()), /has to hold the edits 1 to/],
    ['edits out of order', () => without((one) => one.history.reverse()), /has to hold the edits 1 to/],
    [
      'an edit that cannot be',
      () => without((one) => (one.history[0]!.operations[0] = { name: 'page.fly' } as never)),
      /history\.0\.operations/,
    ],
    [
      'a way back that leads nowhere',
      () => without((one) => (one.history[1]!.inverse = [{ name: 'page.remove', page: 'nobody' } as never])),
      /cannot be taken back/,
    ],
    ['a text that is missing', () => without((one) => one.contents.pop()), /its text is not in the file/],
    [
      'two pages of one address',
      () =>
        without((one) =>
          Object.assign(one.site.nodes.slug, {
            1: { en: { text: 'learn', own: true } },
            3: { en: { text: 'learn', own: true } },
          }),
        ),
      /has the address of/,
    ],
    ['columns of unlike length', () => without((one) => one.site.nodes.title.pop()), /columns of its pages|title/],
    ['a release twice', () => without((one) => one.releases.push(one.releases[0]!)), /Release 1 appears twice/],
    ['an address twice', () => without((one) => one.formerAddresses.push(one.formerAddresses[0]!)), /appears twice/],
    ['a release that is an edit', () => without((one) => (one.releases[0]!.revision = 1)), /is no release/],
  ])('%s is refused with the reason, and nothing is made', async (_, archive, reason) => {
    const { status, json } = await restore('broken', archive());
    expect([status, json.code]).toEqual([422, 'file-unreadable']);
    expect(json.detail).toMatch(reason);
    expect((await ines.get('/api/sites/broken')).status).toBe(404);
  });

  it('is refused where the key is taken, or the file is no file', async () => {
    expect((await restore('quay', file)).json.code).toBe('site-exists');
    const broken = await ines.post('/api/archives', { key: 'broken', bytes: Buffer.from('{').toString('base64') });
    expect(broken.json.detail).toMatch(/not JSON/);
  });

  it('is for managers to take and to bring', async () => {
    const reader = await server.person('Rupa', 'reader');
    expect((await reader.get('/api/sites/quay/archive')).status).toBe(403);
    expect((await reader.post('/api/archives', { key: 'mine', bytes: 'e30=' })).status).toBe(403);
  });
});
