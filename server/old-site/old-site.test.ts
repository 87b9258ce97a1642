import { gzipSync } from 'node:zlib';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { toSiteKey } from '#core/model/ids.ts';
import { FORMER_SITE, formerHtml } from '#demo/old-site.ts';
import { PostgresQueue } from '../jobs/job-queue.ts';
import { serveFormerSite } from '../standins/former-site.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';
import { LibraryService } from '../library/library-service.ts';
import { CrawlService } from './crawl-service.ts';
import { loadOldSite } from './old-site-repository.ts';

let former: Server;
let origin: string;
let server: TestServer;
let ines: Person;
beforeAll(async () => {
  former = await serveFormerSite(
    FORMER_SITE.map((page) => ({ path: page.path, html: formerHtml(page) })),
    0,
  );
  const host = `127.0.0.1:${(former.address() as AddressInfo).port}`;
  origin = `http://${host}`;
  server = await startTestServer(new Set([host]));
  ines = await server.person('Ines');
  for (const key of ['old-one', 'old-two', 'old-three', 'old-four']) await server.site(key);
});
afterAll(async () => {
  await server.close();
  former.closeAllConnections();
  former.close();
});

const bring = (site: string, from: unknown, apply = true) => ines.post(`/api/sites/${site}/old-site`, { from, apply });
const file = (bytes: Buffer | string, more = {}) => ({
  kind: 'file',
  name: 'old.csv',
  bytes: Buffer.from(bytes).toString('base64'),
  ...more,
});
const addresses = async (site: string): Promise<string[]> =>
  (await ines.get(`/api/sites/${site}/old-site`)).json.pages.map((page: { address: string }) => page.address);

describe('an inventory', () => {
  it('is brought from a pasted list, with the lines that were not understood', async () => {
    const list = 'https://old.example/a\tFirst page\n\nnonsense\nhttps://old.example/b\n/c\nhttps://old.example/a';
    const seen = await bring('old-one', { kind: 'list', text: list }, false);
    expect(seen.json).toMatchObject({ found: 3, added: 3, updated: 0, faultCount: 2 });
    expect(seen.json.faults.map((one: { line: number }) => one.line)).toEqual([3, 6]);
    expect(await addresses('old-one')).toEqual([]);
    await bring('old-one', { kind: 'list', text: list });
    expect(await addresses('old-one')).toEqual(['/c', 'https://old.example/a', 'https://old.example/b']);
  });

  it('is brought from CSV: columns are guessed by their names, or said, and what is known is kept', async () => {
    const csv =
      'URL;Page views;Page title\nhttps://old.example/a;1 200;\nhttps://old.example/d;7;"Dates; and fees"\nx;1;y\n';
    const seen = await bring('old-one', file(csv), false);
    expect(seen.json).toMatchObject({
      columns: ['URL', 'Page views', 'Page title'],
      taken: { address: 0, visits: 1, title: 2 },
      added: 1,
      updated: 1,
      faults: [{ line: 4 }],
    });
    await bring('old-one', file(csv));
    const { pages } = (await ines.get('/api/sites/old-one/old-site')).json;
    expect(pages.find((page: { address: string }) => page.address.endsWith('/a'))).toMatchObject({
      title: 'First page',
      visits: 1200,
    });
    const said = await bring('old-one', file(csv, { columns: { address: 0 } }), false);
    expect(said.json.sample[1].title).toBe('');
  });

  it.each(['utf16le', 'latin1'] as const)('is read in %s', async (encoding) => {
    const csv = 'address,title\nhttps://old.example/u,Gebühren\n';
    const seen = await bring('old-one', file(Buffer.from(csv, encoding)), false);
    expect(seen.json.sample[0].title).toBe('Gebühren');
  });

  it('is brought from a sitemap: a file, a packed one, an index, or its address', async () => {
    const urls = `<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"><url><loc>https://old.example/x?a=1&amp;b=2</loc></url></urlset>`;
    const plain = await bring('old-two', file(urls), false);
    expect(plain.json.sample[0].address).toBe('https://old.example/x?a=1&b=2');
    expect((await bring('old-two', file(gzipSync(urls)), false)).json.found).toBe(1);
    const index = `<sitemapindex><sitemap><loc>${origin}/sitemap.xml</loc></sitemap></sitemapindex>`;
    expect((await bring('old-two', file(index), false)).json.found).toBe(60);
    expect((await bring('old-two', { kind: 'address', address: `${origin}/sitemap.xml` }, false)).json.found).toBe(60);
  });

  it.each([
    ['entities that grow', '<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a "aaaa">]><urlset/>', 'file-unreadable'],
    ['a packed file that grows', gzipSync(Buffer.alloc(60_000_000, 'a')), 'file-too-large'],
    ['XML that breaks off', '<urlset><url><loc>https://old.example/', 'file-unreadable'],
    ['another kind of XML', '<?xml version="1.0"?><rss></rss>', 'file-unreadable'],
    [
      'a quotation mark that is never closed',
      'address,title\nhttps://old.example/,"Open\nnext,row\n',
      'file-unreadable',
    ],
    ['a broken packed file', Buffer.from([0x1f, 0x8b, 8, 0, 1, 2, 3]), 'file-unreadable'],
  ])('refuses %s, with the line, and brings nothing', async (_, bytes, code) => {
    const answer = await bring('old-two', file(bytes));
    expect(answer.json.code).toBe(code);
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(answer.status).toBeLessThan(500);
    if (code === 'file-unreadable') expect(answer.json.detail).toMatch(/line \d+/);
    expect(await addresses('old-two')).toEqual([]);
  });

  it('refuses an address that is not in the public net', async () => {
    const answer = await bring('old-two', { kind: 'address', address: 'http://169.254.169.254/sitemap.xml' });
    expect([answer.status, answer.json.code]).toEqual([422, 'address-unreadable']);
  });

  it('lets go of pages', async () => {
    await ines.post('/api/sites/old-one/old-site/removals', { addresses: ['/c'] });
    expect(await addresses('old-one')).not.toContain('/c');
    await ines.post('/api/sites/old-one/old-site/removals', { addresses: 'all' });
    expect(await addresses('old-one')).toEqual([]);
  });
});

