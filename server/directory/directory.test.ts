import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { toSiteKey } from '#core/model/ids.ts';
import { DirectoryService, NIGHTLY_SYNC } from './directory-service.ts';
import { putStandInGroups, putStandInPerson, removeStandInPerson } from '../standins/directory-repository.ts';
import { outbox } from '../standins/outbox-repository.ts';
import { SiteCache } from '../sites/site-cache.ts';
import { Letters } from '../visitors/letters.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';
import { readDirectory } from './scim-client.ts';

let server: TestServer;
let ines: Person;
const site = toSiteKey('pq');

const put = (name: string, groups: string[], is_active = true) =>
  putStandInPerson(server.database, {
    id: `d-${name}`,
    name,
    email: `${name.toLowerCase()}@home.example`,
    is_active,
    groups,
  });

beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site('pq');
  await ines.operations(
    'pq',
    { name: 'audience.add', audience: 'staff', title: 'Staff' },
    { name: 'audience.add', audience: 'students', title: 'Students' },
    { name: 'page.add', page: 'home', place: { parent: null }, title: { en: 'Home' } },
  );
  await putStandInGroups(server.database, [
    { id: 'tutors', name: 'Tutors' },
    { id: 'year', name: 'Year course' },
    { id: 'choir', name: 'Choir' },
  ]);
});
afterAll(() => server.close());

beforeEach(async () => {
  await server.database('visitor').delete();
  await server.database('standin_person').delete();
  await server.database('outbox').delete();
  await set({ tutors: 'staff', year: 'students' });
});

const set = (groupAudiences: object, isNightly = false) =>
  ines.send('PUT', '/api/sites/pq/directory', { groupAudiences, isNightly });
const sync = async (apply: boolean) => (await ines.post('/api/sites/pq/directory/syncs', { apply })).json;
const visitors = async () =>
  (await ines.get('/api/sites/pq/visitors')).json.visitors as {
    id: string;
    name: string;
    audiences: string[];
    isSuspended: boolean;
    isFromDirectory: boolean;
  }[];

/** A service that reads another directory, or none. */
const serviceFor = (access: { url: string; token: string } | null) =>
  new DirectoryService({
    database: server.database,
    cache: new SiteCache(server.database),
    letters: new Letters(server.database, outbox, () => new Date()),
    liveOrigin: server.liveOrigin,
    access,
    now: () => new Date(),
  });

describe('the directory', () => {
  it('is shown by its groups, with how many are in each', async () => {
    await put('Ana', ['tutors', 'choir']);
    await put('Ben', ['tutors'], false);
    const { json } = await ines.get('/api/sites/pq/directory');
    expect(json).toMatchObject({
      isConnected: true,
      fault: null,
      groupAudiences: { tutors: 'staff', year: 'students' },
    });
    expect(json.groups).toEqual([
      { id: 'choir', name: 'Choir', members: 1 },
      { id: 'tutors', name: 'Tutors', members: 1 },
      { id: 'year', name: 'Year course', members: 0 },
    ]);
  });

  it('is read to its end, part by part', async () => {
    for (let n = 0; n < 230; n++) await put(`P${n}`, ['year']);
    const { people } = await readDirectory({ url: `${server.directoryOrigin}/scim/v2`, token: 'test' });
    expect(new Set(people.map(({ id }) => id)).size).toBe(230);
  });

  it('changes nothing while it is looked at, and then makes accounts with a letter each', async () => {
    await put('Ana', ['tutors']);
    await put('Cleo', ['choir']);
    expect((await sync(false)).items).toEqual([
      { kind: 'made', name: 'Ana', email: 'ana@home.example', gains: ['staff'], loses: [], isTakenOver: false },
    ]);
    expect(await visitors()).toEqual([]);
    await sync(true);
    expect(await visitors()).toMatchObject([{ name: 'Ana', audiences: ['staff'], isFromDirectory: true }]);
    const { mails } = (await ines.get('/api/outbox')).json;
    expect(mails).toHaveLength(1);
    expect(mails[0]).toMatchObject({ to: 'ana@home.example' });
    expect((await ines.get('/api/sites/pq/directory')).json.last).toMatchObject({ by: 'Ines', made: 1, fault: null });
    expect((await sync(true)).items).toEqual([]);
  });

  it('suspends who has left, and leaves in peace whom the manager let in again by hand', async () => {
    await put('Ana', ['tutors']);
    await sync(true);
    await removeStandInPerson(server.database, 'd-Ana');
    expect((await sync(true)).items).toMatchObject([{ kind: 'suspended', loses: ['staff'] }]);
    const [ana] = await visitors();
    expect(ana).toMatchObject({ isSuspended: true, audiences: [] });
    await put('Ana', ['year']);
    expect((await sync(true)).items).toMatchObject([{ kind: 'restored', gains: ['students'] }]);
    await ines.send('PUT', `/api/sites/pq/visitors/${ana!.id}`, { isSuspended: true });
    expect((await sync(true)).items).toEqual([]);
    expect((await visitors())[0]!.isSuspended).toBe(true);
  });

  it('gives no audience that the site does not have, and is for those who may edit', async () => {
    const wrong = await set({ tutors: 'nobody' });
    expect([wrong.status, wrong.json.code]).toEqual([404, 'audience-unknown']);
    const reader = await server.colleague('Rea', 'pq', 'reader');
    expect((await reader.get('/api/sites/pq/directory')).status).toBe(403);
    expect((await reader.get('/api/outbox')).status).toBe(403);
  });

  it('says why it cannot be read, and changes nothing', async () => {
    await put('Ana', ['tutors']);
    const shut = serviceFor({ url: `${server.directoryOrigin}/scim/v2`, token: 'wrong' });
    await expect(shut.sync(site, 'Ines')).rejects.toThrow('it answered 401');
    const gone = serviceFor({ url: 'http://127.0.0.1:9/scim/v2', token: 'test' });
    await expect(gone.look(site)).rejects.toThrow('it did not answer');
    const other = serviceFor({ url: `${server.liveOrigin}`, token: 'test' });
    await expect(other.look(site)).rejects.toThrow('cannot be read');
    await expect(serviceFor(null).look(site)).rejects.toThrow('SPUR_DIRECTORY_URL');
    expect(await visitors()).toEqual([]);
  });
});

