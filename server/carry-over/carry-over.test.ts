import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { toPageId } from '#core/model/ids.ts';
import { siteAfter } from '#core/testing/random-site.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
const SITE = 'pq';
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  const add = (page: string, title: string, parent: string | null = null) => ({
    name: 'page.add' as const,
    page: toPageId(page),
    place: { parent: parent === null ? null : toPageId(parent) },
    title: { en: title },
  });
  const made = siteAfter([
    add('home', 'Home'),
    add('courses', 'Courses'),
    add('oars', 'Oars and paddles', 'courses'),
    add('fees', 'Fees'),
    add('new', 'Compare the courses', 'courses'),
  ]);
  await server.site(SITE, { ...made, key: SITE as never });
  const text = [
    'https://old.example/courses.php\tOur courses',
    'https://old.example/courses.php?id=3\tOars and paddles',
    'https://old.example/fees_2019.html\tFees 2019',
    'https://old.example/guestbook\tGuestbook',
  ].join('\n');
  await ines.post(`/api/sites/${SITE}/old-site`, { from: { kind: 'list', text }, apply: true });
});
afterAll(() => server.close());

const proposals = async () => (await ines.get(`/api/sites/${SITE}/carry-over`)).json;
const partnerOf = async (page: string): Promise<string | undefined> =>
  (await proposals()).pairs.find((pair: { planned: string }) => pair.planned === page)?.old;
const plan = (page: string, change: object) =>
  ines.operations(SITE, { name: 'page.set', page, fields: { plan: change } });

describe('the carry-over', () => {
  it('proposes pairs with confidence and reasons, matched in a thread of its own', async () => {
    const { pairs, acceptFrom } = await proposals();
    expect(pairs[0]).toMatchObject({ old: 'https://old.example/courses.php?id=3', planned: 'oars', kind: 'one' });
    expect(pairs[0].confidence).toBeGreaterThan(acceptFrom);
    expect(pairs[0].reasons).toContain('same-title');
    expect(await partnerOf('fees')).toBe('https://old.example/fees_2019.html');
  });

  it('does not propose what is decided: accepted, declined, let go, new', async () => {
    await plan('oars', { origin: 'keep', oldAddresses: ['https://old.example/courses.php?id=3'] });
    await plan('new', { origin: 'new' });
    await ines.operations(
      SITE,
      { name: 'oldPage.decide', address: 'https://old.example/fees_2019.html', fields: { declined: ['fees'] } },
      { name: 'oldPage.decide', address: 'https://old.example/guestbook', fields: { letGo: 'gone' } },
    );
    expect(await partnerOf('oars')).toBeUndefined();
    expect(await partnerOf('new')).toBeUndefined();
    expect(await partnerOf('fees')).not.toBe('https://old.example/fees_2019.html');
    expect((await proposals()).pairs.map((pair: { old: string }) => pair.old)).not.toContain(
      'https://old.example/guestbook',
    );
  });

  it('makes redirects when the site goes live: to the page, wherever it then stands, and 410 for what is gone', async () => {
    const before = await server.live('/pq/courses.php?id=3');
    expect(before.status).toBe(404);
    await ines.post(`/api/sites/${SITE}/releases`, { pages: 'all' });
    await until('the release is there', async () => (await server.live('/pq/')).status === 200);
    const moved = await server.live('/pq/courses.php?id=3');
    expect([moved.status, moved.headers.get('location')]).toEqual([301, '/pq/courses/oars-and-paddles']);
    expect((await server.live('/pq/guestbook')).status).toBe(410);
    expect((await server.live('/pq/guestbook?from=mail')).status).toBe(410);
    expect((await server.live('/pq/courses.php?id=4')).status).toBe(404);
    // An address in use is never redirected.
    await plan('fees', { oldAddresses: ['/courses'] });
    await ines.post(`/api/sites/${SITE}/releases`, { pages: ['fees'] });
    expect((await server.live('/pq/courses')).status).toBe(200);
  });

  it('is taken along as a table of redirects, and as rules', async () => {
    const csv = await ines.get(`/api/sites/${SITE}/exports/redirects.csv`);
    expect(csv.headers.get('content-disposition')).toContain('pq-redirects.csv');
    expect(csv.text).toContain(
      `https://old.example/courses.php?id=3,${server.liveOrigin}/pq/courses/oars-and-paddles,301`,
    );
    expect(csv.text).toContain('https://old.example/guestbook,,410');
    expect((await ines.get(`/api/sites/${SITE}/exports/redirects.nginx`)).text).toContain('"/guestbook" 1;');
    expect((await ines.get(`/api/sites/${SITE}/exports/redirects.apache`)).text).toContain('[G,L]');
    expect((await ines.get(`/api/sites/${SITE}/exports/pictures`)).json.code).toBe('format-unknown');
  });
});
