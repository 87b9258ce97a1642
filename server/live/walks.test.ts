import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site('pq');
  await server.site('other');
  await ines.operations(
    'pq',
    { name: 'audience.add', audience: 'staff', title: 'Staff' },
    { name: 'page.add', page: 'home', place: { parent: null }, title: { en: 'Home' } },
    { name: 'page.add', page: 'book', place: { parent: null }, title: { en: 'Handbook' }, access: { only: ['staff'] } },
    { name: 'page.add', page: 'fire', place: { parent: 'book' }, title: { en: 'Fire' } },
    {
      name: 'page.add',
      page: 'spring',
      place: { parent: null },
      title: { en: 'Spring' },
      access: { from: '2030-03-01T08:00:00Z' },
    },
  );
});
afterAll(() => server.close());

const start = async (given: object = {}) =>
  ines.post('/api/sites/pq/walks', { isDraft: true, who: { audiences: ['staff'] }, at: null, ...given });
/** The page of a walk; `address` is what the API gave. */
const page = (address: string, path = '', cookie?: string) =>
  server.live(new URL(address).pathname + path.slice(1), cookie ? { Cookie: cookie } : {});

describe('a walk', () => {
  it('shows the draft as an audience has it, with who one is being and why, and stays within itself', async () => {
    const { address } = (await start()).json;
    const book = await page(address, '/handbook');
    expect([book.status, book.headers.get('cache-control'), book.headers.get('x-robots-tag')]).toEqual([
      200,
      'no-store',
      'noindex',
    ]);
    expect(book.text).toContain('<strong>As Staff</strong>, the draft, now. Allowed by the page itself (only Staff).');
    const { pathname } = new URL(address);
    for (const [, href] of book.text.matchAll(/href="(\/pq[^"]*)"/g))
      expect(href!.startsWith(pathname.slice(0, -1))).toBe(true);
    expect(book.headers.get('content-security-policy')).toContain(`frame-ancestors ${server.origin}`);
    expect((await server.live('/pq/handbook')).status).toBe(404);
  });

  it('shows what others do not get, and says which rule decided it', async () => {
    const { address } = (await start({ who: { audiences: ['everyone'] } })).json;
    const fire = await page(address, '/handbook/fire');
    expect(fire.status).toBe(404);
    expect(fire.text).toContain('As Everyone');
    expect(fire.text).toContain('Blocked by ‘Handbook’: only Staff.');
    expect((await page(address)).text).not.toMatch(/>Handbook</);
  });

  it('goes to another moment, and to a person', async () => {
    const [before, after] = [await start(), await start({ at: '2030-03-02T00:00:00Z' })];
    expect((await page(before.json.address, '/spring')).status).toBe(404);
    expect((await page(after.json.address, '/spring')).status).toBe(200);
    const bram = { name: 'Bram', email: 'bram@home.example', password: 'tar-and-oakum', audiences: ['staff'] };
    const { id } = (await ines.post('/api/sites/pq/visitors', bram)).json;
    const asBram = (await start({ who: { visitor: id } })).json;
    expect((await page(asBram.address, '/handbook')).text).toContain('As Bram');
    const wrong = await start({ who: { visitor: '00000000-0000-4000-8000-000000000000' } });
    expect(wrong.json.code).toBe('visitor-unknown');
  });

  it('goes through what is live, which is not what is drafted', async () => {
    await ines.post('/api/sites/pq/releases', { pages: ['home', 'book'], retire: [] });
    await ines.operations('pq', { name: 'page.set', page: 'home', fields: { title: { en: 'Welcome' } } });
    const [draft, live] = [await start(), await start({ isDraft: false })];
    expect((await page(draft.json.address)).text).toContain('<h1>Welcome</h1>');
    expect((await page(live.json.address)).text).toContain('<h1>Home</h1>');
  });

  it('is given to nobody by a token that is made up, changed, run out, or of another site', async () => {
    const { address } = (await start()).json;
    const token = new URL(address).pathname.split('/')[3]!;
    for (const wrong of [`${token}a`, token.slice(1), token.toLowerCase(), '', 'a.', "' OR ''='"])
      expect([wrong, (await server.live(`/pq/~walk/${encodeURIComponent(wrong)}/`)).status]).toEqual([
        wrong,
        wrong === '' ? 404 : 410,
      ]);
    expect((await server.live(`/other/~walk/${token}/`)).status).toBe(410);
    expect((await page(address)).status).toBe(200);
    await server.database('walk').update({ expires_at: new Date(Date.now() - 1) });
    expect((await page(address)).status).toBe(410);
  });

  it('18: ends when whoever started it signs out, and names nobody in its address', async () => {
    const marek = await server.person('Marek');
    const walk = { isDraft: true, who: { audiences: ['staff'] }, at: null };
    const { address, who } = (await marek.post('/api/sites/pq/walks', walk)).json;
    expect(who).toBe('Staff');
    expect(address).toMatch(/\/~walk\/[\w-]{24}\/$/);
    expect((await page(address)).status).toBe(200);
    await marek.send('DELETE', '/api/session');
    expect((await page(address)).status).toBe(410);
  });

  it('18: ends when its visitor is suspended, and has the audiences that they have now', async () => {
    const cleo = { name: 'Cleo', email: 'cleo@home.example', password: 'tar-and-oakum', audiences: ['staff'] };
    const { id } = (await ines.post('/api/sites/pq/visitors', cleo)).json;
    const { address } = (await start({ who: { visitor: id } })).json;
    expect((await page(address, '/handbook')).status).toBe(200);
    await ines.send('PUT', `/api/sites/pq/visitors/${id}`, { audiences: [] });
    expect((await page(address, '/handbook')).status).toBe(404);
    await ines.send('PUT', `/api/sites/pq/visitors/${id}`, { isSuspended: true });
    expect((await page(address)).status).toBe(410);
  });

  it('is of somebody who is signed in where it is in the place of a visitor, who may be in no audience', async () => {
    const only = { only: ['signedOut'] };
    await ines.operations('pq', {
      name: 'page.add',
      page: 'hello',
      place: { parent: null },
      title: { en: 'Hello' },
      access: only,
    });
    const dot = { name: 'Dot', email: 'dot@home.example', password: 'tar-and-oakum', audiences: [] };
    const { id } = (await ines.post('/api/sites/pq/visitors', dot)).json;
    const asDot = (await start({ who: { visitor: id } })).json;
    expect((await page(asDot.address, '/hello')).status).toBe(404);
    const asNobody = (await start({ who: { audiences: ['everyone'] } })).json;
    expect((await page(asNobody.address, '/hello')).status).toBe(200);
  });

  it('18: does not give a reader what a passphrase guards', async () => {
    const reader = await server.colleague('Rita', 'pq', 'reader');
    const walk = { isDraft: true, who: { audiences: ['everyone'] }, at: null };
    expect((await reader.post('/api/sites/pq/walks', { ...walk, hasPassphrases: true })).json.code).toBe('not-allowed');
    expect((await reader.post('/api/sites/pq/walks', walk)).status).toBe(200);
  });

  it('is not for whoever is not signed in to the workbench', async () => {
    const nobody = await server.person('Nobody');
    nobody.cookie = '';
    expect(
      (await nobody.post('/api/sites/pq/walks', { isDraft: true, who: { audiences: [] }, at: null })).json.code,
    ).toBe('not-signed-in');
  });
});
