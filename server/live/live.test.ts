import { createHash } from 'node:crypto';
import { type IncomingHttpHeaders, get } from 'node:http';
import { gunzipSync, brotliDecompressSync } from 'node:zlib';
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { planRelease, waitingPages } from '#core/changes/release-plan.ts';
import { contentIdOf } from '#core/model/content.ts';
import { type AccessChange, NO_RULE } from '#core/model/access.ts';
import { EVERYONE } from '#core/model/audience.ts';
import { visitorView } from '#core/derive/visitor-view.ts';
import { toPageId, toSiteKey } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { applyOperation } from '#core/operations/apply.ts';
import { anyEditStep, anySite, siteAfter, siteAfterSteps } from '#core/testing/random-site.ts';
import { SlowReference } from '#core/testing/slow-reference.ts';
import { acceptContent } from '../contents/content-service.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';
import { NO_FILES } from './live-files.ts';
import { sitemapFiles } from './machine-files.ts';
import { liveSiteOf } from '#core/derive/live-site.ts';

let server: TestServer;
let ines: Person;
const KEY = 'quay';
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site(KEY);
  const document = {
    type: 'doc' as const,
    content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Seven to <b>nine</b>.' }] }],
  };
  const content = contentIdOf(document);
  await ines.post(`/api/sites/${KEY}/operations`, {
    operations: [
      { name: 'site.set', fields: { name: 'The Quay' } },
      add('home', 'Welcome', null, { label: { en: 'Home' } }),
      add('courses', 'Courses'),
      add('group', 'By length', 'courses', { type: 'heading' }),
      add('evening', 'Evening & night', 'group', { content, description: { en: 'After "work".' } }),
      add('staff', 'Staff', null, { hidden: 'branch' }),
      add('keys', 'Keys', 'staff'),
      add('legal', 'Legal', null, { inMenus: false }),
      add('tides', 'Tides', null, { type: 'link', target: { url: 'https://tides.example/' } }),
      add('umlaut', 'Über', null, { slug: { en: { text: 'über', own: true } } }),
    ],
    contents: [{ id: content, document }],
  });
  await release('all');
  await ines.operations(KEY, add('draft', 'Not yet', 'courses'), set('courses', { title: { en: 'Learning' } }));
});
afterAll(() => server.close());

const add = (page: string, title: string, parent: string | null = null, more: object = {}) => ({
  name: 'page.add',
  page,
  place: { parent },
  title: { en: title },
  ...more,
});
/** A page as it comes over the wire, before anything is unpacked. */
function raw(coding: string, tag?: string): Promise<{ status: number; headers: IncomingHttpHeaders; body: Buffer }> {
  const headers = { 'Accept-Encoding': coding, ...(tag && { 'If-None-Match': tag }) };
  return new Promise((resolve, reject) => {
    get(`${server.liveOrigin}/${KEY}/courses`, { headers }, (response) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () =>
        resolve({ status: response.statusCode!, headers: response.headers, body: Buffer.concat(parts) }),
      );
    }).on('error', reject);
  });
}
const set = (page: string, fields: object) => ({ name: 'page.set', page, fields });
/** Makes a release and waits until visitors have it. */
async function release(pages: 'all' | string[], retire: string[] = [], key = KEY): Promise<void> {
  const before = (await server.live(`/${key}/`)).headers.get('etag');
  const answer = await ines.post(`/api/sites/${key}/releases`, { pages, retire });
  expect(answer.status).toBe(200);
  await until('visitors have the release', async () => {
    const now = await server.live(`/${key}/`);
    return now.status !== 404 && now.headers.get('etag') !== before;
  }).catch(() => undefined);
}

