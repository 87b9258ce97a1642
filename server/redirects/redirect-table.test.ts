import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site('quay');
  await ines.operations(
    'quay',
    ...[
      ['home', 'Home'],
      ['visit', 'Visit'],
    ].map(([page, title]) => ({ name: 'page.add', page, place: { parent: null }, title: { en: title } })),
  );
  await ines.post('/api/sites/quay/releases', { pages: 'all' });
});
afterAll(() => server.close());

/** What visitors get at an address: the status, and where it leads. */
const visit = async (path: string) => {
  const { status, headers } = await server.live(`/quay${path}`);
  const to = headers.get('location');
  return to === null ? `${status}` : `${status} ${to}`;
};

describe('a table of redirects', () => {
  it('is read with what each line leads to and what is wrong; nothing is written', async () => {
    const { json, status } = await ines.post('/api/sites/quay/redirects/table', {
      text: 'from,to\n/find-us,/visit\n/fair-1999,\n/tide-table,https://tides.example/\n/visit,/home\n/where,/nowhere\n',
    });
    expect(status).toBe(200);
    expect(json.rows.map((row: { destination: unknown }) => row.destination)).toEqual([
      { page: 'visit' },
      'gone',
      { url: 'https://tides.example/' },
      null,
      null,
    ]);
    expect(json.rows[3]).toMatchObject({ line: 5, fault: 'A page has this address.' });
    expect(json.rows[4]).toMatchObject({ line: 6, fault: 'No page has the address /nowhere.' });
    expect(await visit('/find-us')).toBe('404');
  });

  it('leads visitors once its lines are made and live, in one hop, and to 410 where they say gone', async () => {
    const text = 'from,to\n/find-us,/visit\n/fair-1999,\n/tide-table,https://tides.example/\n/old/*,/visit\n';
    const { json } = await ines.post('/api/sites/quay/redirects/table', { text });
    const made = await ines.operations(
      'quay',
      ...json.rows.map(({ from, destination }: { from: string; destination: unknown }, n: number) => ({
        name: 'redirect.add',
        redirect: `brought${n}`,
        from,
        to: destination,
      })),
    );
    expect(made.status, made.text).toBe(200);
    expect(await visit('/find-us')).toBe('404');
    await ines.post('/api/sites/quay/releases', { pages: [], settings: ['redirects'] });
    await until('the redirects are there', async () => (await visit('/find-us')).startsWith('301'));
    expect(await visit('/find-us')).toBe('301 /quay/visit');
    expect(await visit('/fair-1999')).toBe('410');
    expect(await visit('/tide-table')).toBe('301 https://tides.example/');
    expect(await visit('/old/harbour/plan')).toBe('301 /quay/visit');
    expect(await visit('/visit')).toBe('200');
  });

  it('that is no table, or too long, is answered with what is wrong', async () => {
    const broken = await ines.post('/api/sites/quay/redirects/table', { text: 'find-us visit' });
    expect(broken.json.rows).toMatchObject([{ line: 1, destination: null }]);
    expect((await ines.post('/api/sites/quay/redirects/table', { words: 'x' })).status).toBe(422);
    expect((await ines.post('/api/sites/nowhere/redirects/table', { text: 'from,to' })).status).toBe(404);
  });
});