describe('a crawl', () => {
  const state = async (site: string) => (await ines.get(`/api/sites/${site}/crawl`)).json.crawl;
  const inventory = async (site: string) => {
    const { pages } = (await loadOldSite(server.database, toSiteKey(site)))!;
    return pages.map((page) => [page.address, page.title, page.words, page.linksIn, page.linksOut, page.status]);
  };

  it('reads all that can be reached, obeys robots.txt, and says what it left out', async () => {
    await ines.post('/api/sites/old-three/crawl', { start: `${origin}/`, pauseMs: 0 });
    await until('the crawl is done', async () => (await state('old-three')).state === 'done', 30_000);
    const pages = await inventory('old-three');
    // All of its pages, and two addresses that lead to the first of them.
    expect(pages).toHaveLength(FORMER_SITE.length + 2);
    const { faults } = (await ines.get('/api/sites/old-three/crawl')).json;
    expect(
      Object.fromEntries(
        faults.map((one: { address: string; fault: string }) => [one.address.replace(origin, ''), one.fault]),
      ),
    ).toEqual({
      '/intern/login.php': 'robots.txt asks not to read it',
      '/calendar.php?month=1': 'robots.txt asks not to read it',
      '/gone-long-ago.html': 'It answers with 404',
      '/downloads/prospectus.pdf': 'It is no page but application/pdf',
    });
    const front = pages.find(([address]) => address === `${origin}/index.html`)!;
    expect(front[3]).toBeGreaterThan(100);
  });

  it('that is broken off with its process is taken up by the next one, and ends with the same inventory', async () => {
    const library = new LibraryService({ database: server.database, store: server.store, now: () => new Date() });
    const files = { kinds: [], largest: 0 };
    const process = () => {
      const crawls = new CrawlService(server.database, library, () => new Date(), new Set([new URL(origin).host]));
      const queue = new PostgresQueue(server.url, { crawl: crawls.run }, () => undefined);
      crawls.useQueue(queue);
      return { crawls, queue };
    };
    const first = process();
    await first.crawls.start(toSiteKey('old-four'), { start: `${origin}/`, mostPages: 2000, pauseMs: 5, files });
    await until('some of it is read', async () => (await state('old-four')).read > 20, 20_000);
    await first.queue.stop();
    const broken = await state('old-four');
    expect(broken.state).toBe('running');
    expect(broken.read).toBeLessThan(FORMER_SITE.length);
    const second = process();
    await second.crawls.takeUp();
    await until('the crawl is done', async () => (await state('old-four')).state === 'done', 30_000);
    await second.queue.stop();
    expect(await inventory('old-four')).toEqual(await inventory('old-three'));
  });

  it('can be stopped, gone on with, and is one at a time', async () => {
    await ines.post('/api/sites/old-one/crawl', { start: `${origin}/`, pauseMs: 50 });
    const second = await ines.post('/api/sites/old-one/crawl', { start: `${origin}/` });
    expect(second.json.code).toBe('crawl-running');
    await until('a page is read', async () => (await state('old-one')).read > 0, 20_000);
    expect((await ines.post('/api/sites/old-one/crawl/stop', undefined)).json.crawl.state).toBe('stopped');
    const { read } = await state('old-one');
    expect((await ines.post('/api/sites/old-one/crawl/resume', undefined)).json.crawl.state).toBe('running');
    await until('it goes on', async () => (await state('old-one')).read > read + 2, 20_000);
    await ines.post('/api/sites/old-one/crawl/stop', undefined);
  });

  it('fails with the reason where nothing can be read', async () => {
    await ines.post('/api/sites/old-two/crawl', { start: 'http://192.168.7.7/' });
    await until('it has failed', async () => (await state('old-two')).state === 'failed', 20_000);
    expect((await state('old-two')).why).toMatch(/not in the public net/);
    // What got no answer is not lost: it waits for the crawl to go on.
    expect(await state('old-two')).toMatchObject({ read: 0, waiting: 1, left: 0 });
  });
});
