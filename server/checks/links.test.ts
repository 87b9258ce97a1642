import { type Server, createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type TextDocument, contentIdOf } from '#core/model/content.ts';
import { NIGHTLY_LINKS } from './link-service.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
/** A web server outside of the site, and what it was asked for. */
let outside: Server;
let host: string;
const asked: string[] = [];

beforeAll(async () => {
  outside = createServer((request, response) => {
    asked.push(request.url!);
    if (request.url === '/robots.txt') response.end('User-agent: *\nDisallow: /private');
    else if (request.url === '/gone') response.writeHead(410).end();
    else if (request.url === '/moved') response.writeHead(301, { Location: '/here' }).end();
    else if (request.url === '/for-now') response.writeHead(302, { Location: '/here' }).end();
    else if (request.url === '/away') response.writeHead(301, { Location: 'http://10.0.0.1/' }).end();
    else if (request.url === '/broken') response.writeHead(503).end();
    else if (request.url === '/members') response.writeHead(403).end();
    else if (request.url === '/large') response.end('x'.repeat(400_000));
    else response.end('Here');
  });
  await new Promise<void>((resolve) => outside.listen(0, '127.0.0.1', resolve));
  host = `127.0.0.1:${(outside.address() as AddressInfo).port}`;
  server = await startTestServer(new Set([host]));
  ines = await server.person('Ines');
  await server.site('quay');
});
afterAll(async () => {
  await server?.close();
  outside.close();
});

const linked = (words: string, href: string) => ({
  type: 'text',
  text: words,
  marks: [{ type: 'link', attrs: { href } }],
});
const paragraph = (...content: object[]) => ({ type: 'paragraph', content });
const heading = (text: string) => ({ type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text }] });

async function make(texts: Record<string, object[]>) {
  const contents = Object.entries(texts).map(([page, content]) => {
    const document = { type: 'doc', content } as unknown as TextDocument;
    return { page, id: contentIdOf(document), document };
  });
  const done = await ines.post('/api/sites/quay/operations', {
    operations: contents.map(({ page, id }) => ({
      name: 'page.add',
      page,
      place: { parent: null },
      title: { en: page },
      content: id,
    })),
    contents: contents.map(({ id, document }) => ({ id, document })),
  });
  expect(done.status, done.text).toBe(200);
}

describe('links within texts', () => {
  it('lead to pages and to headings of their texts, which visitors find by their anchors', async () => {
    await make({
      home: [paragraph(linked('By boat', 'page:visit#by-boat'), linked('By bus', 'page:visit#by-bus'))],
      visit: [heading('By boat'), heading('By boat & bus <now>'), heading('By boat')],
    });
    const { json } = await ines.get('/api/sites/quay/text-links');
    expect(json).toEqual({
      draft: [
        { page: 'home', to: 'visit', heading: 'by-boat', hasHeading: true },
        { page: 'home', to: 'visit', heading: 'by-bus', hasHeading: false },
      ],
      live: [],
      outside: [],
      draftFaults: [],
      needs: {},
      liveFaults: [],
    });
    await ines.post('/api/sites/quay/releases', { pages: 'all' });
    await until('the site is live', async () => (await server.live('/quay/visit')).status === 200);
    expect((await server.live('/quay/')).text).toContain('<a href="/quay/visit#by-boat">By boat</a>');
    const { text } = await server.live('/quay/visit');
    expect([...text.matchAll(/<h2 id="([^"]+)">/g)].map(([, anchor]) => anchor)).toEqual([
      'by-boat',
      'by-boat-bus-now',
      'by-boat-2',
    ]);
  });
});

describe('links within sections for some', () => {
  it('are found as others are, and words that look like links are none', async () => {
    await server.site('dock');
    const section = (...content: object[]) => ({
      type: 'audienceSection',
      attrs: { only: ['staff'], except: [] },
      content,
    });
    const document = {
      type: 'doc',
      content: [
        paragraph({ type: 'text', text: 'Write page:visit or https://tides.example/ as they stand.' }),
        section(paragraph(linked('The rota', 'page:rota'), linked('Tides', 'https://tides.example/staff'))),
      ],
    } as unknown as TextDocument;
    const id = contentIdOf(document);
    const made = await ines.post('/api/sites/dock/operations', {
      operations: [
        { name: 'audience.add', audience: 'staff', title: 'Staff' },
        { name: 'page.add', page: 'rota', place: { parent: null }, title: { en: 'Rota' } },
        { name: 'page.add', page: 'board', place: { parent: null }, title: { en: 'Board' }, content: id },
      ],
      contents: [{ id, document }],
    });
    expect(made.status, made.text).toBe(200);
    expect((await ines.get('/api/sites/dock/text-links')).json).toEqual({
      draft: [{ page: 'board', to: 'rota', heading: null, hasHeading: true }],
      live: [],
      outside: [{ page: 'board', address: 'https://tides.example/staff' }],
      draftFaults: [],
      needs: {},
      liveFaults: [],
    });
  });
});

