import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { latestMails } from '../standins/outbox-repository.ts';
import { putStandInGroups, putStandInPerson, removeStandInPerson } from '../standins/directory-repository.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';
import { NIGHTLY_SYNC } from './directory-service.ts';

const KEY = 'crew';
const path = (rest: string) => `/api/sites/${KEY}/${rest}`;
let server: TestServer;
let ines: Person;

interface Told {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly state: string;
  readonly roles: readonly { readonly page: string | null; readonly role: string }[];
  readonly placesFromDirectory: readonly (string | null)[] | null;
}

const role = (id: string, page: string | null = null) => ({ page, role: id });
const gives = (group: string, id: string, page: string | null = null) => ({ group, page, role: id });
const put = (name: string, groups: string[], is_active = true) =>
  putStandInPerson(server.database, {
    id: `d-${name}`,
    name,
    email: `${name.toLowerCase()}@home.example`,
    is_active,
    groups,
  });
const set = (groupRoles: object[], isNightly = false, by = ines) =>
  by.send('PUT', path('colleague-directory'), { groupRoles, isNightly });
const sync = async (apply: boolean, by = ines) => (await by.post(path('colleague-directory/syncs'), { apply })).json;
const colleagues = async (): Promise<Told[]> => (await ines.get(path('colleagues'))).json.colleagues;
const named = async (name: string) => (await colleagues()).find((one) => one.name === name);

beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site(KEY);
  const add = (page: string) => ({ name: 'page.add', page, place: { parent: null }, title: { en: page } });
  await ines.operations(KEY, add('home'), add('courses'));
  await putStandInGroups(server.database, [
    { id: 'tutors', name: 'Tutors' },
    { id: 'office', name: 'Office' },
  ]);
});
afterAll(() => server.close());

beforeEach(async () => {
  await server.database('colleague').delete();
  await server.database('account').where({ looks_after_all: false }).delete();
  await server.database('standin_person').delete();
  await server.database('outbox').delete();
  await server.database('security_log').delete();
  await set([gives('tutors', 'writer', 'courses'), gives('office', 'editor')]);
});

