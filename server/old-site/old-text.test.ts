import { type Server, createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { PDFDocument } from 'pdf-lib';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type TextPart, contentIdOf } from '#core/model/content.ts';
import type { LibraryFile } from '#contract/files.ts';
import type { OldTextAnswer } from '#contract/old-site.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';
import { oldText } from './old-text.ts';

const PAGE = `<html><head><title>The slip</title><base href="/quay/"></head><body><nav><a href="/">Home</a></nav>
  <main><h1>The slip</h1><p onclick="x()">It is <b>steep</b>. See <a href="boats.html#top">the boats</a>, <a href="javascript:alert(1)">this</a>.</p>
  <script>alert(1)</script><ul><li>Ropes</li></ul><table><tr><td>Day</td></tr></table>
  <p><img src="slip.png" srcset="slip-small.png 400w, slip.png 900w" alt="The slip at noon"></p>
  <p><img src="https://elsewhere.example/other.png"><a href="/files/form.pdf">The form</a>, <a href="/files/large.pdf">a large one</a>, <a href="/private/list.pdf">a list</a></p>
  <form><input></form></main><footer>Imprint</footer></body></html>`;

describe('the main text of an old page', () => {
  const text = oldText(PAGE, 'https://old.example/a.html', 'The slip');
  it('is what stands in its main part, without its title, menus, forms and programs', () => {
    expect(text.html).not.toMatch(/Home|Imprint|alert|onclick|<h1|<input|<form/);
    expect(text.html).toContain('<p>It is <b>steep</b>. See <a href="https://old.example/quay/boats.html');
    expect(text.html).toContain('<ul><li>Ropes</li></ul>');
    expect(text.html).toContain('<a>this</a>');
  });
  it('names its pictures and links by their whole addresses, the widest picture of several', () => {
    expect(text.pictures).toEqual(['https://old.example/quay/slip.png', 'https://elsewhere.example/other.png']);
    expect(text.links).toContain('https://old.example/files/form.pdf');
  });
  it('is the body where the page has no main part, with a heading that is none of its title', () => {
    const plain = oldText('<h1>One</h1><h1>Two</h1><p>Words', 'https://old.example/', 'Site');
    expect(plain.html).toBe('<h1>One</h1><h1>Two</h1><p>Words</p>');
  });
});