describe('a page for visitors', () => {
  it('has the title for search, where it has one, for browsers and search engines', async () => {
    const searchTitle = { en: 'Woodwork <after hours>' };
    await ines.operations(KEY, set('legal', { searchTitle }));
    await release(['legal']);
    const { text } = await server.live(`/${KEY}/legal`);
    expect(text).toMatch('<title>Woodwork &lt;after hours&gt;</title>');
    expect(text).toMatch('<meta property="og:title" content="Woodwork &lt;after hours&gt;">');
    expect(text).not.toMatch('<h1>Woodwork');
  });

  it('has its menu, trail, title, description, canonical address and text', async () => {
    const { status, text, headers } = await server.live(`/${KEY}/courses/evening-night`);
    expect(status).toBe(200);
    expect(headers.get('content-type')).toBe('text/html; charset=utf-8');
    expect(text).toMatch('<html lang="en">');
    expect(text).toMatch('<title>Evening &amp; night – The Quay</title>');
    expect(text).toMatch('<meta name="description" content="After &quot;work&quot;.">');
    expect(text).toMatch(`<link rel="canonical" href="https://www.example/${KEY}/courses/evening-night">`);
    expect(text).toMatch('Seven to &lt;b&gt;nine&lt;/b&gt;.');
    expect(text).toMatch(/<nav aria-label="Main"[^>]*>.*<ul.*<ul/s);
    expect(text).toMatch(`<a href="/${KEY}/courses" aria-current="true">Courses</a>`);
    expect(text).toMatch('<a href="https://tides.example/">Tides</a>');
    expect(text).not.toMatch(/>Legal</);
    const trail = /<nav aria-label="Breadcrumb".*?<\/nav>/s.exec(text)![0];
    expect(trail.replace(/<[^>]+>/g, '|').replace(/\|+/g, '|')).toBe(
      '|Home|›|Courses|›|By length|›|Evening &amp; night|',
    );
    expect(trail).toMatch('<span aria-current="page">Evening &amp; night</span>');
    expect(trail).toMatch('<span>By length</span>');
    const data = JSON.parse(/<script type="application\/ld\+json">(.*?)<\/script>/s.exec(text)![1]!);
    expect(data).toMatchObject({ '@context': 'https://schema.org', '@type': 'BreadcrumbList' });
    expect(data.itemListElement.map((one: { name: string }) => one.name)).toEqual([
      'Home',
      'Courses',
      'By length',
      'Evening & night',
    ]);
    expect(data.itemListElement[2]).not.toHaveProperty('item');
  });

  it('marks itself in the menu', async () =>
    expect((await server.live(`/${KEY}/courses`)).text).toMatch(
      `<a href="/${KEY}/courses" aria-current="page">Courses</a>`,
    ));

  it('is at one address: with a slash at the end, or unencoded, visitors are sent on', async () => {
    const slash = await server.live(`/${KEY}/courses/`);
    expect([slash.status, slash.headers.get('location')]).toEqual([308, `/${KEY}/courses`]);
    const home = await server.live(`/${KEY}`);
    expect([home.status, home.headers.get('location')]).toEqual([308, `/${KEY}/`]);
    const encoded = await server.live(`/${KEY}/%C3%BCber`);
    expect([encoded.status, encoded.text]).toEqual([200, expect.stringMatching('<h1>Über</h1>')]);
    const loose = await server.live(`/${KEY}/%75%CC%88ber`);
    expect([loose.status, loose.headers.get('location')]).toEqual([308, `/${KEY}/%C3%BCber`]);
  });

  it('is not sent again while it is the same, and compressed where that is taken', async () => {
    const whole = await raw('identity');
    expect(whole.headers['content-encoding']).toBeUndefined();
    for (const [coding, unpack] of [
      ['br', brotliDecompressSync],
      ['gzip', gunzipSync],
    ] as const) {
      const packed = await raw(coding);
      expect(packed.headers['content-encoding']).toBe(coding);
      expect(packed.headers.vary).toBe('Accept-Encoding, Cookie');
      expect(unpack(packed.body).equals(whole.body)).toBe(true);
      const again = await raw(coding, packed.headers.etag);
      expect([again.status, again.body.length]).toEqual([304, 0]);
    }
    expect((await raw('br;q=0, gzip;q=0')).headers['content-encoding']).toBeUndefined();
  });

  it('can only be read', async () => {
    const response = await fetch(`${server.liveOrigin}/${KEY}/courses`, { method: 'POST', body: 'x' });
    expect([response.status, response.headers.get('allow')]).toEqual([405, 'GET, HEAD']);
    const head = await fetch(`${server.liveOrigin}/${KEY}/courses`, { method: 'HEAD' });
    expect([head.status, await head.text()]).toEqual([200, '']);
  });

  it('knows nobody, and runs nothing but the script that closes its menu: no cookie is set', async () => {
    const { headers, text } = await server.live(`/${KEY}/courses`, { Cookie: ines.cookie });
    const policy = headers.get('content-security-policy')!;
    expect(policy).toMatch("default-src 'none'");
    const scripts = [...text.matchAll(/<script>(.*?)<\/script>/gs)].map(
      ([, script]) => `'sha256-${createHash('sha256').update(script!).digest('base64')}'`,
    );
    expect(scripts).toHaveLength(1);
    expect(/script-src ([^;]*);/.exec(policy)![1]).toBe(scripts[0]);
    expect(headers.get('set-cookie')).toBeNull();
  });
});

