import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { toPageId, toSiteKey } from '#core/model/ids.ts';
import { maybeNodeAt, nodeAt } from '#core/model/site.ts';
import { applyOperations } from '#core/operations/apply.ts';
import { type Operation, editSchema } from '#core/operations/operation.ts';
import { plain, siteAfter } from '#core/testing/random-site.ts';
import { HeldServer, settle, stubWindow } from '../testing/held-server.ts';
import { call } from './client.ts';
import { type Edit, SiteStore, type Notice, newPageId } from './site-store.ts';

const KEY = toSiteKey('test-site');
const id = toPageId;
const add = (page: string, title: string, parent: string | null = null): Operation => ({
  name: 'page.add',
  page: id(page),
  place: { parent: parent === null ? null : id(parent) },
  title: { en: title },
});
const rename = (page: string, title: string) => ({
  name: 'page.set' as const,
  page: id(page),
  fields: { title: { en: title } },
});
const START = siteAfter([add('home', 'Home'), add('courses', 'Courses'), add('visit', 'Visit')]);

let server: HeldServer;
let store: SiteStore;
let told: Notice[];
beforeEach(async () => {
  vi.useFakeTimers();
  server = new HeldServer(START);
  stubWindow();
  store = await SiteStore.open(KEY);
  told = [];
  store.onTold((one) => told.push(one));
  store.follow();
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const titleOf = (page: string): string => nodeAt(store.getShown().site, id(page)).title.en!;

describe('a change made here', () => {
  it('shows at once, and is saved when the stream has brought it', async () => {
    expect(store.apply([rename('visit', 'Come')])).toBeNull();
    expect(titleOf('visit')).toBe('Come');
    expect(store.getShown().isSaving).toBe(true);
    await server.decide();
    server.tell();
    expect(store.getShown()).toMatchObject({ isSaving: false, revision: 1 });
    expect(told).toEqual([]);
  });

  it('is not worked out a second time when it is confirmed as it was made', async () => {
    store.apply([rename('visit', 'Come')]);
    const { site } = store.getShown();
    await server.decide();
    server.tell();
    expect(store.getShown().site).toBe(site);
  });

  it('that the core refuses is not sent, and the reason is told', () => {
    const words = store.apply([{ name: 'page.move', page: id('visit'), place: { parent: id('visit') } }]);
    expect(words).toBe('‘Visit’ cannot be moved into its own branch. Choose a place outside of it.');
    expect(server.asked).toEqual([]);
    expect(told).toEqual([{ kind: 'fault', words, again: null }]);
  });

  it('that the server refuses is taken back, and what was done on top of it stays', async () => {
    store.apply([rename('visit', 'Come')]);
    store.apply([rename('courses', 'Learn')]);
    server.commit([{ name: 'page.remove', page: id('visit') }]);
    await server.decide();
    await server.decide();
    server.tell();
    await settle();
    expect(told).toContainEqual(
      expect.objectContaining({ kind: 'fault', words: 'It was refused. Your change was undone.' }),
    );
    expect(titleOf('courses')).toBe('Learn');
    expect(plain(store.getShown().site)).toEqual(plain(server.site));
  });

  it('that the server refuses after somebody else’s edit came in between is asked for and told once', async () => {
    store.apply([rename('visit', 'Come')]);
    server.commit([{ name: 'page.remove', page: id('visit') }]);
    server.tell();
    await server.decide();
    await settle();
    expect(server.asked).toEqual([]);
    expect(told.filter(({ kind }) => kind === 'fault')).toHaveLength(1);
  });

  it('is sent again under the same name when the connection broke, and is made once', async () => {
    store.apply([add('new', 'New') as Edit]);
    const first = server.asked[0]!;
    await (async () => {
      // It arrived, but its answer did not.
      server.commit(first.body.operations, 'Ines', first.body.request);
      server.asked.shift();
      first.fail();
      await settle();
    })();
    expect(store.getShown().isConnected).toBe(false);
    await vi.advanceTimersByTimeAsync(2000);
    expect(server.asked[0]!.body.request).toBe(first.body.request);
    await server.decide();
    server.tell();
    expect(store.getShown()).toMatchObject({ isSaving: false, revision: 1 });
    expect(plain(store.getShown().site)).toEqual(plain(server.site));
  });
});

describe('a change made elsewhere', () => {
  it('comes under what is on its way here, and is told', async () => {
    store.apply([rename('visit', 'Come')]);
    server.commit([rename('courses', 'Learn')]);
    server.tell();
    expect([titleOf('visit'), titleOf('courses')]).toEqual(['Come', 'Learn']);
    expect(told).toEqual([{ kind: 'others', by: 'Marek', words: 'did it', again: null }]);
    await server.decide();
    server.tell();
    expect(plain(store.getShown().site)).toEqual(plain(server.site));
  });

  it('that was missed makes the whole tree be fetched again, and nothing done here is lost', async () => {
    store.apply([rename('visit', 'Come')]);
    server.commit([rename('courses', 'Learn')]);
    server.commit([rename('home', 'Start')]);
    server.streams[0]!.had = 1;
    server.tell();
    await settle();
    expect([titleOf('visit'), titleOf('courses'), titleOf('home')]).toEqual(['Come', 'Learn', 'Start']);
    await server.decide();
    server.tell();
    expect(store.getShown()).toMatchObject({ isSaving: false, revision: 3 });
  });
});

describe('a stream', () => {
  it('is opened again where the tree could not be fetched when it was missed', async () => {
    server.commit([rename('courses', 'Learn')]);
    server.commit([rename('home', 'Start')]);
    server.isAway = true;
    server.streams[0]!.had = 1;
    server.tell();
    await settle();
    expect(store.getShown().isConnected).toBe(false);
    server.isAway = false;
    await vi.advanceTimersByTimeAsync(2000);
    expect(server.streams).toHaveLength(2);
    server.tell();
    expect([titleOf('courses'), titleOf('home')]).toEqual(['Learn', 'Start']);
  });

  it('is opened again where the browser gave it up', async () => {
    server.streams[0]!.giveUp();
    expect(store.getShown().isConnected).toBe(false);
    await vi.advanceTimersByTimeAsync(2000);
    expect(server.streams).toHaveLength(2);
    server.commit([rename('visit', 'Come')]);
    server.tell();
    expect(titleOf('visit')).toBe('Come');
  });

  it('brings an edit that this page does not know, and the tree is fetched again', async () => {
    server.commit([rename('visit', 'Come')]);
    server.streams[0]!.say('edit', { revision: 1, operations: [{ name: 'page.fly' }] });
    await settle();
    expect(titleOf('visit')).toBe('Come');
  });
});

describe('somebody whose change lost', () => {
  it('to a later one of the same field is told, and can have it again', async () => {
    store.apply([rename('visit', 'Come')]);
    await server.decide();
    server.tell();
    server.commit([rename('visit', 'See us')]);
    server.tell();
    expect(titleOf('visit')).toBe('See us');
    const { again } = told.at(-1)!;
    expect(store.have(again!)).toBeNull();
    expect(titleOf('visit')).toBe('Come');
  });

  it('to the removal of the branch that a page was moved into is told, and can have the page again', async () => {
    store.apply([{ name: 'page.move', page: id('visit'), place: { parent: id('courses') } }]);
    await server.decide();
    server.tell();
    server.commit([{ name: 'page.remove', page: id('courses') }]);
    server.tell();
    expect(store.have(told.at(-1)!.again!)).toBeNull();
    const { site } = store.getShown();
    expect([maybeNodeAt(site, id('visit'))?.parent, maybeNodeAt(site, id('courses'))]).toEqual([null, undefined]);
  });

  it('because the branch that a page was added to is gone can have the page above it', async () => {
    store.apply([add('talks', 'Talks', 'courses') as Edit]);
    server.commit([{ name: 'page.remove', page: id('courses') }]);
    await server.decide();
    await settle();
    const fault = told.find((one) => one.kind === 'fault')!;
    server.tell();
    expect(store.have(fault.again!)).toBeNull();
    expect(nodeAt(store.getShown().site, id('talks')).parent).toBeNull();
  });
});

describe('any mixture of changes here and elsewhere, late and early', () => {
  const PAGES = ['home', 'courses', 'visit', 'n0', 'n1', 'n2', 'n3'];
  const page = fc.constantFrom(...PAGES);
  const edit: fc.Arbitrary<Operation> = fc.oneof(
    fc.tuple(page, page).map(([one, parent]) => add(one, 'New', parent)),
    fc.tuple(page, fc.constantFrom('Alpha', 'Beta')).map(([one, title]) => rename(one, title)),
    fc.tuple(page, page).map(([one, parent]): Operation => ({
      name: 'page.move',
      page: id(one),
      place: { parent: id(parent), after: null },
    })),
    page.map((one): Operation => ({ name: 'page.remove', page: id(one) })),
    page.map((one): Operation => ({ name: 'page.putBack', page: id(one) })),
  );
  const step = fc.oneof(
    edit.map((operation) => ({ kind: 'here' as const, operation })),
    edit.map((operation) => ({ kind: 'elsewhere' as const, operation })),
    fc.constant({ kind: 'decide' as const }),
    fc.constant({ kind: 'tell' as const }),
  );

  it('ends with what the server has', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(step, { maxLength: 30, size: 'max' }), async (steps) => {
        server = new HeldServer(START);
        const one = await SiteStore.open(KEY);
        const stop = one.follow();
        for (const next of steps) {
          if (next.kind === 'here') one.apply([editSchema.parse(next.operation)]);
          else if (next.kind === 'elsewhere') {
            if (applyOperations(server.site, [next.operation]).ok) server.commit([next.operation]);
          } else if (next.kind === 'decide') {
            if (server.asked.length > 0) await server.decide();
          } else server.tell();
          await settle();
        }
        while (server.asked.length > 0) await server.decide();
        server.tell();
        await settle();
        expect(plain(one.getShown().site)).toEqual(plain(server.site));
        expect(one.getShown().isSaving).toBe(false);
        stop();
      }),
      { numRuns: 150 },
    );
  });
});

