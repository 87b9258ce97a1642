import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { toSiteKey } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { anyEditStep, drawEdit } from '#core/testing/random-site.ts';
import type { OperationsBody } from '#contract/api.ts';
import { EVERYBODY_MAY } from '../testing/everybody-may.ts';
import { EditService } from '../edits/edit-service.ts';
import { ProblemError } from '../problem.ts';
import { OPEN_GATE, ReleaseService } from '../releases/release-service.ts';
import { SiteCache } from '../sites/site-cache.ts';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
});
afterAll(() => server.close());

const SITES = 12;
const STEPS = 80;
const SEED = 9;

/** Rows of a table as people bring them: titles of whatever characters, levels that jump, links, slugs. */
const anyTable = fc
  .array(
    fc.record({
      title: fc.oneof(
        fc.string({ unit: 'binary', maxLength: 30 }),
        fc.constantFrom('Con', 'feed.xml', 'Page', '=1+1', 'a'.repeat(400)),
      ),
      level: fc.integer({ min: 0, max: 50 }),
      slug: fc.constantFrom('', 'index.html', 'Käse', '../up', 'a b'),
    }),
    { minLength: 1, maxLength: 30 },
  )
  .map((rows) =>
    [
      'level,title,slug',
      ...rows.map(({ title, level, slug }) => `${level},"${title.replaceAll('"', '""')}",${slug}`),
    ].join('\n'),
  );

/** What is tried may be refused; the site stays as it was then. */
const unlessRefused = (fault: unknown): undefined => {
  if (!(fault instanceof ProblemError)) throw fault;
};

it('9: every site that exists can be exported with its history and restored', { timeout: 120_000 }, async () => {
  const steps = fc.sample(fc.array(anyEditStep, { minLength: STEPS, maxLength: STEPS }), {
    numRuns: SITES,
    seed: SEED,
  });
  const tables = fc.sample(anyTable, { numRuns: SITES, seed: SEED });
  const cache = new SiteCache(server.database);
  const edits = new EditService(server.database, cache, EVERYBODY_MAY, () => new Date());
  const releases = new ReleaseService(server.database, cache, edits, OPEN_GATE);
  let [pages, made] = [0, 0];
  for (const [at, some] of steps.entries()) {
    const key = toSiteKey(`law-${at}`);
    await server.site(key);
    await ines.post(`/api/sites/${key}/imports`, { format: 'csv', text: tables[at]!, apply: true });
    let site: Site = (await cache.current(key)).site;
    for (const [index, step] of some.entries()) {
      const operations = [drawEdit(site, step)] as OperationsBody['operations'];
      const done = await edits.apply(key, ines.account, { operations }).catch(unlessRefused);
      if (done) site = done.site;
      if (index % 20 !== 19) continue;
      made += (await releases.make(key, ines.account, { pages: 'all', retire: [] }).catch(unlessRefused)) ? 1 : 0;
      await edits.turn(key, ines.account, 'undo', {}).catch(unlessRefused);
      ({ site } = await cache.current(key));
    }
    pages += site.nodes.size;
    const own = (await ines.get(`/api/sites/${key}/exports/site.json`)).text;
    const brought = await ines.post(`/api/sites/${key}/imports`, { format: 'json', text: own, apply: false });
    expect([at, { items: brought.json.items, notes: brought.json.notes }]).toEqual([at, { items: [], notes: [] }]);
    const archive = (await ines.get(`/api/sites/${key}/archive`)).text;
    const restored = await ines.sendFile(`/api/archives/${key}-again`, Buffer.from(archive));
    expect([at, restored.status, restored.text.slice(0, 300)]).toEqual([at, 200, expect.anything()]);
    const again = JSON.parse((await ines.get(`/api/sites/${key}-again/archive`)).text.replaceAll(`${key}-again`, key));
    expect({ ...again, writtenAt: '' }).toEqual({ ...JSON.parse(archive), writtenAt: '' });
  }
  // The sites are no empty ones.
  expect(pages / SITES).toBeGreaterThan(7);
  expect(made).toBeGreaterThan(SITES);
});