describe('what is taken over of an old site', () => {
  let server: TestServer;
  let ines: Person;
  let old: Server;
  let origin: string;
  const KEY = 'overtaking';

  beforeAll(async () => {
    const picture = await sharp({ create: { width: 900, height: 500, channels: 3, background: '#336699' } })
      .png()
      .toBuffer();
    const document = await PDFDocument.create();
    document.addPage();
    const form = Buffer.from(await document.save());
    const answers: Record<string, [string, Buffer | string]> = {
      '/robots.txt': ['text/plain', 'User-agent: *\nDisallow: /private/'],
      '/': ['text/html', '<title>Old</title><a href="/quay/slip.html">The slip</a>'],
      '/quay/slip.html': ['text/html; charset=utf-8', PAGE],
      '/quay/boats.html': ['text/html', '<title>Boats</title><p>Boats<a href="/huge.html">all</a>'],
      '/huge.html': ['text/html', Buffer.alloc(4_000_000, '<p>')],
      '/quay/slip.png': ['image/png', picture],
      '/files/form.pdf': ['application/pdf', form],
      '/files/large.pdf': ['application/pdf', Buffer.alloc(700_000, 1)],
    };
    old = createServer(({ url }, response) => {
      const [type, body] = answers[url!] ?? [];
      response.writeHead(type === undefined ? 404 : 200, { 'Content-Type': type ?? 'text/plain' }).end(body);
    }).listen(0, '127.0.0.1');
    await new Promise((resolve) => old.once('listening', resolve));
    origin = `http://127.0.0.1:${(old.address() as AddressInfo).port}`;
    server = await startTestServer(new Set([new URL(origin).host]));
    ines = await server.person('Ines');
    await server.site(KEY);
    await ines.post(`/api/sites/${KEY}/old-site`, {
      from: { kind: 'list', text: `${origin}/quay/slip.html\n${origin}/private/list.html\n${origin}/nowhere` },
      apply: true,
    });
  });
  afterAll(async () => {
    old.close();
    await server.close();
  });

  const library = async (site = KEY): Promise<LibraryFile[]> => (await ines.get(`/api/sites/${site}/files`)).json.files;
  const take = (address: string) =>
    ines.post(`/api/sites/${KEY}/old-site/text`, { address: origin + address, largest: 500_000 });

  it('is its text, with its pictures and documents in the library; what is not taken is told', async () => {
    const answer = await take('/quay/slip.html');
    expect([answer.status, answer.json.detail]).toEqual([200, undefined]);
    const { html, files, left } = answer.json as OldTextAnswer;
    expect(html).toContain('steep');
    expect(files.map(({ address, file }) => [address.replace(origin, ''), file.name, file.type])).toEqual([
      ['/quay/slip.png', 'Slip', 'image/png'],
      ['/files/form.pdf', 'Form', 'application/pdf'],
    ]);
    expect(left.map(({ address, why }) => `${address.replace(origin, '')}: ${why}`)).toEqual([
      'https://elsewhere.example/other.png: It stands on another host.',
      expect.stringMatching(/^\/files\/large\.pdf: .* is larger than 0\.5 MB/),
      '/private/list.pdf: robots.txt asks not to read it.',
    ]);
    expect((await take('/quay/slip.html')).json.files.length).toBe(2);
    expect((await library()).length).toBe(2);
  });

  it('has addresses of its files lead to these, for who can open a page that shows them', async () => {
    await until('they are prepared', async () => (await library()).every(({ state }) => state === 'ready'), 30_000);
    const form = (await library()).find(({ name }) => name === 'Form')!;
    const part: TextPart = { type: 'download', attrs: { file: form.id, words: '' } };
    const document = { type: 'doc' as const, content: [part] };
    const id = contentIdOf(document);
    const page = (name: string, content: string | undefined) => ({
      name: 'page.add',
      page: name,
      place: { parent: null },
      title: { en: name },
      content,
    });
    await ines.post(`/api/sites/${KEY}/operations`, {
      operations: [
        page('home', undefined),
        page('slip', id),
        { name: 'site.set', fields: { home: 'home' } },
        { name: 'audience.add', audience: 'crew', title: 'Crew' },
      ],
      contents: [{ id, document }],
    });
    await ines.post(`/api/sites/${KEY}/releases`, { pages: ['home'] });
    await until('the site is live', async () => (await server.live(`/${KEY}/`)).status === 200);
    const asked = async () => {
      const { status, headers } = await server.live(`/${KEY}/files/form.pdf?download=1`);
      return [status, headers.get('location')];
    };
    expect(await asked()).toEqual([404, null]);
    await ines.post(`/api/sites/${KEY}/releases`, { pages: ['slip'] });
    await until('it leads there', async () => (await asked())[0] === 301);
    expect(await asked()).toEqual([301, `/${KEY}/~files/${form.content}/form.pdf`]);
    await ines.post(`/api/sites/${KEY}/operations`, {
      operations: [{ name: 'page.set', page: 'slip', fields: { access: { only: ['crew'] } } }],
    });
    await ines.post(`/api/sites/${KEY}/releases`, { pages: ['slip'] });
    await until('it is closed', async () => (await asked())[0] === 404);
  });

  it.each([
    ['/not-in-the-inventory', 404, 'old-page-unknown', /inventory has no page/],
    ['/private/list.html', 422, 'old-page-unread', /robots\.txt asks programs not to read it/],
    ['/nowhere', 422, 'old-page-unread', /It answers with 404/],
  ])('is refused with the reason: %s', async (address, status, code, detail) => {
    const answer = await take(address);
    expect([answer.status, answer.json.code, answer.json.detail]).toEqual([
      status,
      code,
      expect.stringMatching(detail),
    ]);
  });

  it('comes by a crawl too: the kinds of files that it was told, up to a size', async () => {
    await server.site('crawled');
    const started = await ines.post('/api/sites/crawled/crawl', {
      start: `${origin}/`,
      pauseMs: 0,
      files: { kinds: ['picture', 'document'], largest: 600_000 },
    });
    expect(started.status).toBe(200);
    const crawl = async () => (await ines.get('/api/sites/crawled/crawl')).json;
    await until('the crawl is done', async () => (await crawl()).crawl.state === 'done', 20_000);
    expect((await library('crawled')).map(({ name }) => name).sort()).toEqual(['Form', 'Slip']);
    const faults = (await crawl()).faults.map(
      (one: { address: string; fault: string }) => `${one.address.replace(origin, '')}: ${one.fault}`,
    );
    expect(faults.sort()).toEqual([
      '/files/large.pdf: It is larger than 0.6 MB',
      expect.stringMatching(/^\/huge\.html: .* is larger than 3 MB/),
      '/private/list.pdf: robots.txt asks not to read it',
    ]);
    // Files may be larger than pages are read to.
    await ines.post('/api/sites/crawled/crawl', {
      start: `${origin}/`,
      pauseMs: 0,
      files: { kinds: ['document'], largest: 5_000_000 },
    });
    await until('the other crawl is done', async () => (await crawl()).crawl.state === 'done', 20_000);
    expect((await crawl()).faults).toContainEqual({ address: `${origin}/huge.html`, fault: 'It is larger than 3 MB' });
    const { pages } = (await ines.get('/api/sites/crawled/old-site')).json;
    expect(pages.map(({ address }: { address: string }) => address.replace(origin, '')).sort()).toEqual([
      '/',
      '/quay/boats.html',
      '/quay/slip.html',
    ]);
  });
});
