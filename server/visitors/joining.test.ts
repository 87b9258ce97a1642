import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;

beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site('pq');
  await ines.operations(
    'pq',
    { name: 'audience.add', audience: 'students', title: 'Students' },
    { name: 'page.add', page: 'home', place: { parent: null }, title: { en: 'Home' } },
    {
      name: 'page.add',
      page: 'area',
      place: { parent: null },
      title: { en: 'Area' },
      access: { only: ['students'], closedLook: 'locked' },
    },
    { name: 'page.add', page: 'desk', place: { parent: 'area' }, title: { en: 'Desk' } },
    { name: 'audience.set', audience: 'students', fields: { landing: 'desk' } },
  );
  await ines.post('/api/sites/pq/releases', { pages: ['home', 'area', 'desk'], retire: [] });
});
afterAll(() => server.close());

const makeLink = async (given: object = {}) => {
  const body = { audience: 'students', needsApproval: false, days: 7, mostUses: null, ...given };
  const { json } = await ines.post('/api/sites/pq/joining-links', body);
  return { id: json.id as string, path: new URL(json.address).pathname };
};

async function form(path: string, fields: Record<string, string>, origin = server.liveOrigin) {
  const response = await fetch(server.liveOrigin + path, {
    method: 'POST',
    headers: { Origin: origin, 'Content-Type': 'application/x-www-form-urlencoded' },
    body: new URLSearchParams(fields),
    redirect: 'manual',
  });
  return {
    status: response.status,
    text: await response.text(),
    to: response.headers.get('location'),
    headers: response.headers,
  };
}

/** The path that the latest letter to an address leads to, and its words. */
async function letterTo(email: string) {
  const { json } = await ines.get('/api/outbox');
  const mail = json.mails.find((one: { to: string }) => one.to === email);
  const link = /https?:\/\/\S+/.exec(mail?.text ?? '')?.[0];
  return { subject: mail?.subject as string | undefined, path: link && new URL(link).pathname };
}

const signIn = (email: string, password: string, to = '/') => form('/pq/sign-in', { email, password, to });
const NEW = { name: 'Jory', password: 'low-water-mark' };
const visitors = async () => (await ines.get('/api/sites/pq/visitors')).json.visitors;

