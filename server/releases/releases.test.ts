import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { randomUUID } from 'node:crypto';
import { contentIdOf } from '#core/model/content.ts';
import { toPageId, toSiteKey } from '#core/model/ids.ts';
import { EVERYBODY_MAY } from '../testing/everybody-may.ts';
import { EditService } from '../edits/edit-service.ts';
import { ProblemError } from '../problem.ts';
import { SiteCache } from '../sites/site-cache.ts';
import { OPEN_GATE, ReleaseService } from './release-service.ts';
import { sitesWithDue } from './schedule-repository.ts';
import { ScheduleService } from './schedule-service.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
let count = 0;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
});
afterAll(() => server.close());

const add = (page: string, title: string, parent: string | null = null, more: object = {}) => ({
  name: 'page.add',
  page,
  place: { parent },
  title: { en: title },
  ...more,
});
const slug = (page: string, text: string) => ({
  name: 'page.set',
  page,
  fields: { slug: { en: { text, own: true } } },
});

/** A site of its own with a few pages, all of them live. */
async function school(): Promise<string> {
  const key = `school-${++count}`;
  await server.site(key);
  await ines.operations(
    key,
    add('home', 'Welcome'),
    add('courses', 'Courses'),
    add('evening', 'Evening', 'courses'),
    add('visit', 'Visit'),
  );
  await release(key);
  return key;
}
const release = async (key: string, body: object = {}) => {
  const answer = await ines.post(`/api/sites/${key}/releases`, { pages: 'all', ...body });
  expect(answer.status, answer.text).toBe(200);
  return answer.json;
};
/** What visitors get at an address, once they have the latest release: the status, and where it leads. */
const visit = async (key: string, path: string) => {
  const { status, headers } = await server.live(`/${key}${path}`);
  const to = headers.get('location');
  return to === null ? `${status}` : `${status} ${to.replace(`/${key}`, '')}`;
};
const visits = async (key: string, path: string, answer: string) => {
  let last = '';
  await until(`${path} answers ${answer}`, async () => (last = await visit(key, path)) === answer).catch(() =>
    expect(last).toBe(answer),
  );
};

