import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { request as ask } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { contentIdOf } from '#core/model/content.ts';
import { type RunningNginx, startNginx } from '../testing/nginx.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';
import { PublicFiles } from './public-files.ts';

const folder = mkdtempSync(join(tmpdir(), 'spur-public-'));
let server: TestServer;
let ines: Person;
let files: PublicFiles;
let nginx: RunningNginx;

const add = (page: string, title: string, more: object = {}) => ({
  name: 'page.add',
  page,
  place: { parent: null },
  title: { en: title },
  ...more,
});

beforeAll(async () => {
  const program = process.env.SPUR_TEST_NGINX;
  if (!program) throw new Error('This test needs nginx: run it by `npm test -- --project server`.');
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site('quay');
  const document = {
    type: 'doc' as const,
    content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Seven to nine. '.repeat(100) }] }],
  };
  const content = contentIdOf(document);
  const made = await ines.post('/api/sites/quay/operations', {
    operations: [
      { name: 'audience.add', audience: 'staff', title: 'Staff' },
      add('home', 'Welcome', { content }),
      add('courses', 'Courses', { frame: { listing: { look: 'list', levels: 1, order: 'date' } } }),
      add('evening', 'Evening', { place: { parent: 'courses' }, frame: { date: '2026-11-01' } }),
      add('boats', 'Boats', { slug: { en: { text: 'boote-für-alle', own: true } } }),
      add('legal', 'Legal', { access: { engines: 'page' } }),
      add('handbook', 'Handbook', { access: { only: ['staff'], closedLook: 'locked' } }),
      add('secret', 'Secret', { access: { only: ['staff'] } }),
      add('fair', 'Fair', { access: { until: '2099-01-01T00:00:00Z' } }),
      ...Array.from({ length: 12 }, (_, index) => add(`hall${index}`, `Hall ${index}`)),
      add('door', 'Door', { access: { standsIn: 'sign-in' } }),
      { name: 'redirect.add', redirect: 'r1', from: '/kurse', to: { page: 'courses' } },
    ],
    contents: [{ id: content, document }],
  });
  expect(made.status, made.text).toBe(200);
  await release();
  files = await PublicFiles.start(
    folder,
    server.liveOrigin.replace('http://', ''),
    server.liveSites,
    pino({ level: 'silent' }),
  );
  server.onRelease.push((key) => files.renew(key));
  await files.settled();
  const config = (name: string) => readFileSync(join(folder, name), 'utf8');
  nginx = await startNginx(program, config('nginx-http.conf'), config('nginx-server.conf'));
});
afterAll(async () => {
  await nginx?.close();
  await files?.end();
  await server?.close();
  rmSync(folder, { recursive: true, force: true });
});

const release = async () => {
  const done = await ines.post('/api/sites/quay/releases', { pages: 'all' });
  expect(done.status, done.text).toBe(200);
};

interface Sent {
  readonly status: number;
  readonly headers: Record<string, unknown>;
  readonly body: string;
}

/** A request as it is, without anything unpacked or followed. */
const get = (origin: string, path: string, headers: Record<string, string> = {}, method = 'GET'): Promise<Sent> =>
  new Promise((resolve, reject) => {
    const { hostname, port } = new URL(origin);
    ask({ hostname, port, path, method, headers }, (response) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () => {
        // What belongs to the connection, and to the program that answers, is left out.
        const {
          date,
          server: program,
          connection,
          'keep-alive': alive,
          'transfer-encoding': transfer,
          ...said
        } = response.headers;
        void [date, program, connection, alive, transfer];
        resolve({ status: response.statusCode!, headers: said, body: Buffer.concat(parts).toString('latin1') });
      });
    })
      .on('error', reject)
      .end();
  });

/** The files of now; none while there are none. */
const namesOf = (): string[] => {
  const now = join(folder, 'quay');
  return existsSync(now) ? readdirSync(now, { recursive: true }).map(String).sort() : [];
};

const IN_FILES = [
  '/quay/',
  '/quay/courses',
  '/quay/courses/evening',
  '/quay/boote-f%C3%BCr-alle',
  '/quay/sitemap.xml',
  '/quay/courses/feed.xml',
  '/quay/courses?from=letter',
];
const PATHS = [
  ...IN_FILES,
  '/quay',
  '/quay/courses/',
  '/quay//courses',
  '/quay/./courses',
  '/quay/boats/../courses',
  '/quay/%63ourses',
  '/quay/courses~.html',
  '/quay/courses~.html.br',
  '/.made/',
  '/quay/handbook',
  '/quay/legal',
  '/quay/secret',
  '/quay/fair',
  '/quay/door',
  '/quay/kurse',
  '/quay/nothing',
  '/quay/search?q=evening',
  '/robots.txt',
  '/nginx-http.conf',
];