describe('a joining link', () => {
  it('leads by a letter to an account in the audience, and on to the page that was asked for', async () => {
    const { path } = await makeLink();
    const asked = await server.live(`${path}?to=/area`);
    expect(asked.text).toContain('Join Students');
    expect(asked.headers.get('cache-control')).toBe('no-store');
    const sent = await form(path, { email: 'jory@home.example', to: '/area' });
    expect(sent.text).toContain('Check your mail');
    const letter = await letterTo('jory@home.example');
    expect(letter.subject).toBe('Join Students at pq');
    expect((await form(letter.path!, { ...NEW, password: 'short' })).status).toBe(422);
    const done = await form(letter.path!, NEW);
    expect([done.status, done.to]).toEqual([303, '/pq/sign-in?to=%2Farea&email=jory%40home.example&done=joined']);
    expect((await signIn('jory@home.example', NEW.password, '/area')).to).toBe('/pq/area');
    expect((await signIn('jory@home.example', NEW.password)).to).toBe('/pq/area/desk');
    expect((await visitors())[0]).toMatchObject({ name: 'Jory', audiences: ['students'], askedFor: [] });
    // The letter works once.
    expect((await form(letter.path!, NEW)).status).toBe(410);
  });

  it('puts somebody who has an account into the audience, without touching the password', async () => {
    await ines.post('/api/sites/pq/visitors', {
      name: 'Wenna',
      email: 'wenna@home.example',
      password: NEW.password,
      audiences: [],
    });
    const { path } = await makeLink();
    await form(path, { email: 'WENNA@home.example', to: '/' });
    const letter = await letterTo('WENNA@home.example');
    expect((await server.live(letter.path!)).text).not.toContain('type="password"');
    expect((await form(letter.path!, { password: 'another-password' })).status).toBe(303);
    expect((await signIn('wenna@home.example', 'another-password')).status).toBe(401);
    expect((await signIn('wenna@home.example', NEW.password)).to).toBe('/pq/area/desk');
  });

  it('is answered the same for an address that has an account and one that has none', async () => {
    const { path } = await makeLink();
    const known = await form(path, { email: 'wenna@home.example' });
    const nobody = await form(path, { email: 'nobody@home.example' });
    expect([known.status, known.text.replace(/\w+@home/g, '')]).toEqual([
      nobody.status,
      nobody.text.replace(/\w+@home/g, ''),
    ]);
  });

  it('opens nothing before somebody has approved, where it asks for that', async () => {
    const { path } = await makeLink({ needsApproval: true });
    await form(path, { email: 'petra@home.example' });
    const done = await form((await letterTo('petra@home.example')).path!, { ...NEW, name: 'Petra' });
    expect([done.status, done.text.includes('You have asked to join')]).toEqual([200, true]);
    expect((await signIn('petra@home.example', NEW.password, '/area')).status).toBe(303);
    const petra = (await visitors()).find((one: { name: string }) => one.name === 'Petra');
    expect(petra).toMatchObject({ audiences: [], askedFor: ['students'] });
    await ines.send('PUT', `/api/sites/pq/visitors/${petra.id}`, { audiences: ['students'], askedFor: [] });
    expect((await signIn('petra@home.example', NEW.password)).to).toBe('/pq/area/desk');
  });

  it('ends when it was used so often, when it is withdrawn, and with its last day; its letters end with it', async () => {
    const once = await makeLink({ mostUses: 1 });
    await form(once.path, { email: 'first@home.example' });
    await form(once.path, { email: 'second@home.example' });
    const [first, second] = [await letterTo('first@home.example'), await letterTo('second@home.example')];
    const both = await Promise.all([first, second].map(({ path }) => form(path!, NEW)));
    expect(both.map(({ status }) => status).sort()).toEqual([303, 410]);
    expect((await server.live(once.path)).status).toBe(410);
    const withdrawn = await makeLink();
    await form(withdrawn.path, { email: 'third@home.example' });
    const third = await letterTo('third@home.example');
    expect((await ines.send('DELETE', `/api/sites/pq/joining-links/${withdrawn.id}`)).status).toBe(200);
    expect((await server.live(withdrawn.path)).status).toBe(410);
    expect((await form(third.path!, NEW)).status).toBe(410);
    expect((await ines.send('DELETE', `/api/sites/pq/joining-links/${withdrawn.id}`)).json.code).toBe(
      'joining-link-unknown',
    );
    const late = await makeLink();
    await form(late.path, { email: 'late@home.example' });
    const lateLetter = await letterTo('late@home.example');
    await server
      .database('joining_link')
      .where({ id: late.id })
      .update({ expires_at: new Date(0) });
    expect((await server.live(late.path)).status).toBe(410);
    expect((await form(lateLetter.path!, NEW)).status).toBe(410);
  });

  it('makes one account of two letters that are used in the same moment', async () => {
    const letters = [];
    for (const { path } of [await makeLink(), await makeLink()]) {
      await form(path, { email: 'twice@home.example' });
      letters.push((await letterTo('twice@home.example')).path!);
    }
    const done = await Promise.all(letters.map((path) => form(path, NEW)));
    expect(done.map(({ status }) => status)).toEqual([303, 303]);
    const made = (await visitors()).filter((one: { email: string }) => one.email === 'twice@home.example');
    expect(made).toMatchObject([{ audiences: ['students'] }]);
  });

  it('takes no form of another site, no guessed link, and no address that is none', async () => {
    const { path } = await makeLink();
    expect((await form(path, { email: 'x@home.example' }, 'https://evil.example')).status).toBe(403);
    expect((await form('/pq/~join/guessed', { email: 'x@home.example' })).status).toBe(410);
    expect((await form('/pq/~letter/guessed', NEW)).status).toBe(410);
    expect((await form(path, { email: 'no address' })).status).toBe(422);
    expect((await letterTo('x@home.example')).path).toBeUndefined();
    const elsewhere = await form(path, { email: 'y@home.example', to: '//evil.example/' });
    expect(elsewhere.text).not.toContain('evil');
    expect((await form((await letterTo('y@home.example')).path!, NEW)).to).toBe(
      '/pq/sign-in?to=%2F&email=y%40home.example&done=joined',
    );
  });
});