describe('what is found in texts', () => {
  const faults = async () => {
    const { draftFaults, liveFaults } = (await ines.get('/api/sites/slip/text-links')).json as Record<string, unknown>;
    return { draftFaults, liveFaults };
  };
  const write = async (page: string, ...content: object[]) => {
    const document = { type: 'doc', content } as unknown as TextDocument;
    const id = contentIdOf(document);
    const set = { name: 'page.set', page, fields: { content: id } };
    const done = await ines.post('/api/sites/slip/operations', { operations: [set], contents: [{ id, document }] });
    expect(done.status, done.text).toBe(200);
  };

  it('is told of the draft and of what is live, and is gone with the text', async () => {
    await server.site('slip');
    await ines.operations('slip', { name: 'page.add', page: 'news', place: { parent: null }, title: { en: 'News' } });
    await write('news', paragraph(linked('here', 'page:news')), { type: 'heading', attrs: { level: 4 } });
    const found = ['empty heading', 'skipped heading', 'link words'].map((fault) => ({ page: 'news', fault }));
    expect(await faults()).toEqual({ draftFaults: found, liveFaults: [] });
    await ines.post('/api/sites/slip/releases', { pages: 'all' });
    expect(await faults()).toEqual({ draftFaults: found, liveFaults: found });
    await write('news', paragraph(linked('The rota', 'page:news')));
    expect(await faults()).toEqual({ draftFaults: [], liveFaults: found });
    await ines.operations('slip', { name: 'page.remove', page: 'news' });
    expect(await faults()).toEqual({ draftFaults: [], liveFaults: found });
  });
});

describe('outside addresses', () => {
  it('are asked in the background, as far as their hosts let programs read, and what is wrong is told', async () => {
    const paths = ['/', '/gone', '/moved', '/for-now', '/away', '/broken', '/members', '/large', '/private'];
    await make({
      links: [
        paragraph(
          ...paths.map((path) => linked(path, `http://${host}${path}`)),
          linked('Inside', 'http://192.168.0.1/router'),
          linked('Mail', 'mailto:ines@school.example'),
        ),
      ],
    });
    await ines.operations('quay', {
      name: 'redirect.add',
      redirect: 'r1',
      from: '/shop',
      to: { url: `http://${host}/shop` },
    });
    const path = '/api/sites/quay/link-look';
    expect((await ines.get(path)).json).toEqual({ state: 'none', addressesRead: 0, addressesKnown: 0, report: null });
    expect((await ines.post(path, undefined)).json.state).toBe('running');
    await until('all were asked', async () => (await ines.get(path)).json.state === 'done', 20_000);
    const { report } = (await ines.get(path)).json;
    expect(report).toMatchObject({ addresses: 11, isWhole: true });
    expect(report.faults).toEqual([
      { address: `http://${host}/broken`, fault: 'no answer', says: 'It answers with 503, a fault of its own.' },
      { address: `http://${host}/gone`, fault: 'missing', says: 'It answers with 410: nothing is there.' },
      { address: `http://${host}/moved`, fault: 'moved', says: `http://${host}/here` },
    ]);
    expect(report.notAsked).toEqual([
      { address: `http://${host}/away`, says: expect.stringContaining('10.0.0.1') },
      { address: `http://${host}/private`, says: 'Its robots.txt asks programs not to read it.' },
      { address: 'http://192.168.0.1/router', says: expect.stringContaining('not in the public net') },
    ]);
    expect(asked).toContain('/shop');
    expect(asked).not.toContain('/private');
    expect(asked.filter((one) => one === '/robots.txt')).toHaveLength(1);
  });

  it('are asked again at night, once they were asked', async () => {
    const { rows } = await server.database.raw(`SELECT cron FROM pgboss.schedule WHERE name = ?`, [NIGHTLY_LINKS]);
    expect(rows).toEqual([{ cron: '0 3 * * *' }]);
    const readAt = async () => (await ines.get('/api/sites/quay/link-look')).json.report.readAt;
    const before = await readAt();
    await server.database.raw(`INSERT INTO pgboss.job (name, data) VALUES (?, '{}')`, [NIGHTLY_LINKS]);
    await until('the night has come', async () => (await readAt()) > before, 20_000);
  });

  it('are asked by editors only', async () => {
    const reader = await server.colleague('Rupa', 'quay', 'reader');
    expect((await reader.post('/api/sites/quay/link-look', undefined)).status).toBe(403);
  });
});