describe('what is not for visitors', () => {
  it.each([
    '/staff',
    '/staff/keys',
    '/courses/not-yet',
    '/learning',
    '/nothing',
    '/%E0%A4%A',
    '/../../etc/passwd',
    '/courses/%00',
  ])('%s gets the not-found page with 404', async (path) => {
    const { status, text, headers } = await server.live(`/${KEY}${path}`);
    expect(status).toBe(404);
    if (!headers.get('content-type')?.startsWith('text/html')) return;
    expect(text).toMatch('There is no page at this address');
    expect(headers.get('x-robots-tag')).toBe('noindex');
  });

  it('a site that is not there, or has nothing live, is not there', async () => {
    await server.site('empty-site');
    for (const path of ['/', '/empty-site/', '/no-such-site/', '/NOT%20A%20KEY/'])
      expect((await server.live(path)).status).toBe(404);
  });
});

describe('a release', () => {
  it('brings renamed and moved pages to their new addresses, with menu and trail', async () => {
    const key = 'moving';
    await server.site(key);
    await ines.operations(key, add('home', 'Home'), add('a', 'Alpha'), add('b', 'Beta'));
    await release('all', [], key);
    await ines.operations(
      key,
      { name: 'page.move', page: 'b', place: { parent: 'a' } },
      set('a', { title: { en: 'Gamma' } }),
    );
    expect((await server.live(`/${key}/alpha`)).status).toBe(200);
    await release(['b'], [], key);
    const page = await server.live(`/${key}/alpha/beta`);
    expect(page.status).toBe(200);
    expect((await server.live(`/${key}/beta`)).status).toBe(301);
    await release('all', [], key);
    expect((await server.live(`/${key}/gamma/beta`)).text).toMatch(
      /Breadcrumb.*<a href="[^"]*\/gamma">Gamma<\/a><\/li>/s,
    );
    await release([], ['a'], key);
    expect((await server.live(`/${key}/gamma/beta`)).status).toBe(301);
    const { releases } = (await ines.get(`/api/sites/${key}/releases`)).json;
    expect(releases.map((one: { pages: number; retired: number }) => [one.pages, one.retired])).toEqual([
      [0, 2],
      [1, 0],
      [1, 0],
      [3, 0],
    ]);
  });

  it('of a page that is not there is refused', async () => {
    const answer = await ines.post(`/api/sites/${KEY}/releases`, { pages: ['nowhere'] });
    expect([answer.status, answer.json.code]).toEqual([404, 'page-unknown']);
  });
});

describe('the files for machines', () => {
  it('robots.txt names each sitemap file', async () => {
    const { text, headers } = await server.live('/robots.txt');
    expect(headers.get('content-type')).toBe('text/plain; charset=utf-8');
    expect(text).toMatch(/^User-agent: \*\nAllow: \/\n/);
    expect(text).toMatch(`Sitemap: https://www.example/${KEY}/sitemap.xml\n`);
  });

  it('sitemap.xml lists what can be reached, and nothing else', async () => {
    const { text, headers } = await server.live(`/${KEY}/sitemap.xml`);
    expect(headers.get('content-type')).toBe('application/xml; charset=utf-8');
    expect(XMLValidator.validate(text)).toBe(true);
    const { urlset } = new XMLParser().parse(text);
    expect(urlset.url.map((one: { loc: string }) => one.loc)).toEqual(
      ['/', '/courses', '/courses/evening-night', '/legal', '/%C3%BCber'].map(
        (path) => `https://www.example/${KEY}${path}`,
      ),
    );
    for (const { lastmod } of urlset.url) {
      const age = Date.now() - new Date(lastmod).getTime();
      expect(age).toBeGreaterThanOrEqual(0);
      expect(age).toBeLessThan(3_600_000);
    }
  });

  it('sitemap files are cut where there are too many addresses, with an index above them', () => {
    const site = siteAfter(
      Array.from({ length: 7 }, (_, n) => ({
        name: 'page.add' as const,
        page: toPageId(`p${n}`),
        place: { parent: null },
        title: { en: `P ${n}` },
      })),
    );
    const place = { base: '/s', origin: 'https://www.example', stylesheet: '' };
    const view = { ...visitorView(site, new Set([EVERYONE]), 0, false), place, walk: null, files: NO_FILES };
    const files = sitemapFiles(view, new Map(), 3);
    expect([...files.keys()]).toEqual(['sitemap-1.xml', 'sitemap-2.xml', 'sitemap-3.xml', 'sitemap.xml']);
    const parse = (name: string) =>
      new XMLParser({ isArray: (tag) => tag === 'url' || tag === 'sitemap' }).parse(files.get(name)!);
    expect(parse('sitemap.xml').sitemapindex.sitemap.map((one: { loc: string }) => one.loc)).toEqual(
      [1, 2, 3].map((n) => `https://www.example/s/sitemap-${n}.xml`),
    );
    expect([1, 2, 3].map((n) => parse(`sitemap-${n}.xml`).urlset.url.length)).toEqual([3, 3, 1]);
  });
});

