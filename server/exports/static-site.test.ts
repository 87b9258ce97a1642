import { unzipSync } from 'fflate';
import MiniSearch, { type AsPlainObject, type Options } from 'minisearch';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { contentIdOf } from '#core/model/content.ts';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
let files: Map<string, string>;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site('quay');
  const add = (page: string, title: string, parent: string | null = null, more: object = {}) => ({
    name: 'page.add',
    page,
    place: { parent },
    title: { en: title },
    ...more,
  });
  const document = {
    type: 'doc' as const,
    content: [
      {
        type: 'paragraph',
        content: [{ type: 'text', text: 'Find us', marks: [{ type: 'link', attrs: { href: 'page:visit' } }] }],
      },
    ],
  };
  const content = contentIdOf(document);
  const made = await ines.post('/api/sites/quay/operations', {
    operations: [
      { name: 'audience.add', audience: 'staff', title: 'Staff' },
      add('home', 'Welcome'),
      add('courses', 'Courses', null, { content }),
      add('evening', 'Evening', 'courses', { frame: { date: '2026-11-01' }, description: { en: 'After work.' } }),
      add('visit', 'Visit & find', null, { slug: { en: { text: 'besuch-für-alle', own: true } } }),
      add('door', 'Sign in here', null, { access: { standsIn: 'sign-in' } }),
      add('handbook', 'Handbook', null, { access: { only: ['staff'], closedLook: 'locked' } }),
      { name: 'page.set', page: 'courses', fields: { frame: { listing: { look: 'list', levels: 1, order: 'date' } } } },
      { name: 'redirect.add', redirect: 'r2', from: '/kurse/*', to: { page: 'courses' } },
      {
        name: 'oldPage.decide',
        address: 'https://old.example/../../../outside',
        fields: { letGo: { page: 'visit' } },
      },
      { name: 'redirect.add', redirect: 'r1', from: '/tides', to: { url: 'https://tides.example/' } },
    ],
    contents: [{ id: content, document }],
  });
  expect(made.status, made.text).toBe(200);
  await ines.post('/api/sites/quay/releases', { pages: 'all' });
  await ines.operations('quay', {
    name: 'page.set',
    page: 'evening',
    fields: { slug: { en: { text: 'night', own: true } } },
  });
  await ines.post('/api/sites/quay/releases', { pages: 'all' });
  const response = await fetch(`${server.origin}/api/sites/quay/static-site?address=https://files.example/school`, {
    headers: { Cookie: ines.cookie },
  });
  expect(response.headers.get('content-type')).toBe('application/zip');
  const zip = unzipSync(new Uint8Array(await response.arrayBuffer()));
  files = new Map(Object.entries(zip).map(([path, bytes]) => [path, new TextDecoder().decode(bytes)]));
});
afterAll(() => server.close());

/** Where a link of a file leads, as a path in the folder. */
const resolved = (file: string, to: string): string =>
  decodeURI(new URL(to, `https://files.example/school/${encodeURI(file)}`).pathname.replace('/school/', ''));