describe('at night', () => {
  it('the sites that ask for it are synchronised, by the queue', async () => {
    await put('Ana', ['tutors']);
    await set({ tutors: 'staff' }, true);
    const { rows } = await server.database.raw(`SELECT cron FROM pgboss.schedule WHERE name = ?`, [NIGHTLY_SYNC]);
    expect(rows).toEqual([{ cron: '30 2 * * *' }]);
    await server.database.raw(`INSERT INTO pgboss.job (name, data) VALUES (?, '{}')`, [NIGHTLY_SYNC]);
    await until('the night has come', async () => (await visitors()).length === 1);
    expect((await ines.get('/api/sites/pq/directory')).json.last).toMatchObject({ by: 'the night', made: 1 });
  });

  it('a directory that is empty by mistake shuts nobody out', async () => {
    for (let n = 0; n < 12; n++) await put(`P${n}`, ['year']);
    await set({ year: 'students' }, true);
    await sync(true);
    await server.database('standin_person').delete();
    await serviceFor({ url: `${server.directoryOrigin}/scim/v2`, token: 'test' }).syncAtNight();
    expect((await visitors()).filter(({ isSuspended }) => isSuspended)).toEqual([]);
    const { last } = (await ines.get('/api/sites/pq/directory')).json;
    expect(last.fault).toContain('would suspend 12 accounts; the nightly run suspends at most 5');
    expect((await sync(true)).items).toHaveLength(12);
  });
});

describe('the stand-in', () => {
  const post = (fields: Record<string, string>, origin = server.directoryOrigin) =>
    fetch(`${server.directoryOrigin}/`, {
      method: 'POST',
      headers: { Origin: origin, 'Content-Type': 'application/x-www-form-urlencoded' },
      body: new URLSearchParams(fields),
      redirect: 'manual',
    });

  it('takes somebody new, changes and removes them on its page, and from no other page', async () => {
    await post({ name: 'Ana <b>', email: 'ana@home.example', group: 'tutors', active: 'on' });
    expect((await sync(false)).items).toMatchObject([{ kind: 'made', name: 'Ana <b>' }]);
    const page = await (await fetch(server.directoryOrigin)).text();
    expect(page).toContain('value="Ana &lt;b&gt;"');
    const id = /name="id" value="([^"]+)"/.exec(page)![1]!;
    expect((await post({ id, what: 'remove' }, 'https://evil.example')).status).toBe(403);
    await post({ id, what: 'remove', name: 'Ana', email: 'ana@home.example' });
    expect((await sync(false)).items).toEqual([]);
  });

  it('tells nothing without its token', async () =>
    expect((await fetch(`${server.directoryOrigin}/scim/v2/Users`)).status).toBe(401));
});
