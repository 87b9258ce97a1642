import { brotliDecompressSync } from 'node:zlib';
import { pino } from 'pino';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { derivedOf } from '#core/derive/derived.ts';
import type { AudienceId } from '#core/model/audience.ts';
import { toSiteKey } from '#core/model/ids.ts';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';
import { ANYBODY } from './asking.ts';
import { type Release, loadRelease, loadReleaseAfter } from './live-repository.ts';
import { LiveSite } from './live-site.ts';
import { LiveReading } from './live-reading.ts';
import { LiveSites } from './live-sites.ts';
import { ReadyAnswer } from './ready-answer.ts';
import { Assets } from './assets.ts';
import { Visits } from './visits.ts';

const assets = await Assets.load();

let server: TestServer;
let ines: Person;
const KEY = toSiteKey('quay');
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site(KEY);
  await edit(
    { name: 'audience.add', audience: 'staff', title: 'Staff' },
    add('home'),
    add('courses'),
    add('evening', 'courses'),
    add('visit'),
    add('shop'),
    add('news', null, { frame: { listing: { look: 'cards', levels: 2, order: 'tree' } } }),
    add('all', null, { frame: { listing: { look: 'sitemap', levels: 3, order: 'tree' } } }),
    add('papers', null, { access: { only: ['staff'], closedLook: 'locked' } }),
  );
  await release();
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

const paths = [
  '/',
  ...[
    'courses',
    'evening',
    'courses/evening',
    'shop/evening',
    'visit',
    'find-us',
    'spare',
    'shop',
    'news',
    'all',
    'papers',
    'boats',
    'night',
    'late',
  ].map((one) => `/${one}`),
];
const staff = { isSignedIn: true, audiences: ['staff' as AudienceId], passphrases: [], visitor: null };
/** What everyone and what staff get at each path, as text. */
async function answers(sites: LiveSites): Promise<string[]> {
  const found: string[] = [];
  for (const asking of [ANYBODY, staff])
    for (const path of paths) {
      const answer = (await sites.answer(KEY, path, '', asking))!;
      if (answer instanceof ReadyAnswer) await answer.prepare(['identity']);
      const [form] = answer instanceof ReadyAnswer ? answer.forms() : [];
      const said = form && (form.encoding === 'br' ? brotliDecompressSync(form.body) : form.body).toString();
      found.push(`${path} ${answer.status} ${said ?? (answer as { moved: string }).moved}`);
    }
  return found;
}

it('a process that has taken releases over answers as one that begins anew', async () => {
  const begin = () =>
    new LiveSites(
      new LiveReading(server.database),
      'https://www.example',
      assets,
      new Visits(server.database, pino({ level: 'silent' }), () => new Date()),
    );
  const taking = begin();
  await answers(taking);
  const steps: object[][] = [
    [set('visit', { description: { en: 'By boat, or by bus.' } })],
    [set('evening', { description: { en: 'After work.' } }), set('papers', { description: { en: 'For staff.' } })],
    [set('evening', { title: { en: 'Evenings' } })],
    [set('courses', { inMenus: false })],
    [set('papers', { hidden: 'page' })],
    [{ name: 'site.set', fields: { name: 'The Quay School' } }],
    [{ name: 'page.remove', page: 'news' }],
  ];
  for (const step of steps) {
    await edit(...step);
    await release();
    taking.renew(KEY);
    await taking.forEveryone(KEY);
    expect(await answers(taking)).toEqual(await answers(begin()));
  }
  const [untouched, touched] = [taking.ready(`/${KEY}/shop`), taking.ready(`/${KEY}/visit`)];
  await edit(set('visit', { description: { en: 'By boat.' } }));
  await release();
  taking.renew(KEY);
  await taking.forEveryone(KEY);
  expect(taking.ready(`/${KEY}/shop`)).toBe(untouched);
  expect(taking.ready(`/${KEY}/visit`)).not.toBe(touched);
});

it('a site that nobody asks for leaves memory, and the next visitor gets it as it is by then', async () => {
  const visits = new Visits(server.database, pino({ level: 'silent' }), () => new Date());
  const sites = new LiveSites(new LiveReading(server.database), 'https://www.example', assets, visits);
  await sites.answer(KEY, '/shop');
  sites.forgetUnasked();
  expect(sites.ready(`/${KEY}/shop`)).toBeDefined();
  // That was a visitor again.
  sites.forgetUnasked();
  expect(sites.ready(`/${KEY}/shop`)).toBeDefined();
  sites.forgetUnasked();
  sites.forgetUnasked();
  expect(sites.ready(`/${KEY}/shop`)).toBeUndefined();
  await edit(set('shop', { hidden: 'page' }));
  await release();
  sites.renew(KEY);
  expect(sites.ready(`/${KEY}/shop`)).toBeUndefined();
  expect((await sites.answer(KEY, '/shop'))!.status).toBe(404);
  await edit(set('shop', { hidden: 'no' }));
  await release();
});

it('where many sites are asked for, one that was not asked for lately makes room', async () => {
  const visits = new Visits(server.database, pino({ level: 'silent' }), () => new Date());
  const sites = new LiveSites(new LiveReading(server.database), 'https://www.example', assets, visits, Date.now, 2);
  for (const key of ['room-a', 'room-b', 'room-c']) {
    await server.site(key);
    await ines.operations(key, { name: 'page.add', page: 'home', place: { parent: null }, title: { en: 'Home' } });
    await ines.post(`/api/sites/${key}/releases`, { pages: 'all', retire: [] });
  }
  const isKept = (key: string) => sites.ready(`/${key}/`) !== undefined;
  await sites.answer('room-a', '/');
  await sites.answer('room-b', '/');
  sites.forgetUnasked();
  // Of the two the first is asked for again.
  await sites.answer('room-a', '/');
  await sites.answer('room-c', '/');
  expect(['room-a', 'room-b', 'room-c'].map(isKept)).toEqual([true, false, true]);
  expect((await sites.answer('room-b', '/'))!.status).toBe(200);
});

it('a release that takes a page from somebody is told from one that takes none', async () => {
  const parts = {
    reading: new LiveReading(server.database),
    visits: new Visits(server.database, pino({ level: 'silent' }), () => new Date()),
    now: Date.now,
    secret: () => Promise.resolve('test'),
  };
  const read = async () =>
    new LiveSite(
      (await loadRelease(server.database, KEY))!,
      { base: '/quay', origin: 'https://www.example', stylesheet: '/style.css' },
      parts,
    );
  const closes = async (...operations: object[]) => {
    const before = await read();
    before.view(staff);
    await edit(...operations);
    await release();
    return (await read()).closesPages(before);
  };
  expect(await closes(set('shop', { title: { en: 'School shop' } }), slug('shop', 'school-shop'))).toBe(false);
  expect(await closes(set('shop', { access: { only: ['staff'] } }))).toBe(true);
  expect(await closes(set('papers', { hidden: 'no' }))).toBe(false);
  // Only staff have these.
  expect(await closes(set('papers', { hidden: 'page' }))).toBe(true);
  expect(await closes(set('shop', { access: { only: null } }))).toBe(false);
  expect(await closes(add('extra'), { name: 'page.remove', page: 'all' })).toBe(true);
});

it('a release that is made of the one before is the one that is read as a whole', async () => {
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
    async () => {
      const { json } = await ines.get(`/api/sites/${KEY}/releases`);
      await post(`releases/${json.releases[0].number}/take-back`, { anyway: true });
    },
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