describe('a site as files', () => {
  it('holds what everyone may see, and nothing behind a lock', () => {
    expect([...files.keys()].filter((path) => path.endsWith('.html')).sort()).toEqual([
      '404.html',
      'besuch-für-alle/index.html',
      'courses/evening/index.html',
      'courses/index.html',
      'courses/night/index.html',
      'index.html',
      'search/index.html',
      'tides/index.html',
    ]);
    for (const [path, text] of files)
      if (!path.endsWith('.css')) expect(text).not.toMatch(/Handbook|[Ss]ign[- ]in|<form(?! role="search")/);
  });

  it('13: opens from a disk where that is asked: each link names a file that is there', async () => {
    const response = await fetch(`${server.origin}/api/sites/quay/static-site?opens=files`, {
      headers: { Cookie: ines.cookie },
    });
    const zip = unzipSync(new Uint8Array(await response.arrayBuffer()));
    let links = 0;
    for (const [path, bytes] of Object.entries(zip)) {
      if (!path.endsWith('/index.html')) continue;
      for (const [, to] of new TextDecoder().decode(bytes).matchAll(/<a [^>]*href="(\.[^"]*)"/g)) {
        links += 1;
        expect([path, to, Object.keys(zip)]).toEqual([path, to, expect.arrayContaining([resolved(path, to!)])]);
      }
    }
    expect(links).toBeGreaterThan(5);
  });

  it('13: its search knows what everyone may read, and nothing behind a lock', () => {
    const words = files.get('search/words.js')!;
    const { options, index } = JSON.parse(words.slice('window.siteWords = '.length, -2)) as {
      options: Options<{ title: string; to: string }>;
      index: AsPlainObject;
    };
    const engine = MiniSearch.loadJS(index, options);
    const found = (asked: string) => engine.search(asked).map(({ title, to }) => `${title as string} ${to as string}`);
    expect(found('visit')).toEqual(['Visit & find besuch-f%C3%BCr-alle/']);
    expect(found('us')).toEqual(['Courses courses/']);
    expect(found('work')).toEqual(['Evening courses/night/']);
    expect(found('handbook')).toEqual([]);
  });

  it('holds no file outside of its folder, whatever the old addresses are', () => {
    expect(files.get('redirects.csv')).toContain('/../../../outside,');
    for (const path of files.keys()) expect(path).not.toMatch(/(^|\/)\.{1,2}(\/|$)|^\//);
  });

  it('has links that lead to files of the folder, from any page, fonts and styles among them', () => {
    let links = 0;
    for (const [file, html] of files) {
      if (!file.endsWith('index.html') || html.includes('http-equiv="refresh"')) continue;
      for (const [, to] of html.matchAll(/\b(?:href|src|action)="([^"]*)"/g)) {
        if (/^(https?:|data:|#)/.test(to!)) continue;
        const path = resolved(file, to!);
        expect(files.has(path) || files.has(`${path}index.html`), `${to} in ${file}`).toBe(true);
        links++;
      }
    }
    expect(links).toBeGreaterThan(25);
    const css = [...files].find(([path]) => path.endsWith('.css'))!;
    for (const [, font] of css[1].matchAll(/url\('([^']+)'\)/g)) expect(files.has(resolved(css[0], font!))).toBe(true);
    expect(files.get('courses/index.html')).toContain('<a href="../besuch-f%C3%BCr-alle/">Find us</a>');
  });

  it('says where it stands: canonical addresses, sitemap, feed, and what is not found', () => {
    expect(files.get('courses/night/index.html')).toContain(
      '<link rel="canonical" href="https://files.example/school/courses/night">',
    );
    expect(files.get('sitemap.xml')).toContain('<loc>https://files.example/school/courses/night</loc>');
    expect(files.get('robots.txt')).toContain('Sitemap: https://files.example/school/sitemap.xml');
    expect(files.get('courses/feed.xml')).toMatch(/<entry><title>Evening<\/title>.*After work\./s);
    expect(files.get('404.html')).toContain('href="https://files.example/school/courses/"');
  });

  it('leads on from former addresses, by rules and by pages', () => {
    expect(files.get('courses/evening/index.html')).toContain('url=https://files.example/school/courses/night"');
    expect(files.get('redirects.csv')).toContain('/courses/evening,https://files.example/school/courses/night,301');
    expect(files.get('redirects.nginx.conf')).toContain('"/tides" "https://tides.example/"');
    expect(files.get('redirects.csv')).toContain('/kurse/*,https://files.example/school/courses,301');
  });
});

describe('what machines read on the live site', () => {
  it('is a feed of a collection, named in its page, with the latest first', async () => {
    const page = await server.live('/quay/courses');
    expect(page.text).toContain(
      '<link rel="alternate" type="application/atom+xml" title="Courses" href="/quay/courses/feed.xml">',
    );
    expect(page.text).toContain('<meta property="og:title" content="Courses">');
    const feed = await server.live('/quay/courses/feed.xml');
    expect(feed.headers.get('content-type')).toContain('application/atom+xml');
    // RFC 4287: a feed and each entry have one id, one title and one updated; a feed names its author.
    for (const part of [feed.text.replace(/<entry>.*<\/entry>/gs, ''), ...feed.text.match(/<entry>.*?<\/entry>/gs)!])
      for (const tag of ['id', 'title', 'updated']) expect(part.match(new RegExp(`<${tag}>`, 'g'))).toHaveLength(1);
    expect(feed.text).toMatch(/<author><name>.+<\/name><\/author>/);
    expect((await server.live('/quay/feed.xml')).status).toBe(404);
  });
});
