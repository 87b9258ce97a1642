import { gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { contentIdOf } from '#core/model/content.ts';
import { toPageId } from '#core/model/ids.ts';
import { applyOperations } from '#core/operations/apply.ts';
import type { Operation } from '#core/operations/operation.ts';
import type { Archive } from '#contract/archive.ts';
import { packSite, unpackSite } from '#contract/packed-site.ts';
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
  ines.sendFile(`/api/archives/${key}?name=quay.json`, pack(JSON.stringify(archive)));
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

it(
  '25: a long history comes in piece by piece, and others are answered all the while',
  { timeout: 60_000 },
  async () => {
    const empty = structuredClone(file);
    let site = unpackSite(empty.site);
    const history = empty.history;
    for (let n = 0; n < 6000; n++) {
      const page = toPageId(`long${n % 50}`);
      const operation: Operation =
        n < 50
          ? { name: 'page.add', page, place: { parent: null }, title: { en: `Page ${n}` } }
          : { name: 'page.set', page, fields: { description: { en: `What is said of it, for the ${n}th time` } } };
      const done = applyOperations(site, [operation]);
      if (!done.ok) throw new Error(done.code);
      ({ site } = done);
      const { inverse } = done;
      const at = '2026-11-29T12:00:00Z';
      history.push({
        revision: history.length + 1,
        at,
        by: 0,
        kind: 'edit',
        words: 'x',
        operations: [operation],
        inverse,
        cells: [],
      });
    }
    let isDone = false;
    const restoring = restore('long', { ...empty, site: packSite(site, history.length), history }).finally(
      () => (isDone = true),
    );
    let answers = 0;
    for (; !isDone; answers++) expect((await ines.get('/api/sites/quay')).status).toBe(200);
    expect((await restoring).status).toBe(200);
    expect(answers).toBeGreaterThan(20);
    const { entries } = (await ines.get('/api/sites/long/history')).json as { entries: { revision: number }[] };
    expect(entries[0]!.revision).toBe(history.length);
  },
);

it('keeps signs in texts and words that end a line elsewhere', async () => {
  const copy = structuredClone(file);
  copy.history[0]!.words = 'made\u2028two\u2029lines\r\nand\u0085more';
  const made = await restore('lines', copy);
  expect(made.status, made.text).toBe(200);
  const again = (await ines.get('/api/sites/lines/archive')).json as Archive;
  expect(again.history[0]!.words).toBe(copy.history[0]!.words);
});

it('can be given another name on its way in', async () => {
  const bytes = Buffer.from(JSON.stringify(file));
  const made = await ines.sendFile(
    `/api/archives/renamed?name=quay.json&called=${encodeURIComponent('The far quay')}`,
    bytes,
  );
  expect([made.status, made.json.name]).toEqual([200, 'The far quay']);
  expect((await ines.get('/api/sites/renamed/history')).json.entries).toHaveLength(file.history.length + 1);
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

  it('is refused where the key is taken, or is none', async () => {
    expect((await restore('quay', file)).json.code).toBe('site-exists');
    expect((await restore('api', file)).json.code).toBe('site-exists');
    expect((await restore('A%20B', file)).json.errors[0].pointer).toBe('/site');
  });

  const packed = () => gzipSync(JSON.stringify(file));
  it.each<[string, () => Uint8Array, RegExp]>([
    ['nothing', () => Buffer.alloc(0), /not JSON: the file is empty/],
    ['half of it', () => Buffer.from(JSON.stringify(file).slice(0, -9)), /not JSON: it ends too early/],
    ['half of it, packed', () => packed().subarray(0, -20), /packed by gzip and broken/],
    ['a packed one with a byte changed', () => packed().fill(0, 400, 420), /packed by gzip and broken|not JSON/],
    ['two in a row', () => Buffer.from(JSON.stringify(file).repeat(2)), /not JSON/],
    ['bytes that are no text', () => Buffer.from([0x7b, 0x22, 0xff, 0xfe, 0x22]), /not JSON/],
    ['UTF-16', () => Buffer.from(JSON.stringify(file), 'utf16le'), /not JSON/],
    ['a list', () => Buffer.from('[1, 2, 3]'), /0: an archive has no such part/],
    ['a part twice', () => Buffer.from('{"release": 1, "release": 2}'), /release: this stands in the file twice/],
    ['a history that is no list', () => Buffer.from('{"history": {"0": {}}}'), /history/],
    ['a part with the name of what objects have', () => Buffer.from('{"__proto__": {"format": 1}}'), /no such part/],
    [
      'a depth of 50,000',
      () => Buffer.from(`{"site": ${'['.repeat(50_000)}${']'.repeat(50_000)}}`),
      /nested too deeply/,
    ],
    ['a million parts', () => Buffer.from(`{${'"a":1,'.repeat(1_000_000)}"b":1}`), /no such part/],
    [
      'half of a pair',
      () => Buffer.from(JSON.stringify({ ...file, writtenAt: '\ud800' })),
      /character that no text can/,
    ],
  ])('%s is refused with the reason, and nothing is made', async (_, bytes, reason) => {
    const { status, json } = await ines.sendFile('/api/archives/broken', bytes());
    expect([status, json.code]).toEqual([422, 'file-unreadable']);
    expect(json.detail).toMatch(reason);
    expect((await ines.get('/api/sites/broken')).status).toBe(404);
  });

  it('is for managers to take and to bring', async () => {
    const reader = await server.colleague('Rupa', 'quay', 'reader');
    expect((await reader.get('/api/sites/quay/archive')).status).toBe(403);
    expect((await reader.sendFile('/api/archives/mine', Buffer.from('{}'))).status).toBe(403);
  });
});
