import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { type Pool, connectPool } from '../database/connect.ts';
import { ProblemError } from '../problem.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';
import { Visits } from '../live/visits.ts';
import { toSiteKey } from '#core/model/ids.ts';
import { Attempts, MAX_ACROSS_PLACES, MAX_FOR_ONE_ACCOUNT, MAX_FROM_ONE_PLACE, placeOf } from './attempts.ts';
import { STRICT_TRANSPORT, isOwnOrigin } from './own-origin.ts';

// The numbers are those of `docs/security.md`.
let server: TestServer;
let ines: Person;
let pool: Pool;
let attempts: Attempts;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  pool = connectPool(server.url);
  attempts = await Attempts.open(pool);
});
afterAll(async () => {
  await pool.end();
  await server.close();
});

const wrong = () => Promise.reject(new ProblemError('sign-in-failed'));
const right = () => Promise.resolve('in');
const tryIt = (place: string, account: string, work: () => Promise<string>) =>
  attempts.guard({ place, account }, work).catch((fault: ProblemError) => fault.code);

describe('19: attempts to sign in', () => {
  it('are counted for an account across places', async () => {
    const codes = new Set<string>();
    for (let n = 0; n <= MAX_ACROSS_PLACES; n += 1)
      codes.add(await tryIt(`198.51.100.${n}`, 'ada@home.example', wrong));
    expect(codes).toEqual(new Set(['sign-in-failed', 'too-many-attempts']));
    expect(await tryIt('203.0.113.1', 'ada@home.example', right)).toBe('too-many-attempts');
    expect(await tryIt('203.0.113.1', 'bea@home.example', right)).toBe('in');
  });

  it('do not lock out who has signed in from the place before, whatever others try there or elsewhere', async () => {
    expect(await tryIt('192.0.2.7', 'cy@home.example', right)).toBe('in');
    for (let n = 0; n <= MAX_ACROSS_PLACES; n += 1) await tryIt(`198.51.100.${n}`, 'cy@home.example', wrong);
    for (let n = 0; n <= MAX_FROM_ONE_PLACE; n += 1) await tryIt('192.0.2.7', `guess${n}@home.example`, wrong);
    expect(await tryIt('192.0.2.7', 'nobody@home.example', wrong)).toBe('too-many-attempts');
    expect(await tryIt('192.0.2.7', 'cy@home.example', right)).toBe('in');
    // They too have their limit.
    for (let n = 0; n < MAX_FOR_ONE_ACCOUNT; n += 1) await tryIt('192.0.2.7', 'cy@home.example', wrong);
    expect(await tryIt('192.0.2.7', 'cy@home.example', right)).toBe('too-many-attempts');
  });

  it('come from one place where an IPv6 network is one', () => {
    expect(placeOf('2001:db8:1:2:3:4:5:6')).toBe('2001:db8:1:2::/64');
    expect(placeOf('2001:db8:1:2::9')).toBe('2001:db8:1:2::/64');
    expect(placeOf('::1')).toBe('0:0:0:0::/64');
    expect(placeOf('::ffff:192.0.2.7')).toBe('192.0.2.7');
    expect(placeOf('192.0.2.7')).toBe('192.0.2.7');
    expect(placeOf(undefined)).toBe('unknown');
  });
});

describe('19: where a request comes from', () => {
  it.each([
    ['http://spur.example:4400', 'spur.example:4400', null, true],
    ['https://spur.example:4400', 'spur.example:4400', null, false],
    ['http://spur.example', 'spur.example:4400', null, false],
    ['https://spur.example', 'internal:4400', 'https://spur.example', true],
    ['http://spur.example', 'spur.example', 'https://spur.example', false],
    ['https://spur.example:8443', 'spur.example', 'https://spur.example', false],
    ['https://other.example', 'spur.example', 'https://spur.example', false],
    ['null', 'spur.example', null, false],
    [undefined, 'spur.example', null, false],
  ])('%s, to %s, known as %s: %s', (origin, host, own, isOwn) => {
    expect(isOwnOrigin({ origin, host }, own)).toBe(isOwn);
  });
});

