import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { planRelease, waitingPages } from '#core/changes/release-plan.ts';
import { toPageId, toSiteKey } from '#core/model/ids.ts';
import { applyOperations } from '#core/operations/apply.ts';
import type { Operation } from '#core/operations/operation.ts';
import { type Site, makeSite } from '#core/model/site.ts';
import { IDS, anyEditStep, anySite, drawEdit, plain } from '#core/testing/random-site.ts';
import { editSchema } from '#core/operations/operation.ts';
import { contentIdOf } from '#core/model/content.ts';
import { editsAfter, loadSite } from '../sites/site-repository.ts';
import { SiteCache } from '../sites/site-cache.ts';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';
import { OPEN_GATE, ReleaseService } from '../releases/release-service.ts';
import { EVERYBODY_MAY } from '../testing/everybody-may.ts';
import { EditService } from './edit-service.ts';

let server: TestServer;
let ines: Person;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
});
afterAll(() => server.close());

/** Texts are their own matter: here every text is this one. */
const DOCUMENT = { type: 'doc' as const, content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Hello' }] }] };
const CONTENT = { id: contentIdOf(DOCUMENT), document: DOCUMENT };
const withStoredTexts = <Value>(value: Value): Value =>
  JSON.parse(JSON.stringify(value).replace(/"(a{12}|b{12})"/g, JSON.stringify(CONTENT.id))) as Value;
const anyStoredSite = anySite.map((site): Site =>
  makeSite(
    site.key,
    site.settings,
    withStoredTexts([...site.nodes.values()]),
    withStoredTexts([...site.live.values()]),
    site.liveSettings,
    { goals: site.goals, oldPages: site.oldPages },
  ),
);

const step = fc.oneof(
  { weight: 8, arbitrary: anyEditStep.map((edit) => ({ kind: 'edit' as const, edit })) },
  { weight: 2, arbitrary: fc.subarray([...IDS]).map((pages) => ({ kind: 'release' as const, pages })) },
  { weight: 1, arbitrary: fc.constantFrom({ kind: 'undo' as const }, { kind: 'redo' as const }) },
);

let count = 0;

describe('whatever is done to a site', () => {
  it('the database holds what memory holds, and the log replays to it', async () => {
    await fc.assert(
      fc.asyncProperty(
        anyStoredSite,
        fc.array(step, { minLength: 5, maxLength: 35, size: 'max' }),
        async (planted, steps) => {
          const key = toSiteKey(`kept-${++count}`);
          const start = { ...planted, key };
          await server.site(key, start);
          const caches = [new SiteCache(server.database), new SiteCache(server.database)];
          // Two processes take turns: each has to catch up with what the other has done.
          const services = caches.map((cache) => {
            const edits = new EditService(
              server.database,
              cache,
              EVERYBODY_MAY,
              () => new Date('2026-11-25T09:00:00Z'),
            );
            return { edits, releases: new ReleaseService(server.database, cache, edits, OPEN_GATE) };
          });
          for (const [index, next] of steps.entries()) {
            const { edits, releases } = services[index % 2]!;
            const refused = (fault: { code?: string }) => {
              // What the rules forbid is refused by name; anything else is a fault.
              if (fault.code === undefined) throw fault;
            };
            if (next.kind === 'edit') {
              const { site } = await caches[index % 2]!.current(key);
              const operations = [editSchema.parse(withStoredTexts(drawEdit(site, next.edit)))];
              await edits.apply(key, ines.account, { operations, contents: [CONTENT] }).catch(refused);
            } else if (next.kind === 'release') {
              const { site } = await caches[index % 2]!.current(key);
              const pages = next.pages.filter((id) => waitingPages(site).includes(id));
              await releases.make(key, ines.account, { pages, retire: [] }).catch(refused);
            } else await edits.turn(key, ines.account, next.kind, {}).catch(refused);
          }
          const stored = await loadSite(server.database, key);
          for (const cache of caches) {
            const known = await cache.current(key);
            expect(known.revision).toBe(stored!.revision);
            expect(plain(known.site)).toEqual(plain(stored!.site));
          }
          const log = await editsAfter(server.database, key, 0);
          expect(log.map((edit) => edit.revision)).toEqual(log.map((_, index) => index + 1));
          const replayed = applyOperations(
            start,
            log.flatMap((edit) => edit.operations as Operation[]),
          );
          expect(replayed.ok && plain(replayed.site)).toEqual(plain(stored!.site));
        },
      ),
      { numRuns: 15, endOnFailure: true },
    );
  });

  it('a release counts what it did, and a plan tells it before', async () => {
    const key = toSiteKey('counted');
    await server.site(key);
    const cache = new SiteCache(server.database);
    const edits = new EditService(server.database, cache, EVERYBODY_MAY, () => new Date());
    const releases = new ReleaseService(server.database, cache, edits, OPEN_GATE);
    const add = (page: string, above: string | null) =>
      editSchema.parse({ name: 'page.add', page, place: { parent: above }, title: { en: page } });
    await edits.apply(key, ines.account, { operations: [add('a', null), add('b', 'a'), add('c', 'b')] });
    const { site } = await cache.current(key);
    const told = planRelease(site, { pages: [toPageId('c')], retire: [] });
    const done = await releases.make(key, ines.account, { pages: told.operation.pages, retire: [] });
    expect(done).toMatchObject({ pages: 3, retired: 0 });
    const again = releases.make(key, ines.account, { pages: 'all', retire: [] });
    await expect(again).rejects.toMatchObject({ code: 'nothing-to-release' });
  });
});