describe('a forgotten password', () => {
  it('is replaced by a letter, which ends wherever the old one was signed in', async () => {
    await ines.post('/api/sites/pq/visitors', {
      name: 'Bram',
      email: 'bram@home.example',
      password: 'the-old-password',
      audiences: ['students'],
    });
    const before = await signIn('bram@home.example', 'the-old-password');
    const cookie = before.headers.getSetCookie()[0]!.split(';')[0]!;
    expect((await server.live('/pq/area', { Cookie: cookie })).status).toBe(200);
    const known = await form('/pq/~password', { email: 'bram@home.example' });
    const nobody = await form('/pq/~password', { email: 'ghost@home.example' });
    expect(known.text.replace(/\w+@home/g, '')).toBe(nobody.text.replace(/\w+@home/g, ''));
    expect((await letterTo('ghost@home.example')).path).toBeUndefined();
    const { path } = await letterTo('bram@home.example');
    expect((await form(path!, { password: 'the-new-password' })).status).toBe(303);
    expect((await form(path!, { password: 'yet-another-one' })).status).toBe(410);
    expect((await signIn('bram@home.example', 'the-old-password')).status).toBe(401);
    expect((await signIn('bram@home.example', 'the-new-password')).status).toBe(303);
    for (let tries = 0; (await server.live('/pq/area', { Cookie: cookie })).status !== 401 && tries < 100; tries++)
      await new Promise((resolve) => setTimeout(resolve, 20));
    expect((await server.live('/pq/area', { Cookie: cookie })).status).toBe(401);
  });

  it('is not written about without end', async () => {
    const answers = [];
    for (let n = 0; n < 10; n++) answers.push((await form('/pq/~password', { email: 'often@home.example' })).status);
    expect(answers.slice(0, 5)).toEqual([200, 200, 200, 200, 200]);
    expect(answers.at(-1)).toBe(429);
  });
});

describe('a list of visitors', () => {
  it('makes accounts with a letter to each, and puts those that are there into the audiences, after saying so', async () => {
    const ada = { name: 'Ada', email: 'ada@home.example', password: NEW.password, audiences: [] };
    await ines.post('/api/sites/pq/visitors', ada);
    const rows = ['Tobias,tobias@home.example,Students', 'Ada,ADA@home.example,Students', 'No,nothing,'];
    const text = ['name,email,audiences', ...rows].join('\n');
    const bring = async (apply: boolean) => (await ines.post('/api/sites/pq/visitors/imports', { text, apply })).json;
    const changes = {
      made: [{ name: 'Tobias', email: 'tobias@home.example' }],
      changed: [{ name: 'Ada', email: 'ADA@home.example' }],
      faults: [{ line: 4, detail: '‘nothing’ is not a mail address.' }],
    };
    expect(await bring(false)).toEqual(changes);
    expect((await letterTo('tobias@home.example')).path).toBeUndefined();
    expect(await bring(true)).toEqual(changes);
    expect(await bring(true)).toMatchObject({ made: [], changed: [] });
    const { path } = await letterTo('tobias@home.example');
    expect((await form(path!, { password: 'a-first-password' })).status).toBe(303);
    expect((await signIn('tobias@home.example', 'a-first-password')).to).toBe('/pq/area/desk');
    expect((await signIn('ada@home.example', NEW.password)).to).toBe('/pq/area/desk');
  });

  it('is refused whole where it is too long', async () => {
    const text = `email\n${Array.from({ length: 5001 }, (_, at) => `a${at}@home.example`).join('\n')}`;
    const answer = await ines.post('/api/sites/pq/visitors/imports', { text, apply: true });
    expect([answer.status, answer.json.code]).toEqual([422, 'visitors-too-many']);
  });
});