describe('19: with https outside', () => {
  it.each(['workbench', 'visitors'] as const)('cookies are Secure and browsers keep to https: %s', async (side) => {
    const own = 'https://spur.example';
    const listener = server.listenerWith(side, own);
    const https = createServer(listener);
    await new Promise<void>((resolve) => https.listen(0, '127.0.0.1', resolve));
    const at = `http://127.0.0.1:${(https.address() as AddressInfo).port}`;
    await server.site(`secure-${side}`);
    const person = { name: 'Dee', email: 'dee@home.example', password: 'low-water-mark', audiences: [] };
    await ines.operations(`secure-${side}`, {
      name: 'page.add',
      page: 'home',
      place: { parent: null },
      title: { en: 'Home' },
    });
    await ines.post(`/api/sites/secure-${side}/releases`, { pages: 'all', retire: [] });
    await ines.post(`/api/sites/secure-${side}/visitors`, person);
    const signIn = (origin: string) =>
      side === 'workbench'
        ? fetch(`${at}/api/session`, {
            method: 'POST',
            headers: { Origin: origin, 'Content-Type': 'application/json' },
            body: JSON.stringify({ email: ines.account.email, password: 'a-long-test-password' }),
          })
        : fetch(`${at}/secure-visitors/sign-in`, {
            method: 'POST',
            headers: { Origin: origin, 'Content-Type': 'application/x-www-form-urlencoded' },
            body: new URLSearchParams({ email: person.email, password: person.password }),
            redirect: 'manual',
          });
    expect((await signIn(at)).status).toBe(403);
    const answer = await signIn(own);
    expect(answer.headers.getSetCookie().join()).toMatch(/; Secure/);
    expect(answer.headers.get(STRICT_TRANSPORT[0])).toBe(STRICT_TRANSPORT[1]);
    https.closeAllConnections();
    https.close();
  });
});

it('18: a rule names a passphrase of its own site only', async () => {
  await server.site('one');
  await server.site('two');
  const { id } = (await ines.post('/api/sites/one/passphrases', { words: 'slack water' })).json;
  const page = {
    name: 'page.add',
    page: 'home',
    place: { parent: null },
    title: { en: 'Home' },
    access: { passphrase: id },
  };
  expect((await ines.operations('two', page)).json.code).toBe('passphrase-unknown');
  expect((await ines.operations('one', page)).status).toBe(200);
});

it('18: an address with U+0000 does not lose what was counted of others', async () => {
  const key = toSiteKey('counted');
  await server.site('counted');
  const visits = new Visits(server.database, pino({ level: 'silent' }), () => new Date());
  visits.miss(key, '/a\0b', null);
  visits.miss(key, '/gone', '/from\0here');
  await visits.flush();
  const counted = await server.database('missed_address').where({ site: 'counted' }).pluck('path');
  expect(counted).toEqual(['/gone']);
});

it('19: the robots file names no site that is closed, or offers nothing', async () => {
  for (const key of ['shown', 'shut', 'kept']) {
    await server.site(key);
    const access = key === 'kept' ? { access: { engines: 'page' } } : {};
    await ines.operations(key, {
      name: 'page.add',
      page: 'home',
      place: { parent: null },
      title: { en: 'Home' },
      ...access,
    });
    await ines.post(`/api/sites/${key}/releases`, { pages: 'all', retire: [] });
  }
  await ines.send('PUT', '/api/sites/shut/works', { works: { words: 'Painting.', until: null } });
  const robots = (await server.live('/robots.txt')).text;
  expect(robots).toContain('/shown/sitemap.xml');
  expect(robots).not.toContain('/shut/');
  expect(robots).not.toContain('/kept/');
  await ines.send('PUT', '/api/sites/shut/works', { works: null });
  await until('it is named again', async () => (await server.live('/robots.txt')).text.includes('/shut/'));
});
