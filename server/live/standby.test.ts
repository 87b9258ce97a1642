import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type PrivatePostgres, type PrivateStandby, startPostgres, startStandby } from '#scripts/postgres.mjs';
import { VISITORS_SIDE } from '../database/channels.ts';
import { type Database, connect, connectStandby } from '../database/connect.ts';
import { listen } from '../database/listen.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';
import { VisitorSessions } from '../visitors/visitor-sessions.ts';
import { Assets } from './assets.ts';
import { LiveReading } from './live-reading.ts';
import { LiveSites } from './live-sites.ts';
import { ReadyAnswer } from './ready-answer.ts';
import { Visits } from './visits.ts';
import { workbenchNews } from './workbench-news.ts';

const folder = mkdtempSync(join(tmpdir(), 'spur-standby-'));
let primary: PrivatePostgres;
let standby: PrivateStandby;
let server: TestServer;
let ines: Person;
/** The standby as an administrator reaches it. */
let following: Database;
let reading: LiveReading;
/** A process for visitors that reads from the standby. */
let sites: LiveSites;
const ends: (() => unknown)[] = [];

beforeAll(async () => {
  primary = await startPostgres(join(folder, 'primary'));
  standby = await startStandby(primary, join(folder, 'standby'));
  server = await startTestServer(new Set(), primary.url('postgres'));
  ines = await server.person('Ines');
  const url = standby.url(new URL(server.url).pathname.slice(1));
  following = connect(url);
  const read = connectStandby(url);
  const { database } = server;
  const now = () => new Date();
  reading = new LiveReading(database, read);
  const visits = new Visits(database, pino({ level: 'silent' }), now);
  sites = new LiveSites(reading, 'https://www.example', await Assets.load(), visits);
  const sessions = new VisitorSessions(database, now);
  const nothing = () => undefined;
  const news = workbenchNews({ database, sites, sessions, onRelease: nothing, onResync: nothing });
  const stop = await listen(server.url, news.channels, news.resync, VISITORS_SIDE);
  ends.push(
    stop,
    () => reading.end(),
    () => read.destroy(),
    () => following.destroy(),
    () => server.close(),
    () => standby.stop(),
    () => primary.stop(),
  );
});
afterAll(async () => {
  for (const end of ends) await end();
  rmSync(folder, { recursive: true, force: true });
});

const page = (id: string, parent: string | null = null) => ({
  name: 'page.add',
  page: id,
  place: { parent },
  title: { en: id },
});
const hide = (id: string, hidden: 'page' | 'no') => ({ name: 'page.set', page: id, fields: { hidden } });
const release = (key: string) => ines.post(`/api/sites/${key}/releases`, { pages: 'all', retire: [] });

async function school(key: string): Promise<void> {
  await server.site(key);
  await ines.operations(key, page('home'), page('visit', 'home'), page('news', 'home'));
  await release(key);
}
async function statusOf(key: string, path: string): Promise<number> {
  const answer = await sites.answer(key, path);
  return answer instanceof ReadyAnswer ? answer.status : 0;
}
const isStandby = (database: Database) =>
  database
    .raw<{ rows: [{ follows: boolean }] }>('SELECT pg_is_in_recovery() AS follows')
    .then(({ rows }) => rows[0].follows);
const isReadFromStandby = () => until('what is live is read from the standby', () => reading.read(isStandby));

describe('what is live, read from a standby', () => {
  it('is all of a release once the release is answered', async () => {
    await school('quay');
    for (let round = 0; round < 12; round += 1) {
      await ines.operations('quay', hide('visit', 'page'));
      expect((await release('quay')).json.unconfirmed).toBe(0);
      expect(await statusOf('quay', '/visit')).toBe(404);
      await ines.operations('quay', hide('visit', 'no'), page(`walk${round}`, 'home'));
      expect((await release('quay')).json).toMatchObject({ unconfirmed: 0 });
      expect(await statusOf('quay', '/visit')).toBe(200);
      expect(await statusOf('quay', `/walk${round}`)).toBe(200);
    }
    await isReadFromStandby();
  });

  it('is taken from somebody also while the standby has stopped following', async () => {
    await school('behind');
    await school('unread');
    expect(await statusOf('behind', '/visit')).toBe(200);
    await isReadFromStandby();
    await following.raw('SELECT pg_wal_replay_pause()');
    for (const key of ['behind', 'unread']) {
      await ines.operations(key, hide('visit', 'page'));
      expect((await release(key)).json.unconfirmed).toBe(0);
      expect(await statusOf(key, '/visit')).toBe(404);
      expect(await statusOf(key, '/news')).toBe(200);
    }
    expect(await reading.read(isStandby)).toBe(false);
    await following.raw('SELECT pg_wal_replay_resume()');
    await isReadFromStandby();
    expect(await statusOf('behind', '/visit')).toBe(404);
  });

  it('is answered while the standby is away, and read from it again when it is back', async () => {
    await school('away');
    await isReadFromStandby();
    standby.stop();
    expect(await statusOf('away', '/news')).toBe(200);
    await ines.operations('away', hide('news', 'page'));
    expect((await release('away')).json.unconfirmed).toBe(0);
    expect(await statusOf('away', '/news')).toBe(404);
    standby.start();
    await isReadFromStandby();
    expect(await statusOf('away', '/news')).toBe(404);
  });
});
