import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { toPageId } from '#core/model/ids.ts';
import { emptySite, siteAfter } from '#core/testing/random-site.ts';
import type { ReleaseProgress } from '#contract/releases.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';

const PAGES = 1300;
const page = (n: number) => toPageId(`page${n}`);

let server: TestServer;
let ines: Person;
let marek: Person;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  marek = await server.person('Marek', 'manager', server.otherOrigin);
});
afterAll(() => server.close());

/** A site of so many pages that its first release is written in several pieces. */
async function largeSite(key: string): Promise<void> {
  const site = siteAfter(
    Array.from({ length: PAGES }, (_, n) => ({
      name: 'page.add' as const,
      page: page(n),
      place: { parent: n < 10 ? null : page(n % 10) },
      title: { en: `Mooring ${n}` },
    })),
    { ...emptySite(), key: key as ReturnType<typeof emptySite>['key'] },
  );
  await server.site(key, site);
}

/** What a site's stream of events says of releases. */
async function follow(person: Person, origin: string, key: string) {
  const stop = new AbortController();
  const answer = await fetch(`${origin}/api/sites/${key}/events`, {
    headers: { Cookie: person.cookie },
    signal: stop.signal,
  });
  const told: ReleaseProgress[] = [];
  void (async () => {
    let text = '';
    for await (const part of answer.body!.pipeThrough(new TextDecoderStream())) {
      text += part;
      for (let end = text.indexOf('\n\n'); end !== -1; end = text.indexOf('\n\n')) {
        const data = /^event: release\ndata: (.*)$/m.exec(text.slice(0, end))?.[1];
        if (data) told.push(JSON.parse(data));
        text = text.slice(end + 2);
      }
    }
  })().catch(() => undefined);
  return { told, stop: () => stop.abort() };
}

describe('a release of very many pages', () => {
  it('tells how far it is, at each process, and is there as a whole', async () => {
    await largeSite('large-a');
    const [here, there] = [
      await follow(ines, server.origin, 'large-a'),
      await follow(marek, server.otherOrigin, 'large-a'),
    ];
    const seen: number[] = [];
    let isMade = false;
    const looking = (async () => {
      while (!isMade) {
        const { status } = await server.live('/large-a/mooring-9');
        seen.push(status);
        await pause(5);
      }
    })();
    const made = await ines.post('/api/sites/large-a/releases', { pages: 'all', request: 'request-large-a' });
    expect(made.json).toMatchObject({ pages: PAGES, retired: 0 });
    await until('all of it has been told', () => here.told.length >= 3 && there.told.length >= 3);
    await until('visitors have it', async () => (await server.live('/large-a/mooring-9')).status === 200);
    isMade = true;
    await looking;
    for (const { told } of [here, there]) {
      expect(told.map(({ done }) => done)).toEqual([0, 500, 1000]);
      expect(new Set(told.map(({ request, total }) => `${request} ${total}`))).toEqual(
        new Set([`request-large-a ${PAGES}`]),
      );
    }
    // Nothing before, then all: once there, it stays.
    expect(seen.lastIndexOf(404)).toBeLessThan(seen.includes(200) ? seen.indexOf(200) : seen.length);
    for (const n of [0, 499, 500, 1299]) {
      const address = n < 10 ? `/mooring-${n}` : `/mooring-${n % 10}/mooring-${n}`;
      // The first page is the home page.
      expect((await server.live(`/large-a${n === 0 ? '/' : address.replace('/mooring-0/', '/')}`)).status).toBe(200);
    }
    here.stop();
    there.stop();
  });

  it('can be found by the site’s search, all of it', async () => {
    const found = async (words: string) =>
      (await server.live(`/large-a/search?q=${encodeURIComponent(words)}`)).text.match(/<li><a href=/g)?.length ?? 0;
    for (const n of [499, 500, 1299]) expect(await found(`mooring ${n}`)).toBeGreaterThan(0);
  });

  it('is made once where it is asked for twice, and on what somebody else did meanwhile', async () => {
    await largeSite('large-b');
    const body = { pages: 'all', request: 'request-large-b' };
    const [first, renamed, second] = await Promise.all([
      ines.post('/api/sites/large-b/releases', body),
      marek.operations('large-b', { name: 'page.set', page: page(7), fields: { title: { en: 'Pontoon' } } }),
      marek.post('/api/sites/large-b/releases', body),
    ]);
    expect([first.status, renamed.status, second.status]).toEqual([200, 200, 200]);
    expect(second.json.number).toBe(first.json.number);
    const { releases } = (await ines.get('/api/sites/large-b/releases')).json;
    expect(releases).toHaveLength(1);
    const trees = await Promise.all([ines.get('/api/sites/large-b/tree'), marek.get('/api/sites/large-b/tree')]);
    expect(trees[0].json).toEqual(trees[1].json);
  });

  it('leaves nothing where it is refused', async () => {
    await largeSite('large-c');
    const before = (await ines.get('/api/sites/large-c/tree')).json;
    const refused = await ines.post('/api/sites/large-c/releases', { pages: ['page1', 'nowhere'] });
    expect(refused.status).toBe(404);
    expect((await ines.get('/api/sites/large-c/tree')).json).toEqual(before);
    expect((await server.live('/large-c/mooring-1')).status).toBe(404);
  });
});
