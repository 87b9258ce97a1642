import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { toSiteKey } from '#core/model/ids.ts';
import { VISITORS_SIDE } from '../database/channels.ts';
import { connect } from '../database/connect.ts';
import { listen } from '../database/listen.ts';
import { VisitorsSide } from '../events/visitors-side.ts';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';
import { VisitorSessions } from '../visitors/visitor-sessions.ts';
import { LiveReading } from './live-reading.ts';
import { LiveSites } from './live-sites.ts';
import { ReadyAnswer } from './ready-answer.ts';
import { Visits } from './visits.ts';
import { Assets } from './assets.ts';
import { workbenchNews } from './workbench-news.ts';

let server: TestServer;
let ines: Person;
/** A second process for visitors, on the same database. */
let other: LiveSites;
let stop: () => Promise<void>;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  const { database } = server;
  const now = () => new Date();
  other = new LiveSites(
    new LiveReading(database),
    'https://www.example',
    await Assets.load(),
    new Visits(database, pino({ level: 'silent' }), now),
  );
  const sessions = new VisitorSessions(database, now);
  const nothing = () => undefined;
  const news = workbenchNews({ database, sites: other, sessions, onRelease: nothing, onResync: nothing });
  stop = await listen(server.url, news.channels, news.resync, VISITORS_SIDE);
});
afterAll(async () => {
  await stop();
  await server.close();
});

const page = (id: string, parent: string | null = null) => ({
  name: 'page.add',
  page: id,
  place: { parent },
  title: { en: id },
});
const set = (id: string, fields: object) => ({ name: 'page.set', page: id, fields });
const release = (key: string, retire: string[] = [], pages: 'all' | string[] = 'all') =>
  ines.post(`/api/sites/${key}/releases`, { pages: retire.length > 0 ? [] : pages, retire });

async function school(key: string): Promise<void> {
  await server.site(key);
  await ines.operations(key, page('home'), page('visit', 'home'), page('news', 'home'), ...many);
  await release(key);
}
const many = Array.from({ length: 60 }, (_, n) => page(`p${n}`, 'home'));

/** What both processes give at an address, by their status. */
async function statuses(key: string, path: string): Promise<number[]> {
  const there = await other.answer(key, path);
  return [(await server.live(`/${key}${path}`)).status, there instanceof ReadyAnswer ? there.status : 0];
}

/** Visitors who ask for pages all the time, so that there is something to make ready with each release. */
async function whileAsked(key: string, work: () => Promise<void>): Promise<void> {
  let isOver = false;
  const ask = async () => {
    for (let n = 0; !isOver; n += 1)
      await Promise.all([server.live(`/${key}/p${n % 60}`), other.answer(key, `/p${n % 60}`)]);
  };
  const asking = [ask(), ask()];
  await work().finally(() => (isOver = true));
  await Promise.all(asking);
}

describe('17: once it is answered', () => {
  it('nobody gets a page that was taken down, hidden or narrowed', async () => {
    await school('away');
    await whileAsked('away', async () => {
      for (let round = 0; round < 6; round += 1) {
        await ines.operations('away', set('visit', { hidden: 'page' }));
        expect((await release('away')).json.unconfirmed).toBe(0);
        expect(await statuses('away', '/visit')).toEqual([404, 404]);
        await ines.operations('away', set('visit', { hidden: 'no' }));
        await release('away');
        expect(await statuses('away', '/visit')).toEqual([200, 200]);
        await release('away', ['news']);
        expect(await statuses('away', '/news')).not.toContain(200);
        await release('away', [], ['news']);
        expect(await statuses('away', '/news')).toEqual([200, 200]);
      }
    });
  });

  it('nobody gets anything of a site that is closed for works', async () => {
    await school('works');
    const path = '/api/sites/works/works';
    await whileAsked('works', async () => {
      for (let round = 0; round < 10; round += 1) {
        const closed = await ines.send('PUT', path, { works: { words: 'Painting.', until: null } });
        expect(closed.json).toMatchObject({ unconfirmed: 0 });
        expect((await server.live('/works/')).status).toBe(503);
        expect(await other.closed('works')).toBeDefined();
        await ines.send('PUT', path, { works: null });
        expect(await statuses('works', '/')).toEqual([200, 200]);
      }
    });
  });

  it('a visitor who is suspended is signed out, and stays so when let in again', async () => {
    await school('people');
    await ines.operations(
      'people',
      { name: 'audience.add', audience: 'staff', title: 'Staff' },
      { ...page('staff'), access: { only: ['staff'] } },
    );
    await release('people');
    const given = { name: 'Ada', email: 'ada@home.example', password: 'low-water-mark', audiences: ['staff'] };
    const { id } = (await ines.post('/api/sites/people/visitors', given)).json;
    const signIn = () =>
      fetch(`${server.liveOrigin}/people/sign-in`, {
        method: 'POST',
        headers: { Origin: server.liveOrigin, 'Content-Type': 'application/x-www-form-urlencoded' },
        body: new URLSearchParams({ email: given.email, password: given.password }),
        redirect: 'manual',
      });
    const Cookie = (await signIn()).headers.getSetCookie()[0]!.split(';')[0]!;
    const seesStaff = async () => (await server.live('/people/staff', { Cookie })).status === 200;
    expect(await seesStaff()).toBe(true);
    for (const isSuspended of [true, false]) {
      await ines.send('PUT', `/api/sites/people/visitors/${id}`, { isSuspended });
      expect(await seesStaff()).toBe(false);
    }
    expect((await signIn()).status).toBe(303);
  });

  it('it says that nobody has confirmed where the database is away, and that is no fault of what was saved', async () => {
    const gone = connect(server.url);
    const side = new VisitorsSide(gone, 400);
    await gone.destroy();
    expect(await side.hasTaken('away')).toBe(1);
  });

  it('it says how many have not confirmed, and does not wait for those that end', async () => {
    const KEY = toSiteKey('nobody');
    const side = new VisitorsSide(server.database, 400);
    const hearing = await listen(server.url, { spur_taken: side.hear }, () => undefined);
    const deaf = await listen(server.url, {}, () => undefined, VISITORS_SIDE);
    expect(await side.hasTaken(KEY)).toBe(1);
    const patient = new VisitorsSide(server.database, 20_000);
    const hearingToo = await listen(server.url, { spur_taken: patient.hear }, () => undefined);
    const waiting = patient.hasTaken(KEY);
    await deaf();
    expect(await waiting).toBe(0);
    await Promise.all([hearing(), hearingToo()]);
  });
});