describe('colleagues from the directory', () => {
  it('are looked at, then invited by mail with the roles of their groups, and written down', async () => {
    await put('Ana', ['tutors']);
    await put('Cleo', []);
    expect((await sync(false)).items).toEqual([
      {
        kind: 'made',
        name: 'Ana',
        email: 'ana@home.example',
        gains: [role('writer', 'courses')],
        loses: [],
        isTakenOver: false,
      },
    ]);
    expect(await colleagues()).toEqual([]);
    await sync(true);
    expect(await colleagues()).toMatchObject([
      { name: 'Ana', state: 'invited', roles: [role('writer', 'courses')], placesFromDirectory: ['courses'] },
    ]);
    const [mail] = await latestMails(server.database);
    expect(mail).toMatchObject({ to: 'ana@home.example' });
    expect(mail!.text).toMatch(/#[\w-]{20,}/);
    const { entries } = (await ines.get(path('security-log'))).json;
    expect(entries[0]).toMatchObject({ event: 'invited', by: 'Ines' });
    expect(entries[0].about).toContain('ana@home.example');
    expect((await ines.get(path('colleague-directory'))).json).toMatchObject({
      isConnected: true,
      fault: null,
      groups: [
        { id: 'office', name: 'Office', members: 0 },
        { id: 'tutors', name: 'Tutors', members: 1 },
      ],
      last: { by: 'Ines', made: 1 },
    });
    expect((await sync(true)).items).toEqual([]);
  });

  it('may do at once what their groups say, and nothing once they have left; what was theirs stays theirs', async () => {
    const mira = await server.colleague('Mira', KEY, [{ page: null, role: 'reader' as never }]);
    await putStandInPerson(server.database, {
      id: 'd-mira',
      name: 'Mira Sand',
      email: mira.account.email,
      is_active: true,
      groups: ['tutors'],
    });
    const write = async () =>
      (await mira.operations(KEY, { name: 'page.set', page: 'courses', fields: { description: { en: 'x' } } })).status;
    expect(await write()).toBe(403);
    expect((await sync(true)).items).toMatchObject([
      { kind: 'changed', gains: [role('writer', 'courses')], isTakenOver: true },
    ]);
    expect(await write()).toBe(200);
    expect(await named('Mira')).toMatchObject({
      roles: [role('reader'), role('writer', 'courses')],
      placesFromDirectory: ['courses'],
    });
    await removeStandInPerson(server.database, 'd-mira');
    expect((await sync(true)).items).toMatchObject([{ kind: 'suspended', name: 'Mira' }]);
    expect(await write()).toBe(404);
    expect((await named('Mira'))!.state).toBe('suspended');
    // Let in again by hand, they are nobody of the directory's any more.
    await ines.send('PUT', path(`colleagues/${mira.account.id}`), { isSuspended: false });
    expect((await sync(true)).items).toEqual([]);
    expect(await named('Mira')).toMatchObject({ state: 'here', placesFromDirectory: null });
    expect(await write()).toBe(200);
  });

  it('get another role by hand, which holds; a role of a group is not taken away by hand', async () => {
    await put('Ana', ['tutors', 'office']);
    await sync(true);
    const { id } = (await named('Ana'))!;
    const setRoles = (...roles: object[]) => ines.send('PUT', path(`colleagues/${id}`), { roles });
    const refused = await setRoles(role('editor'));
    expect([refused.status, refused.json.code]).toEqual([409, 'role-from-directory']);
    expect(refused.json.detail).toContain('The role in ‘courses’ comes from a group');
    expect((await setRoles(role('reader'), role('writer', 'courses'))).status).toBe(200);
    expect((await sync(true)).items).toEqual([]);
    expect(await named('Ana')).toMatchObject({
      roles: [role('reader'), role('writer', 'courses')],
      placesFromDirectory: ['courses'],
    });
    await put('Ana', ['office']);
    expect((await sync(true)).items).toMatchObject([{ kind: 'changed', loses: [role('writer', 'courses')] }]);
  });

  it('who have an account elsewhere keep it, with its name and its password', async () => {
    await server.site('other');
    const ben = await server.colleague('Ben', 'other', 'reader');
    await putStandInPerson(server.database, {
      id: 'd-ben',
      name: 'Benedict',
      email: ben.account.email.toUpperCase(),
      is_active: true,
      groups: ['office'],
    });
    await sync(true);
    expect(await named('Ben')).toMatchObject({ id: ben.account.id, state: 'here', roles: [role('editor')] });
    const [mail] = await latestMails(server.database);
    expect(mail!.text).toContain(`/sites/${KEY}`);
    expect(mail!.text).not.toContain('#');
  });
});

describe('which groups give which roles', () => {
  it('is said by who may give them there, and only what the site has', async () => {
    expect((await set([gives('tutors', 'nothing')])).json.code).toBe('role-unknown');
    expect((await set([gives('tutors', 'reader', 'nowhere')])).json.code).toBe('page-unknown');
    expect((await set([gives('tutors', 'reader'), gives('tutors', 'editor')])).json.code).toBe('body-invalid');
    await ines.send('PUT', path('roles/keeper'), { name: 'Keeper', permissions: ['people', 'write'] });
    const kit = await server.colleague('Kit', KEY, 'keeper');
    const standing = (await ines.get(path('colleague-directory'))).json.groupRoles;
    expect((await set([...standing, gives('tutors', 'manager')], false, kit)).json.code).toBe('role-beyond-own');
    // Nor is a role taken away that may do more.
    expect((await set([], false, kit)).json.code).toBe('role-beyond-own');
    expect((await set([...standing, gives('tutors', 'keeper')], false, kit)).status).toBe(200);
    expect((await ines.send('DELETE', path(`colleagues/${kit.account.id}`))).status).toBe(200);
    expect((await ines.send('DELETE', path('roles/keeper'))).json.code).toBe('role-of-group');
    const reader = await server.colleague('Rea', KEY, 'reader');
    expect((await reader.get(path('colleague-directory'))).status).toBe(403);
    expect((await reader.post(path('colleague-directory/syncs'), { apply: true })).status).toBe(403);
  });
});

describe('at night', () => {
  it('the sites that ask for it are synchronised, by the queue', async () => {
    await put('Ana', ['office']);
    await set([gives('office', 'editor')], true);
    await server.database.raw(`INSERT INTO pgboss.job (name, data) VALUES (?, '{}')`, [NIGHTLY_SYNC]);
    await until('the night has come', async () => (await colleagues()).length === 1);
    expect((await ines.get(path('colleague-directory'))).json.last).toMatchObject({ by: 'the night', made: 1 });
  });

  it('a directory that is empty by mistake shuts nobody out', async () => {
    for (let n = 0; n < 7; n++) await put(`P${n}`, ['office']);
    await set([gives('office', 'editor')], true);
    await sync(true);
    await server.database('standin_person').delete();
    await server.database.raw(`INSERT INTO pgboss.job (name, data) VALUES (?, '{}')`, [NIGHTLY_SYNC]);
    const last = async () => (await ines.get(path('colleague-directory'))).json.last;
    await until('the night has come', async () => (await last()).fault !== null);
    expect((await last()).fault).toContain('would suspend 7 accounts; the nightly run suspends at most 5');
    expect((await colleagues()).filter(({ state }) => state === 'suspended')).toEqual([]);
    expect((await sync(true)).items).toHaveLength(7);
  });
});
