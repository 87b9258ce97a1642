import { once } from 'node:events';
import { type Socket, connect } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { contentIdOf } from '#core/model/content.ts';
import { MAX_JSON_DEPTH } from '#core/model/outside-json.ts';
import type { Route } from '#contract/route.ts';
import { ROUTES } from '#contract/routes.ts';
import { EVERYBODY_MAY } from '../testing/everybody-may.ts';
import { EditService } from '../edits/edit-service.ts';
import { SiteCache } from '../sites/site-cache.ts';
import { settleReservedSlugs } from '../sites/settle-reserved-slugs.ts';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';

// The numbers are those of `docs/security.md`.
let server: TestServer;
let ines: Person;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site('quay');
  await ines.operations('quay', add('home', 'Home'), add('visit', 'Visit'));
  await ines.post('/api/sites/quay/releases', { pages: 'all', retire: [] });
});
afterAll(() => server.close());

const add = (page: string, title: string, more: object = {}) => ({
  name: 'page.add',
  page,
  place: { parent: null },
  title: { en: title },
  ...more,
});

describe('one request does not stop the program', () => {
  it('1: that is one long row of slashes, dots or escapes', async () => {
    for (const path of [
      `${'/'.repeat(15_000)}a/`,
      `/${'%2F'.repeat(4000)}`,
      `/${'.'.repeat(15_000)}`,
      '/a?'.repeat(4000),
    ])
      expect((await server.live(`/quay${path}`)).status).toBeLessThan(500);
  });

  it('1: nor does a list of visitors with an address of dots', async () => {
    const email = `a@${'.'.repeat(40_000)}`;
    const { json } = await ines.post('/api/sites/quay/visitors/imports', { text: `email\n${email}\n`, apply: false });
    expect(JSON.stringify(json)).toMatch('is not a mail address');
  });

  it('2: that brings thousands of rows of one title', async () => {
    await server.site('many');
    const text = `title\n${'Page\n'.repeat(2000)}`;
    const answer = await ines.post('/api/sites/many/imports', { format: 'csv', text, apply: true });
    expect(answer.json).toMatchObject({ pages: 2000, applied: 2000 });
  });

  it.each([
    ['preferences', 'PUT', '/api/preferences/deep', (value: string) => `{"value":${value}}`],
    ['operations', 'POST', '/api/sites/quay/operations', (value: string) => `{"operations":${value}}`],
    [
      'texts',
      'POST',
      '/api/sites/quay/operations',
      (value: string) =>
        `{"operations":[],"contents":[{"id":"aaaaaaaaaaaa","document":{"type":"doc","content":${value}}}]}`,
    ],
  ])('4: that is nested 40,000 levels deep: %s', async (_, method, path, body) => {
    const deep = '['.repeat(40_000) + ']'.repeat(40_000);
    const answer = await ines.send(method, path, body(deep));
    expect([answer.status, answer.json.errors?.[0]?.detail]).toEqual([
      422,
      `It is nested too deeply: at most ${MAX_JSON_DEPTH} levels.`,
    ]);
  });

  it('4: that brings a passphrase whose check would cost a gigabyte', async () => {
    const archive = (await ines.get('/api/sites/quay/archive')).json;
    const hash = `$argon2id$v=19$m=1048576,t=9,p=4$${'a'.repeat(22)}$${'b'.repeat(43)}`;
    const bytes = Buffer.from(JSON.stringify({ ...archive, passphrases: [{ id: 'a'.repeat(20), hash }] }));
    const answer = await ines.sendFile('/api/archives/dear', bytes);
    expect([answer.status, answer.json.code]).toEqual([422, 'file-unreadable']);
    expect(answer.json.detail).toMatch(/not hashed as Spur hashes/);
  });

  it('5: nor do twelve who take an archive and read none of it', async () => {
    await server.site('large');
    const contents = Array.from({ length: 40 }, (_, n) => {
      const document = {
        type: 'doc' as const,
        content: [{ type: 'paragraph', content: [{ type: 'text', text: `${n} ${'boat '.repeat(40_000)}` }] }],
      };
      return { id: contentIdOf(document), document };
    });
    for (const { id, document } of contents)
      await ines.post('/api/sites/large/operations', {
        operations: [add(`p${id}`.slice(0, 12), 'Long', { content: id })],
        contents: [{ id, document }],
      });
    const { hostname, port } = new URL(server.origin);
    const readers: Socket[] = [];
    for (let n = 0; n < 12; n++) {
      const reader = connect(Number(port), hostname).pause();
      await once(reader, 'connect');
      reader.write(
        `GET /api/sites/large/archive HTTP/1.1\r\nHost: ${hostname}:${port}\r\nCookie: ${ines.cookie}\r\n\r\n`,
      );
      readers.push(reader);
    }
    await new Promise((resolve) => setTimeout(resolve, 1500));
    expect((await ines.get('/api/sites/quay/history')).status).toBe(200);
    expect((await ines.operations('quay', add('later', 'Later'))).status).toBe(200);
    for (const reader of readers) reader.destroy();
  });

  it('6: and what is closed does not hide from search what is open', async () => {
    await server.site('closed');
    const pages = Array.from({ length: 2050 }, (_, n) =>
      add(`c${n}`, 'Marigold Marigold', { access: { only: ['staff'] }, description: { en: 'Marigold' } }),
    );
    await ines.operations(
      'closed',
      { name: 'audience.add', audience: 'staff', title: 'Staff' },
      ...pages.slice(0, 990),
    );
    await ines.operations('closed', ...pages.slice(990, 1980));
    await ines.operations('closed', ...pages.slice(1980), add('open', 'The marigold', { slug: undefined }));
    await ines.post('/api/sites/closed/releases', { pages: 'all', retire: [] });
    const { text } = await server.live('/closed/search?q=marigold');
    expect(text).toMatch(/1 page with/);
    expect(text).toMatch('/closed/the-marigold');
  });
});