describe('any site, edited after its release', () => {
  /** Random edits, a release of all, and more random edits that visitors must not see. */
  const anyLiveSite = fc.tuple(anySite, fc.array(anyEditStep, { maxLength: 10 })).map(([start, steps]): Site => {
    const edited = siteAfter(
      // Who may open what is asked page by page in access.test.ts.
      [...start.nodes.keys()].map((page) => ({
        name: 'page.set' as const,
        page,
        fields: { content: null, access: { ...NO_RULE, except: [], labels: [] } as AccessChange },
      })),
      start,
    );
    // Redirects answer where no page does: they are asked for in releases.test.ts.
    const texts = { ...edited, settings: { ...edited.settings, redirects: [] } };
    const made = applyOperation(texts, planRelease(texts, { pages: waitingPages(texts), retire: [] }).operation);
    if (!made.ok) throw new Error(made.code);
    return siteAfterSteps(steps, made.site);
  });

  it('shows visitors every page that is live and not hidden, and no other, with links that lead somewhere', async () => {
    let count = 0;
    await fc.assert(
      fc.asyncProperty(anyLiveSite, async (site) => {
        const key = toSiteKey(`random-${++count}`);
        await server.site(key, { ...site, key }, []);
        const live = liveSiteOf(site);
        const slow = new SlowReference(live);
        const open = slow.inTreeOrder().filter((id) => slow.address(id) !== null && slow.hiddenBy(id) === null);
        const all = new Set(
          [...site.nodes.keys(), ...open].flatMap((id) => [...pathsOf(site, id), ...pathsOf(live, id)]),
        );
        const opens = new Map(open.map((id) => [slow.address(id)!, id]));
        const lookedAt = new Map<string, number>();
        for (const path of new Set([...all, ...opens.keys()])) {
          const answer = await server.live(`/${key}${encodeURI(path)}`);
          expect([path, answer.status]).toEqual([path, opens.has(path) ? 200 : 404]);
          if (answer.status !== 200) continue;
          for (const [, href] of answer.text.matchAll(/<a href="(\/random-[^"#]*)"/g)) {
            if (href === `/${key}/` && !opens.has('/')) continue;
            if (!lookedAt.has(href!)) lookedAt.set(href!, (await server.live(href!)).status);
            expect([path, href, lookedAt.get(href!)]).toEqual([path, href, 200]);
          }
          // Pages that nobody can reach are not named in it.
          const trail = slow.trail(opens.get(path)!).filter((id) => slow.hiddenBy(id) === null);
          const data = JSON.parse(/ld\+json">(.*?)<\/script>/s.exec(answer.text)![1]!);
          expect(data.itemListElement).toHaveLength(trail.length);
        }
      }),
      { numRuns: 25 },
    );
  });
});

function pathsOf(site: Site, id: ReturnType<typeof toPageId>): string[] {
  const node = site.nodes.get(id);
  if (!node || node.removedWith !== null) return [];
  const address = new SlowReference(site).address(id);
  return address === null ? [] : [address];
}

describe('a text for visitors', () => {
  it('holds nothing that runs, whatever was sent', () => {
    const document = {
      type: 'doc' as const,
      content: [
        {
          type: 'paragraph',
          content: [
            { type: 'text', text: '<script>alert(1)</script>' },
            {
              type: 'text',
              text: 'link',
              marks: [{ type: 'link', attrs: { href: 'javascript:alert(1)', onclick: 'alert(1)' } }],
            },
          ],
        },
      ],
    };
    const { html } = acceptContent({ id: contentIdOf(document), document });
    expect(html).not.toMatch(/<script|javascript:|onclick/);
    expect(html).toMatch('&lt;script&gt;');
  });
});
