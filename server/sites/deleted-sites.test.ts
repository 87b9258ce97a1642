import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DAYS_KEPT, type DeletedSite } from '#contract/deleted-sites.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';
import { eraseOldSites } from './deleted-site-repository.ts';

let server: TestServer;
let ines: Person;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
});
afterAll(() => server.close());

const add = (page: string) => ({ name: 'page.add', page, place: { parent: null }, title: { en: page } });
async function madeSite(key: string): Promise<void> {
  expect((await ines.post('/api/sites', { key, name: 'The Quay' })).status).toBe(200);
  await ines.operations(key, add('home'), add('visit'));
  await ines.post(`/api/sites/${key}/releases`, { pages: 'all' });
  await until('it is live', async () => (await server.live(`/${key}/visit`)).status === 200);
}
const remove = (key: string, name = 'The Quay') => ines.post(`/api/sites/${key}/deletion`, { name });
const deleted = async (key: string) =>
  ((await ines.get('/api/deleted-sites')).json.sites as DeletedSite[]).filter((one) => one.key === key);

describe('a site that is deleted', () => {
  it('is gone for everybody when the answer is there, and stays where another name was typed', async () => {
    await madeSite('one');
    const wrong = await remove('one', 'the quay');
    expect([wrong.status, wrong.json.code]).toEqual([409, 'name-differs']);
    expect((await ines.get('/api/sites/one/tree')).status).toBe(200);
    const { json } = await remove('one');
    // Two of its own, and the six of its practice page.
    expect(json).toMatchObject({ key: 'one', name: 'The Quay', pages: 8, deletedBy: 'Ines' });
    expect((await server.live('/one/visit')).status).toBe(404);
    expect((await ines.get('/api/sites/one/tree')).status).toBe(404);
    expect((await ines.operations('one', add('later'))).status).toBe(404);
    expect((await ines.get('/api/sites')).json.sites.map((site: { key: string }) => site.key)).not.toContain('one');
    expect((await server.live('/robots.txt')).text).not.toContain('one');
    expect((await ines.get(`/api/sites/${encodeURIComponent(json.id)}/tree`)).status).toBe(404);
    expect((await server.live(`/${json.id}/visit`)).status).toBe(404);
  });

  it('comes back as it was, under another key and name where that is wanted, with its history', async () => {
    await madeSite('two');
    const archive = (await ines.get('/api/sites/two/archive')).json;
    const { json } = await remove('two');
    await madeSite('two');
    const taken = await ines.post(`/api/deleted-sites/${json.id}/return`, { key: 'two', name: 'The Quay' });
    expect([taken.status, taken.json.code]).toEqual([409, 'site-exists']);
    const back = await ines.post(`/api/deleted-sites/${json.id}/return`, { key: 'three', name: 'The other quay' });
    expect([back.status, back.json]).toEqual([200, expect.objectContaining({ key: 'three', name: 'The other quay' })]);
    const again = (await ines.get('/api/sites/three/archive')).json;
    expect(again.history.length).toBe(archive.history.length + 1);
    expect(again.site.nodes).toEqual(archive.site.nodes);
    await until('visitors have it', async () => (await server.live('/three/visit')).status === 200);
    await ines.operations('two', { name: 'page.remove', page: 'visit' });
    expect((await ines.get('/api/sites/three/tree')).text).toContain('visit');
    expect(await deleted('two')).toEqual([]);
  });

  it('answers no link to its plan either, until it is back', async () => {
    await madeSite('nine');
    const { path } = (await ines.post('/api/sites/nine/shares', { name: 'Governors', days: 14 })).json;
    const statusOf = async (at: string) => (await fetch(`${server.origin}/api${path}${at}`)).status;
    const asked = async () => [await statusOf(''), await statusOf('/tree')];
    expect(await asked()).toEqual([200, 200]);
    const { id } = (await remove('nine')).json;
    expect(await asked()).toEqual([404, 404]);
    await ines.post(`/api/deleted-sites/${id}/return`, { key: 'nine', name: 'The Quay' });
    expect(await asked()).toEqual([200, 200]);
  });

  it('is kept for thirty days, or until it is deleted for good', async () => {
    await madeSite('four');
    const { json } = await remove('four');
    const after = (days: number) => new Date(Date.parse(json.deletedAt) + days * 86_400_000);
    await eraseOldSites(server.database, after(DAYS_KEPT - 1));
    expect(await deleted('four')).toHaveLength(1);
    expect(Date.parse((await deleted('four'))[0]!.keptUntil)).toBe(after(DAYS_KEPT).getTime());
    await eraseOldSites(server.database, after(DAYS_KEPT + 1));
    expect(await deleted('four')).toHaveLength(0);
    await madeSite('five');
    const { id } = (await remove('five')).json;
    expect((await ines.send('DELETE', `/api/deleted-sites/${id}`)).status).toBe(200);
    expect((await ines.send('DELETE', `/api/deleted-sites/${id}`)).json.code).toBe('deleted-site-unknown');
    expect(await server.database('node').where({ site: id })).toEqual([]);
  });

  it('is for those who may make sites; a site that is there is no deleted one', async () => {
    await madeSite('six');
    const reader = await server.colleague('Rupa', 'six', 'reader');
    expect((await reader.post('/api/sites/six/deletion', { name: 'The Quay' })).status).toBe(403);
    expect((await reader.get('/api/deleted-sites')).status).toBe(403);
    expect((await ines.send('DELETE', '/api/deleted-sites/six')).status).toBe(404);
    expect((await ines.post('/api/deleted-sites/six/return', { key: 'seven', name: 'x' })).status).toBe(404);
    expect((await ines.get('/api/sites/six/tree')).status).toBe(200);
  });

  it('releases nothing that was set for later, until it is back', async () => {
    await madeSite('eight');
    await ines.operations('eight', add('news'));
    const at = new Date(Date.now() + 1500).toISOString();
    const set = await ines.post('/api/sites/eight/scheduled-releases', { pages: 'all', retire: [], at });
    expect(set.status, set.text).toBe(200);
    const { id } = (await remove('eight')).json;
    await new Promise((resolve) => setTimeout(resolve, 2500));
    expect(await server.database('scheduled_release').where({ site: id }).pluck('state')).toEqual(['waiting']);
    await ines.post(`/api/deleted-sites/${id}/return`, { key: 'eight', name: 'The Quay' });
    await until('it is made', async () => (await server.live('/eight/news')).status === 200);
  });
});
