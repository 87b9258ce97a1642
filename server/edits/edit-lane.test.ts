import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site('lane');
});
afterAll(() => server.close());

const PATH = '/api/sites/lane/operations';
const add = (page: string) => ({
  operations: [{ name: 'page.add', page, place: { parent: null }, title: { en: page } }],
});

/** The same body twice: by the lane, and with a charset named, which leaves it to Express. */
async function bothWays(body: unknown, headers: Record<string, string> = {}) {
  await ines.get('/api/session');
  const byLane = await ines.post(PATH, body, headers);
  const byExpress = await ines.post(PATH, body, { 'Content-Type': 'application/json; charset=utf-8', ...headers });
  return [byLane, byExpress] as const;
}

describe('the lane for edits', () => {
  it('saves an edit and answers as Express does', async () => {
    await ines.get('/api/session');
    const byLane = await ines.post(PATH, add('a'));
    const byExpress = await ines.post(PATH, add('b'), { 'Content-Type': 'application/json; charset=utf-8' });
    expect([byLane.status, byExpress.status]).toEqual([200, 200]);
    expect(byExpress.json.revision).toBe(byLane.json.revision + 1);
    expect(Object.keys(byLane.json)).toEqual(Object.keys(byExpress.json));
    for (const header of ['content-type', 'cache-control', 'content-security-policy', 'x-content-type-options'])
      expect(byLane.headers.get(header)).toBe(byExpress.headers.get(header));
  });

  it.each([
    ['a body that is not JSON', 400, '{"operations": ['],
    ['a body of another shape', 422, { operations: 'all' }],
    ['a page that is there already', 409, add('a')],
  ])('refuses %s with the same problem', async (_what, status, body) => {
    const [byLane, byExpress] = await bothWays(body);
    expect(byLane.status).toBe(status);
    expect([byLane.status, byLane.json.code]).toEqual([byExpress.status, byExpress.json.code]);
    expect(byLane.headers.get('content-type')).toBe(byExpress.headers.get('content-type'));
  });

  it('lets nobody in whom Express would not', async () => {
    expect((await ines.post(PATH, add('c'), { Origin: 'http://elsewhere.example' })).status).toBe(403);
    expect((await ines.post('/api/sites/Not%20a%20key/operations', add('c'))).status).toBe(404);
    const reader = await server.colleague('Rowan', 'lane', 'reader');
    await reader.get('/api/session');
    expect((await reader.post(PATH, add('c'))).status).toBe(403);
    const signed = ines.cookie;
    ines.cookie = signed.slice(0, -1) + (signed.endsWith('A') ? 'B' : 'A');
    expect((await ines.post(PATH, add('c'))).status).toBe(401);
    ines.cookie = signed;
    await ines.send('DELETE', '/api/session');
    ines.cookie = signed;
    expect((await ines.post(PATH, add('c'))).status).toBe(401);
  });
});