describe('what comes in is checked at the door', () => {
  const pathOf = (path: string, value: string) => path.replace(/:\w+/g, value);

  it.each(Object.entries(ROUTES) as [string, Route][])(
    '8: no character that no text can have gets through %s',
    async (_, { method, path, body }) => {
      // What ends or begins a session would take the person's own away.
      if (path === '/api/session') return;
      for (const value of ['a%00b', '%00', 'quay']) {
        const address = `${pathOf(path, value)}?q=%00&page=%00`;
        const { status } = await ines.send(
          method.toUpperCase(),
          address,
          body ? { title: 'a\0', name: '\ud800' } : undefined,
        );
        expect([address, status < 500]).toEqual([address, true]);
        expect(status).toBeGreaterThanOrEqual(400);
      }
    },
  );

  it('8: says where such a character stands', async () => {
    const { status, json } = await ines.operations('quay', add('zero', 'A\0B'));
    expect([status, json.errors[0].pointer]).toEqual([422, '/operations/0/title/en']);
  });

  it('8: and a visitor who asks for such an address is told that nothing is there, and others are counted on', async () => {
    expect((await server.live('/quay/%00')).status).toBe(404);
    expect((await server.live('/quay/visit%00')).status).toBe(404);
    await server.live('/quay/not-there');
    await expect
      .poll(async () => (await ines.get('/api/sites/quay/missed-addresses')).text, { timeout: 15_000, interval: 300 })
      .toMatch('/not-there');
  });

  it('9: a title of three million letters comes in by no file, and is named', async () => {
    const text = `title,slug\n${'x'.repeat(3_000_000)},long\nShort,short\n`;
    const { json } = await ines.post('/api/sites/quay/imports', {
      format: 'csv',
      text,
      apply: true,
      chosen: undefined,
    });
    expect(json.notes).toEqual([
      { line: 2, detail: expect.stringMatching(/is left out\. en: at most 300 characters/) },
    ]);
    const archive = await ines.get('/api/sites/quay/archive');
    expect((await ines.sendFile('/api/archives/again', Buffer.from(archive.text))).status).toBe(200);
  });

  it('10: what only looks like a language, a format or a revision is none', async () => {
    const language = { name: 'site.set', fields: { language: 'en-GB-US' } };
    expect((await ines.operations('quay', language)).status).toBe(422);
    expect((await ines.get('/api/sites/quay/exports/constructor')).json.code).toBe('format-unknown');
    for (const query of ['tree?revision=1e300', 'history?before=1e300', 'tree?revision=9007199254740993'])
      expect((await ines.get(`/api/sites/quay/${query}`)).status).toBeLessThan(500);
  });

  it('10: a request id is used once: for something else it is refused', async () => {
    const send = (title: string) =>
      ines.post('/api/sites/quay/operations', { request: 'reused-id-1', operations: [add('once', title)] });
    const first = await send('Once');
    expect((await send('Once')).json).toEqual(first.json);
    expect((await send('Twice')).json.code).toBe('request-reused');
  });

  it('10: rows that stand too deep are named, with their lines', async () => {
    await server.site('deep');
    const rows = Array.from({ length: 45 }, (_, n) => `d${n},${n === 0 ? '' : `d${n - 1}`},Level ${n}`);
    const { json } = await ines.post('/api/sites/deep/imports', {
      format: 'csv',
      text: `id,parent,title\n${rows.join('\n')}\n`,
      apply: true,
    });
    expect(json.applied).toBe(40);
    expect(json.notes[0]).toMatchObject({ line: 42, detail: expect.stringMatching(/‘Level 40’ is left out/) });
    expect(json.notes).toHaveLength(5);
  });
});

describe('who sees what', () => {
  it('15: an escaped key is no other name of a site that is closed for works', async () => {
    await ines.send('PUT', '/api/sites/quay/works', { works: { words: 'New roof', until: null } });
    const status = async () => (await server.live('/quay/visit')).status;
    await expect.poll(status).toBe(503);
    for (const path of ['/quay/sign-in', '/%71uay/sign-in', '/%71uay/', '/%71uay/visit', '/quay/visit'])
      expect([path, (await server.live(path)).status]).toEqual([path, path.includes('%') ? 404 : 503]);
    await ines.send('PUT', '/api/sites/quay/works', { works: null });
    await expect.poll(status).toBe(200);
  });
});

it('11: pages whose slugs are reserved since get others with the start, as an edit', async () => {
  await server.site('former');
  await ines.operations('former', add('home', 'Home'), add('con', 'Connections'), add('index', 'Index'));
  for (const [id, text] of [
    ['con', 'con'],
    ['index', 'index.html'],
  ])
    await server
      .database('node')
      .where({ site: 'former', id })
      .update({ slug: { en: { text, own: id === 'index' } } });
  const edits = new EditService(server.database, new SiteCache(server.database), EVERYBODY_MAY, () => new Date());
  await settleReservedSlugs(server.database, edits);
  await settleReservedSlugs(server.database, edits);
  const slugs = await server.database('node').where({ site: 'former' }).whereIn('id', ['con', 'index']).orderBy('id');
  expect(slugs.map(({ slug }) => slug.en.text)).toEqual(['con-2', 'index.html-page']);
  expect((await ines.get('/api/sites/former/history')).json.entries).toHaveLength(2);
});
