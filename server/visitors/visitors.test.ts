import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site('pq');
  await server.site('other');
  await ines.operations('pq', { name: 'audience.add', audience: 'staff', title: 'Staff' });
});
afterAll(() => server.close());

const given = { name: 'Bram', email: 'bram@home.example', password: 'tar-and-oakum', audiences: ['staff'] };
const list = async () => (await ines.get('/api/sites/pq/visitors')).json.visitors;

describe('visitors', () => {
  it('are made, listed, changed and removed, without their passwords', async () => {
    const made = await ines.post('/api/sites/pq/visitors', given);
    expect(made.json).toMatchObject({ name: 'Bram', audiences: ['staff'], isSuspended: false, lastSignInAt: null });
    expect(made.text).not.toMatch(/password|tar-and-oakum/);
    await ines.send('PUT', `/api/sites/pq/visitors/${made.json.id}`, { isSuspended: true, audiences: [] });
    expect(await list()).toEqual([{ ...made.json, isSuspended: true, audiences: [] }]);
    expect((await ines.send('DELETE', `/api/sites/pq/visitors/${made.json.id}`)).status).toBe(200);
    expect(await list()).toEqual([]);
  });

  it('have one account for one mail address of a site, and belong to audiences that there are', async () => {
    await ines.post('/api/sites/pq/visitors', given);
    const again = await ines.post('/api/sites/pq/visitors', { ...given, email: 'BRAM@home.example' });
    expect([again.status, again.json.code]).toEqual([409, 'visitor-exists']);
    const elsewhere = await ines.post('/api/sites/other/visitors', { ...given, audiences: [] });
    expect(elsewhere.status).toBe(200);
    const unknown = await ines.post('/api/sites/other/visitors', { ...given, email: 'x@home.example' });
    expect([unknown.status, unknown.json.code]).toEqual([404, 'audience-unknown']);
    const [bram] = await list();
    const byOther = await ines.send('PUT', `/api/sites/other/visitors/${bram.id}`, { isSuspended: true });
    expect(byOther.json.code).toBe('visitor-unknown');
    expect((await ines.send('DELETE', `/api/sites/other/visitors/${bram.id}`)).json.code).toBe('visitor-unknown');
  });

  it('are no accounts of the workbench', async () => {
    const answer = await ines.post('/api/session', { email: given.email, password: given.password });
    expect(answer.json.code).toBe('sign-in-failed');
  });
});