describe('nginx in front', () => {
  it.each(PATHS)('answers %s as Spur does, in each encoding, again, and for the head alone', async (path) => {
    for (const coding of ['br, gzip', 'gzip;q=1.0', 'br;q=0, gzip', 'gzip;q=0', 'identity']) {
      const asked = { 'Accept-Encoding': coding };
      const own = await get(server.liveOrigin, path, asked);
      const answered = await get(nginx.origin, path, asked);
      expect(answered).toEqual(own);
      expect(await get(nginx.origin, path, asked, 'HEAD')).toEqual(await get(server.liveOrigin, path, asked, 'HEAD'));
      const { etag } = own.headers;
      if (typeof etag !== 'string') continue;
      for (const tag of [etag, `"other", W/${etag}`, '"other"'])
        expect(await get(nginx.origin, path, { ...asked, 'If-None-Match': tag })).toEqual(
          await get(server.liveOrigin, path, { ...asked, 'If-None-Match': tag }),
        );
    }
  });

  it('leads nobody out of its folder', async () => {
    for (const path of ['/quay/../../etc/passwd', '/quay/..%2f..%2fnginx-http.conf', '/../nginx-http.conf'])
      expect((await get(nginx.origin, path)).status).toBeGreaterThanOrEqual(400);
  });

  it('has files of what everyone gets, and of nothing else', () => {
    const names = namesOf().filter((name) => /\.(br|gz|html|xml|map)$/.test(name));
    expect(names.filter((name) => !/^hall|\.gz$/.test(name))).toEqual([
      'boote-f%C3%BCr-alle~.html.br',
      'courses/evening~.html.br',
      'courses/feed.xml',
      'courses~.html.br',
      'gone.map',
      'moved.map',
      'sitemap.xml.br',
      '~.html.br',
    ]);
  });

  it('answers from the files while Spur is away, and moves on who asks for a former address', async () => {
    const away = await startNginx(
      process.env.SPUR_TEST_NGINX!,
      readFileSync(join(folder, 'nginx-http.conf'), 'utf8').replace(/server 127[^;]*;/, 'server 127.0.0.1:1;'),
      readFileSync(join(folder, 'nginx-server.conf'), 'utf8'),
    );
    try {
      const asked = { 'Accept-Encoding': 'br' };
      for (const path of IN_FILES)
        expect(await get(away.origin, path, asked)).toEqual(await get(server.liveOrigin, path, asked));
      const moved = await get(away.origin, '/quay/kurse');
      expect([moved.status, moved.headers.location]).toEqual([301, `${away.origin}/quay/courses`]);
      expect((await get(away.origin, '/quay/courses', { ...asked, Cookie: 'spur.visitor=abcdefghijkl' })).status).toBe(
        502,
      );
    } finally {
      await away.close();
    }
  });

  it('has the next release as soon as Spur has it, and never both', async () => {
    const before = namesOf();
    await ines.operations('quay', {
      name: 'page.set',
      page: 'courses',
      fields: { title: { en: 'Learning' }, slug: { en: { text: 'learning', own: true } } },
    });
    await release();
    await until('Spur has the new release', async () => (await server.live('/quay/learning')).status === 200);
    const asked = { 'Accept-Encoding': 'br' };
    for (const path of ['/quay/', '/quay/courses', '/quay/learning'])
      expect(await get(nginx.origin, path, asked)).toEqual(await get(server.liveOrigin, path, asked));
    await files.settled();
    expect(namesOf()).toContain('learning~.html.br');
    expect(namesOf()).not.toEqual(before);
    for (const path of ['/quay/', '/quay/courses', '/quay/learning'])
      expect(await get(nginx.origin, path, asked)).toEqual(await get(server.liveOrigin, path, asked));
    expect(readdirSync(join(folder, '.made'))).toHaveLength(1);
  });

  it('follows the clock: a page that opens at a moment comes with its entries in menus', async () => {
    const from = new Date(Date.now() + 1500).toISOString();
    await ines.operations('quay', add('tide', 'Tide tables', { access: { from } }));
    await release();
    await files.settled();
    expect(namesOf()).not.toContain('tide-tables~.html.br');
    await until('it has a file', () => namesOf().includes('tide-tables~.html.br'));
    const asked = { 'Accept-Encoding': 'br' };
    for (const path of ['/quay/', '/quay/tide-tables'])
      expect(await get(nginx.origin, path, asked)).toEqual(await get(server.liveOrigin, path, asked));
  });

  it('has no files of a site that is closed for works', async () => {
    const closed = await ines.send('PUT', '/api/sites/quay/works', { works: { words: 'New roof', until: null } });
    expect(closed.status, closed.text).toBe(200);
    await until('the files are gone', async () => {
      await files.settled();
      return !readdirSync(folder).includes('quay');
    });
    expect((await get(nginx.origin, '/quay/')).status).toBe(503);
  });
});
