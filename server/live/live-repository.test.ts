import { afterAll, beforeAll, expect, it } from 'vitest';
import { derivedOf } from '#core/derive/derived.ts';
import { toSiteKey } from '#core/model/ids.ts';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';
import { type Release, loadRelease, loadReleaseAfter } from './live-repository.ts';

let server: TestServer;
let ines: Person;
const KEY = toSiteKey('quay');
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site(KEY);
});
afterAll(() => server.close());

const add = (page: string, parent: string | null = null, more: object = {}) => ({
  name: 'page.add',
  page,
  place: { parent },
  title: { en: page },
  ...more,
});
const set = (page: string, fields: object) => ({ name: 'page.set', page, fields });
const slug = (page: string, text: string) => set(page, { slug: { en: { text, own: true } } });
const post = async (path: string, body: object) => {
  const answer = await ines.post(`/api/sites/${KEY}/${path}`, body);
  expect(answer.status, answer.text).toBe(200);
};
const edit = (...operations: object[]) => post('operations', { operations });
const release = (more: object = {}) => post('releases', { pages: 'all', ...more });

/** What a release says, without the order in which things were read. */
const plain = ({ number, works, site, whole, sources, liveAt }: Release) => {
  const { outline, addresses, hiddenBy } = derivedOf(site);
  return {
    number,
    works,
    settings: [site.settings, site.liveSettings, whole.settings, whole.liveSettings],
    tree: outline.nodes.map((node, row) => ({ ...node, address: addresses[row], by: hiddenBy[row] })),
    live: Object.fromEntries(whole.live),
    former: Object.fromEntries(sources.former),
    ofOldSite: Object.fromEntries(sources.ofOldSite),
    liveAt: Object.fromEntries([...liveAt].sort(([a], [b]) => (a < b ? -1 : 1))),
  };
};

it('a release that is made of the one before is the one that is read as a whole', async () => {
  await edit(add('home'), add('courses'), add('evening', 'courses'), add('visit'), add('shop'));
  await release();
  let before = (await loadRelease(server.database, KEY))!;
  const steps: (() => Promise<unknown>)[] = [
    async () => undefined,
    async () => {
      await edit(set('visit', { title: { en: 'Find us' } }), slug('visit', 'find-us'));
      await release();
    },
    async () => {
      await edit(slug('visit', 'spare'), slug('shop', 'find-us'), {
        name: 'page.move',
        page: 'evening',
        place: { parent: 'shop' },
      });
      await release();
    },
    async () => {
      await edit(add('boats', 'courses'), { name: 'page.remove', page: 'shop' });
      await release();
    },
    () => post('releases/4/take-back', { anyway: true }),
    () => post('releases', { pages: [], retire: ['courses'], leadsTo: { courses: 'gone' } }),
    async () => {
      await edit(
        { name: 'site.set', fields: { name: 'The Quay' } },
        { name: 'page.move', page: 'visit', place: { parent: null, after: null } },
      );
      await release();
    },
    () => ines.send('PUT', `/api/sites/${KEY}/works`, { works: { words: 'New roof', until: null } }),
    // Two at once: then all is read.
    async () => {
      await edit(slug('visit', 'night'));
      await release();
      await edit(slug('visit', 'late'));
      await release();
    },
  ];
  for (const step of steps) {
    await step();
    const whole = (await loadRelease(server.database, KEY))!;
    const after = (await loadReleaseAfter(server.database, before))!;
    expect(plain(after)).toEqual(plain(whole));
    before = after;
  }
  expect(before.number).toBeGreaterThan(7);
});