describe('ids of new pages', () => {
  it('have the shape of ids and do not come twice', () => {
    const ids = Array.from({ length: 500 }, newPageId);
    expect(new Set(ids).size).toBe(500);
    for (const one of ids) expect(one).toMatch(/^[0-9A-Za-z]{12}$/);
  });
});

describe('a release made here', () => {
  const BODY = { pages: 'all' as const, retire: [], name: '', note: '' };
  const progressOf = () => store.getReleaseProgress();

  it('says how far it is, as the stream tells it, until it is there', async () => {
    const seen: (number | null)[] = [];
    store.subscribe(() => seen.push(progressOf()?.done ?? null));
    const released = store.release(BODY);
    await settle();
    const { body, answer } = server.asked[0]!;
    const stream = server.streams.at(-1)!;
    expect(progressOf()).toBeNull();
    stream.say('release', { request: body.request, done: 500, total: 6000 });
    expect(progressOf()).toEqual({ done: 500, total: 6000 });
    stream.say('release', { request: body.request, done: 1000, total: 6000 });
    answer(200, { number: 1, revision: 1, pages: 6000, retired: 0, unconfirmed: 0 });
    expect(await released).toMatchObject({ number: 1, pages: 6000 });
    expect(progressOf()).toBeNull();
    expect(seen).toEqual([500, 1000, null]);
  });

  it('says nothing of somebody else’s, nor of one that is over', async () => {
    const stream = server.streams.at(-1)!;
    stream.say('release', { request: 'somebody-else', done: 500, total: 6000 });
    expect(progressOf()).toBeNull();
    const released = store.release(BODY);
    await settle();
    const { body, answer } = server.asked[0]!;
    stream.say('release', { request: 'somebody-else', done: 500, total: 6000 });
    stream.say('release', { request: null, done: 500, total: 6000 });
    expect(progressOf()).toBeNull();
    answer(409, {
      type: '/problems/x',
      title: 'x',
      status: 409,
      detail: 'Nothing differs.',
      code: 'nothing-to-release',
    });
    await expect(released).rejects.toThrow('Nothing differs.');
    stream.say('release', { request: body.request, done: 500, total: 6000 });
    expect(progressOf()).toBeNull();
  });

  it('waits until all that was done here has arrived', async () => {
    store.apply([rename('visit', 'Come')]);
    const released = store.release(BODY);
    await settle();
    expect(server.asked.map(({ path }) => path.split('/').at(-1))).toEqual(['operations']);
    await server.decide();
    server.tell();
    await vi.advanceTimersByTimeAsync(50);
    await settle();
    expect(server.asked.map(({ path }) => path.split('/').at(-1))).toEqual(['releases']);
    server.asked[0]!.answer(200, { number: 1, revision: 2, pages: 3, retired: 0, unconfirmed: 0 });
    await released;
  });
});

describe('the workbench as somebody else sees it', () => {
  const follow = () => call('followPage', { site: KEY, page: 'visit' }, { isFollowing: true });

  it('changes nothing, by whatever way; what was done before is sent', async () => {
    store.apply([rename('visit', 'Come')]);
    store.seeAs({ name: 'Mira Sand', powers: store.getShown().powers });
    expect(store.apply([rename('visit', 'Stay')])).toMatch(/as Mira Sand: nothing was changed/);
    await expect(follow()).rejects.toThrow('You see the workbench as Mira Sand: nothing was changed.');
    await server.decide();
    expect(titleOf('visit')).toBe('Come');
    store.seeAs(null);
    const asked = follow().catch((fault: Error) => fault.message);
    await settle();
    expect(await Promise.race([asked, 'sent'])).not.toMatch(/as Mira Sand/);
  });
});