describe('an address that a page leaves', () => {
  it('leads to the page, in one hop, after many releases', async () => {
    const key = await school();
    for (const text of ['learn', 'classes', 'lessons']) {
      await ines.operations(key, slug('courses', text));
      await release(key);
    }
    await visits(key, '/courses/evening', '301 /lessons/evening');
    expect(await visit(key, '/learn')).toBe('301 /lessons');
    // It comes back into use, and its redirect is no more.
    await ines.operations(key, slug('visit', 'learn'));
    await release(key);
    await visits(key, '/learn', '200');
    expect(await visit(key, '/visit')).toBe('301 /learn');
  });

  it('of a page that is taken down leads above, elsewhere, or is gone, as was chosen', async () => {
    const key = await school();
    await release(key, { pages: [], retire: ['evening'] });
    await visits(key, '/courses/evening', '301 /courses');
    await release(key, { pages: [], retire: ['visit'], leadsTo: { visit: { page: 'courses' } } });
    await visits(key, '/visit', '301 /courses');
    await release(key, { pages: [], retire: ['courses'], leadsTo: { courses: 'gone' } });
    await visits(key, '/courses', '410');
    // What led to it leads nowhere either, and not through it to somewhere else.
    expect([await visit(key, '/visit'), await visit(key, '/courses/evening')]).toEqual(['410', '410']);
  });

  it('is listed with how often it was met; what leads nowhere is counted with the page that led there', async () => {
    const key = await school();
    await ines.operations(key, slug('visit', 'find-us'));
    await release(key);
    await visits(key, '/visit', '301 /find-us');
    await visit(key, '/visit');
    const headers = { Referer: `https://www.example/${key}/courses` };
    const answer = await server.live(`/${key}/find-ous`, headers);
    expect([answer.status, /You may be looking for.*href="\/[^"]*\/find-us"/s.test(answer.text)]).toEqual([404, true]);
    await server.live(`/${key}/admin/login`, { Referer: 'https://elsewhere.example/spy?secret=1' });
    const path = `/api/sites/${key}`;
    await until(
      'what was met is written down',
      async () => (await ines.get(`${path}/missed-addresses`)).json.addresses.length === 2,
    );
    const { addresses } = (await ines.get(`${path}/missed-addresses`)).json;
    expect(addresses).toHaveLength(2);
    expect(addresses).toContainEqual(expect.objectContaining({ path: '/admin/login', hits: 1, from: null }));
    expect(addresses).toContainEqual(expect.objectContaining({ path: '/find-ous', hits: 1, from: '/courses' }));
    const { redirects } = (await ines.get(`${path}/redirects`)).json;
    expect(redirects).toMatchObject([{ path: '/visit', to: { page: 'visit' }, because: 'moved', hits: 2 }]);
    // One click settles it: a redirect by hand, live with the next release.
    await ines.operations(key, { name: 'redirect.add', redirect: 'r1', from: '/find-ous', to: { page: 'visit' } });
    await release(key, { pages: [] });
    await visits(key, '/find-ous', '301 /find-us');
    expect((await ines.get(`${path}/missed-addresses`)).json.addresses).toMatchObject([{ path: '/admin/login' }]);
    await ines.send('PUT', `${path}/missed-addresses`, { path: '/admin/login', isLetBe: true });
    expect((await ines.get(`${path}/missed-addresses`)).json.addresses).toMatchObject([{ isLetBe: true }]);
  });
});

it('a link in a text leads to its page wherever that stands, and is words alone where the page cannot be known', async () => {
  const key = await school();
  const linked = (page: string) => ({
    type: 'text',
    text: `to ${page}`,
    marks: [{ type: 'link', attrs: { href: `page:${page}` } }],
  });
  const document = {
    type: 'doc' as const,
    content: [{ type: 'paragraph', content: [linked('visit'), linked('keys'), linked('nobody')] }],
  };
  const content = contentIdOf(document);
  const made = await ines.post(`/api/sites/${key}/operations`, {
    operations: [
      { name: 'page.set', page: 'courses', fields: { content } },
      add('keys', 'Keys', null, { hidden: 'page' }),
    ],
    contents: [{ id: content, document }],
  });
  expect(made.status, made.text).toBe(200);
  await release(key);
  const text = async () => /<p>(.*?)<\/p>/.exec((await server.live(`/${key}/courses`)).text)![1];
  await until('it is live', async () => (await server.live(`/${key}/courses`)).text.includes('to visit'));
  expect(await text()).toMatch(new RegExp(`^<a href="/${key}/visit"[^>]*>to visit</a>to keysto nobody$`));
  await ines.operations(key, { name: 'page.move', page: 'visit', place: { parent: 'courses' } });
  await release(key, { pages: ['visit'] });
  await visits(key, '/visit', '301 /courses/visit');
  expect(await text()).toContain(`<a href="/${key}/courses/visit"`);
  expect((await ines.get(`/api/sites/${key}/text-links`)).json).toEqual({
    draft: ['keys', 'nobody', 'visit'].map((to) => ({ page: 'courses', to, heading: null, hasHeading: true })),
    live: ['keys', 'nobody', 'visit'].map((to) => ({ page: 'courses', to, heading: null, hasHeading: true })),
    outside: [],
    draftFaults: [],
    needs: {},
    liveFaults: [],
  });
});

describe('redirects by hand', () => {
  it('lead to outside addresses, and never on to an address of the site that leads elsewhere', async () => {
    const key = await school();
    await ines.operations(
      key,
      { name: 'redirect.add', redirect: 'r1', from: '/tides', to: { url: 'https://tides.example/today' } },
      { name: 'redirect.add', redirect: 'r2', from: '/round', to: { url: `https://www.example/${key}/round` } },
      { name: 'redirect.add', redirect: 'r3', from: '/kurse/*', to: { page: 'courses' } },
    );
    await release(key, { pages: [] });
    await visits(key, '/tides', '301 https://tides.example/today');
    expect([await visit(key, '/round'), await visit(key, '/kurse/evening'), await visit(key, '/kurse/x')]).toEqual([
      '404',
      '301 /courses/evening',
      '301 /courses',
    ]);
    // A pattern is met by each address below it; one that leads nobody anywhere is not met.
    await until('hits of the pattern are written down', async () => {
      const { redirects } = (await ines.get(`/api/sites/${key}/redirects`)).json;
      return redirects.find((one: { path: string }) => one.path === '/kurse/*').hits === 2;
    });
    const rules = (await ines.get(`/api/sites/${key}/exports/redirects.csv`)).text;
    expect(rules).toContain('/tides,https://tides.example/today,301');
    expect(rules).toMatch(new RegExp(`/kurse/\\*,http.*/${key}/courses,301`));
  });

  it('are read from a table, line by line', async () => {
    const key = await school();
    const text = [
      'From,To,Status',
      '/old,/courses,301',
      '/old,/visit,301',
      '/visit,/courses,301',
      '/lost,/nowhere,301',
      '/over,,410',
      `/out,https://ferry.example/,301`,
      'old page,/visit,301',
      '/../up,/visit,301',
    ].join('\r\n');
    const { rows } = (await ines.post(`/api/sites/${key}/redirects/table`, { text })).json;
    expect(rows.map((row: { destination: unknown; fault: string }) => row.destination ?? row.fault)).toEqual([
      { page: 'courses' },
      'This address already has a redirect.',
      'A page has this address.',
      'No page has the address /nowhere.',
      'gone',
      { url: 'https://ferry.example/' },
      expect.stringMatching(/begins with '\/'/),
      expect.stringMatching(/no step '.' or '..'/),
    ]);
  });
});

describe('a release', () => {
  it('is of the pages and the settings that were chosen, and bears a name', async () => {
    const key = await school();
    await ines.operations(
      key,
      { name: 'site.set', fields: { name: 'The Quay' } },
      { name: 'fact.set', fact: 'telephone', fields: { text: '01632 960100' } },
      add('news', 'News'),
    );
    await release(key, { pages: [], settings: ['facts'], name: 'Telephone', note: 'New exchange.' });
    const { releases } = (await ines.get(`/api/sites/${key}/releases`)).json;
    expect(releases[0]).toMatchObject({
      name: 'Telephone',
      note: 'New exchange.',
      pages: 0,
      settings: ['facts'],
      by: 'Ines',
    });
    const page = await server.live(`/${key}/courses`);
    expect([page.text.includes('01632 960100'), page.text.includes('The Quay')]).toEqual([true, false]);
    await visits(key, '/news', '404');
  });

  it('takes a new label and its rule along with a page that bears it, so that nobody gets the page who should not', async () => {
    const key = await school();
    await ines.operations(
      key,
      { name: 'audience.add', audience: 'staff', title: 'Staff' },
      { name: 'label.add', label: 'handbook', title: 'Handbook', rule: { only: ['staff'] } },
      { name: 'page.set', page: 'visit', fields: { access: { labels: ['handbook'] } } },
    );
    await release(key, { pages: ['visit'], settings: [] });
    await visits(key, '/visit', '404');
  });

  it('of nothing is refused', async () => {
    const key = await school();
    const answer = await ines.post(`/api/sites/${key}/releases`, { pages: 'all' });
    expect([answer.status, answer.json.code]).toEqual([409, 'nothing-to-release']);
  });

  it('is taken back, as far as later ones leave it, and the taking back is taken back in turn', async () => {
    const key = await school();
    await ines.operations(key, slug('courses', 'learn'), add('news', 'News'), slug('visit', 'find-us'));
    const { number } = await release(key, { name: 'Autumn' });
    await ines.operations(key, slug('visit', 'getting-here'));
    await release(key);
    const path = `/api/sites/${key}/releases/${number}/take-back`;
    expect((await ines.get(path)).json).toMatchObject({
      left: [{ page: 'visit', because: 'changed since', release: number + 1 }],
    });
    expect((await ines.post(path, {})).json.code).toBe('take-back-blocked');
    expect((await ines.post(path, { anyway: true })).json).toMatchObject({ pages: 1, retired: 1, number: number + 2 });
    await visits(key, '/courses', '200');
    expect([await visit(key, '/learn'), await visit(key, '/news'), await visit(key, '/getting-here')]).toEqual([
      '301 /courses',
      '301 /',
      '200',
    ]);
    const again = await ines.post(`/api/sites/${key}/releases/${number + 2}/take-back`, {});
    expect(again.status, again.text).toBe(200);
    await visits(key, '/learn', '200');
    expect(await visit(key, '/news')).toBe('200');
    expect((await ines.get(`/api/sites/${key}/releases`)).json.releases[1]).toMatchObject({ takesBack: number });
    expect((await ines.get(`/api/sites/${key}/releases/99/take-back`)).json.code).toBe('release-unknown');
  });
});

describe('a release to come', () => {
  const soon = (ms: number) => new Date(Date.now() + ms).toISOString();

  it('is made once at its moment, by whichever process is there', async () => {
    const key = await school();
    await ines.operations(key, add('news', 'News'));
    const set = await ines.post(`/api/sites/${key}/scheduled-releases`, {
      pages: ['news'],
      at: soon(900),
      name: 'Opening day',
    });
    expect(set.json.scheduled).toMatchObject([{ state: 'waiting', name: 'Opening day', by: 'Ines' }]);
    expect(await visit(key, '/news')).toBe('404');
    await until('the release is made', async () => (await visit(key, '/news')) === '200', 12_000);
    const { scheduled } = (await ines.get(`/api/sites/${key}/scheduled-releases`)).json;
    expect(scheduled).toMatchObject([{ state: 'done', release: 2 }]);
    expect((await ines.get(`/api/sites/${key}/releases`)).json.releases).toHaveLength(2);
  });

  const scheduler = (gate = OPEN_GATE) => {
    const cache = new SiteCache(server.database);
    const now = () => new Date();
    const releases = new ReleaseService(
      server.database,
      cache,
      new EditService(server.database, cache, EVERYBODY_MAY, now),
      gate,
    );
    return new ScheduleService(server.database, cache, releases, now, (fault) => {
      throw fault;
    });
  };

  it('is made at once and once by those who start after its moment, many one after the other', async () => {
    const key = await school();
    const pages = Array.from({ length: 40 }, (_, n) => `news${n}`);
    await ines.operations(key, ...pages.map((page) => add(page, page)));
    for (const [n, page] of pages.entries())
      await server.database('scheduled_release').insert({
        id: randomUUID(),
        site: toSiteKey(key),
        at: new Date(Date.now() - 60_000 + n),
        name: page,
        note: '',
        asked: JSON.stringify({ pages: [page], retire: [] }),
        account: ines.account.id,
        made_at: new Date(Date.now() - 120_000),
        state: 'waiting',
      });
    // Processes come and go while the releases are due.
    for (let restarts = 0; restarts < 3; restarts += 1) {
      const [one, other] = [scheduler(), scheduler()];
      const rounds = [one.wake(), other.wake()];
      if (restarts < 2) await new Promise((resolve) => setTimeout(resolve, 100));
      else
        await until('all are made', async () => (await sitesWithDue(server.database, new Date())).length === 0, 20_000);
      await Promise.all([one.stop(), other.stop(), ...rounds]);
    }
    const { scheduled } = (await ines.get(`/api/sites/${key}/scheduled-releases`)).json;
    expect(scheduled.map((one: { state: string }) => one.state)).toEqual(pages.map(() => 'done'));
    const { releases } = (await ines.get(`/api/sites/${key}/releases`)).json;
    expect(releases.map((one: { name: string }) => one.name)).toEqual([...pages.toReversed(), '']);
    await visits(key, '/news39', '200');
  });

  it('is told as made where the process that made it died before it said so, whatever would forbid it by now', async () => {
    const key = await school();
    await ines.operations(key, add('news', 'News'));
    const id = randomUUID();
    await server.database('scheduled_release').insert({
      id,
      site: toSiteKey(key),
      at: new Date(Date.now() - 60_000),
      name: 'Opening day',
      note: '',
      asked: JSON.stringify({ pages: ['news'], retire: [] }),
      account: ines.account.id,
      made_at: new Date(Date.now() - 120_000),
      state: 'waiting',
    });
    // One process makes it, and is gone.
    const cache = new SiteCache(server.database);
    const edits = new EditService(server.database, cache, EVERYBODY_MAY, () => new Date());
    const asked = { pages: [toPageId('news')], retire: [], request: id };
    const { number } = await new ReleaseService(server.database, cache, edits, OPEN_GATE).make(
      toSiteKey(key),
      ines.account,
      asked,
    );
    // The other one finds the page deleted for good, and a gate that lets nothing through.
    await ines.post(`/api/sites/${key}/releases`, { pages: [], retire: ['news'] });
    await ines.operations(key, { name: 'page.remove', page: 'news' }, { name: 'page.erase', page: 'news' });
    const closed = {
      ...OPEN_GATE,
      gate: () => Promise.reject(new ProblemError('nothing-to-release')),
    };
    const other = scheduler(closed);
    const round = other.wake();
    await until('it is settled', async () => (await sitesWithDue(server.database, new Date())).length === 0, 12_000);
    await Promise.all([other.stop(), round]);
    const { scheduled } = (await ines.get(`/api/sites/${key}/scheduled-releases`)).json;
    expect(scheduled).toMatchObject([{ state: 'done', release: number }]);
  });

  it('is set once by the same request, and listed however many wait', async () => {
    const key = await school();
    const path = `/api/sites/${key}/scheduled-releases`;
    const at = soon(3_600_000);
    for (let n = 0; n < 101; n += 1)
      await ines.post(path, { pages: 'all', at, name: `${n}`, request: `set-it-${n}-times` });
    const last = { pages: 'all', at: soon(7_200_000), name: 'Last', request: 'set-once-only' };
    const answers = await Promise.all([ines.post(path, last), ines.post(path, last)]);
    for (const { json } of answers)
      expect(json.scheduled.filter((one: { name: string }) => one.name === 'Last')).toHaveLength(1);
    expect((await ines.post(path, { ...last, name: 'Other' })).json.code).toBe('request-reused');
  });

  it('can be called off, is refused for the past, and says why it could not be made', async () => {
    const key = await school();
    const path = `/api/sites/${key}/scheduled-releases`;
    expect((await ines.post(path, { pages: 'all', at: soon(-1000) })).json.code).toBe('moment-past');
    const { scheduled } = (await ines.post(path, { pages: 'all', at: soon(3_600_000) })).json;
    await server.site('another');
    const elsewhere = `/api/sites/another/scheduled-releases/${scheduled[0].id}`;
    expect((await ines.send('DELETE', elsewhere)).json.code).toBe('schedule-unknown');
    expect((await ines.send('DELETE', `${path}/${scheduled[0].id}`)).json.scheduled[0]).toMatchObject({
      state: 'called off',
    });
    expect((await ines.send('DELETE', `${path}/${scheduled[0].id}`)).json.code).toBe('schedule-unknown');
    // Nothing differs at the moment when it comes.
    await ines.post(path, { pages: 'all', at: soon(300) });
    await until('it failed', async () => (await ines.get(path)).json.scheduled[0].state === 'failed', 12_000);
    expect((await ines.get(path)).json.scheduled[0].fault).toMatch(/Nothing of what was chosen differs/);
  });
});

it('a site closed for works answers 503 everywhere, says until when, and opens again', async () => {
  const key = await school();
  await visits(key, '/courses', '200');
  const until = new Date(Date.now() + 7200_000).toISOString();
  await ines.send('PUT', `/api/sites/${key}/works`, { works: { words: 'We move house.', until } });
  await visits(key, '/courses', '503');
  const closed = await server.live(`/${key}/nowhere`);
  expect([closed.status, Number(closed.headers.get('retry-after')) > 7000]).toEqual([503, true]);
  expect(closed.text).toContain('We move house.');
  const start = await ines.post(`/api/sites/${key}/walks`, { isDraft: false, who: { audiences: [] }, at: null });
  expect((await fetch(start.json.address)).status).toBe(200);
  await ines.send('PUT', `/api/sites/${key}/works`, { works: null });
  await visits(key, '/courses', '200');
});

it('a request that two processes have at once is done once, and answered alike by both', async () => {
  const key = await school();
  const there = await server.person('Ines', 'manager', server.otherOrigin);
  const numbers = new Set<number>();
  for (let round = 0; round < 25; round++) {
    await ines.operations(key, { name: 'page.set', page: 'visit', fields: { description: { en: `Round ${round}` } } });
    const body = { pages: 'all', request: `round-${round}-of-two` };
    const answers = await Promise.all([ines, there].map((one) => one.post(`/api/sites/${key}/releases`, body)));
    expect(answers.map(({ status, text }) => (status === 200 ? 200 : text))).toEqual([200, 200]);
    expect(new Set(answers.map(({ json }) => json.number)).size).toBe(1);
    numbers.add(answers[0]!.json.number);
  }
  expect(numbers.size).toBe(25);
});
