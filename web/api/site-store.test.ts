import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { toPageId, toSiteKey } from '#core/model/ids.ts';
import { nodeAt, type Site } from '#core/model/site.ts';
import { applyOperations } from '#core/operations/apply.ts';
import { type Operation, editSchema } from '#core/operations/operation.ts';
import { plain, siteAfter } from '#core/testing/random-site.ts';
import { packSite } from '#contract/packed-site.ts';
import type { CommittedEdit } from '#contract/api.ts';
import { type Edit, SiteStore, type Told, newPageId } from './site-store.ts';

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

interface Asked {
  readonly path: string;
  readonly body: { request: string; operations: Operation[] };
  readonly answer: (status: number, body: unknown) => void;
  readonly fail: () => void;
}

/** A server whose answers and stream the test holds in its hands. It decides as the real one does. */
class HeldServer {
  site: Site = START;
  revision = 0;
  readonly asked: Asked[] = [];
  readonly streams: HeldStream[] = [];
  readonly #edits: CommittedEdit[] = [];
  readonly #requests = new Map<string, number>();

  fetch = (path: string, init: { body?: string }): Promise<Response> => {
    if (path.endsWith('/tree')) return Promise.resolve(Response.json(packSite(this.site, this.revision)));
    return new Promise((resolve, reject) => {
      this.asked.push({
        path,
        body: JSON.parse(init.body ?? '{}'),
        answer: (status, body) => resolve(Response.json(body, { status })),
        fail: () => reject(new TypeError('no connection')),
      });
    });
  };

  /** Decides on the request that waits longest, and answers it. */
  async decide(): Promise<void> {
    const next = this.asked.shift()!;
    const { request, operations } = next.body;
    const made = this.#requests.get(request);
    if (made !== undefined) next.answer(200, { revision: made, applied: [], inverse: [] });
    else {
      const outcome = applyOperations(this.site, operations);
      if (outcome.ok) {
        this.commit(operations, 'Ines', request);
        next.answer(200, { revision: this.revision, applied: [], inverse: [] });
      } else
        next.answer(409, {
          type: '/problems/x',
          title: 'x',
          status: 409,
          detail: 'It was refused.',
          code: outcome.code,
        });
    }
    await settle();
  }

  commit(operations: readonly Operation[], by = 'Marek', request: string | null = null): void {
    const outcome = applyOperations(this.site, operations);
    if (!outcome.ok) throw new Error(outcome.code);
    this.site = outcome.site;
    this.revision++;
    if (request !== null) this.#requests.set(request, this.revision);
    this.#edits.push({
      revision: this.revision,
      at: '2026-11-25T09:00:00.000Z',
      by,
      account: by,
      kind: 'edit',
      request,
      words: 'did it',
      operations,
    });
  }

  /** Sends the stream what it has not had. */
  tell(): void {
    const stream = this.streams.at(-1)!;
    for (const edit of this.#edits) if (edit.revision > stream.had) stream.send(edit);
  }
}

class HeldStream {
  static server: HeldServer;
  had: number;
  isClosed = false;
  readonly #listeners = new Map<string, (event: { data: string }) => void>();

  constructor(url: string) {
    this.had = Number(new URL(url, 'http://spur.example').searchParams.get('since'));
    HeldStream.server.streams.push(this);
  }
  addEventListener(name: string, listener: (event: { data: string }) => void) {
    this.#listeners.set(name, listener);
  }
  send(edit: CommittedEdit) {
    this.had = edit.revision;
    this.#listeners.get('edit')!({ data: JSON.stringify(edit) });
  }
  close() {
    this.isClosed = true;
  }
}

const settle = async () => {
  for (let n = 0; n < 12; n++) await Promise.resolve();
  await vi.advanceTimersByTimeAsync(0);
};

let server: HeldServer;
let store: SiteStore;
let told: Told[];
beforeEach(async () => {
  vi.useFakeTimers();
  server = new HeldServer();
  HeldStream.server = server;
  vi.stubGlobal('fetch', server.fetch);
  vi.stubGlobal('EventSource', HeldStream);
  const page = { visibilityState: 'visible', addEventListener: () => undefined, removeEventListener: () => undefined };
  vi.stubGlobal('document', page);
  vi.stubGlobal('window', page);
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
    expect(told).toEqual([{ kind: 'fault', words }]);
  });

  it('that the server refuses is taken back, and what was done on top of it stays', async () => {
    store.apply([rename('visit', 'Come')]);
    store.apply([rename('courses', 'Learn')]);
    server.commit([{ name: 'page.remove', page: id('visit') }]);
    await server.decide();
    await server.decide();
    server.tell();
    await settle();
    expect(told).toContainEqual({ kind: 'fault', words: 'It was refused. Your change was taken back.' });
    expect(titleOf('courses')).toBe('Learn');
    expect(plain(store.getShown().site)).toEqual(plain(server.site));
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
    expect(told).toEqual([{ kind: 'others', by: 'Marek', words: 'did it' }]);
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
        server.site = START;
        server = new HeldServer();
        HeldStream.server = server;
        vi.stubGlobal('fetch', server.fetch);
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
