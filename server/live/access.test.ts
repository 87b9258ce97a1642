import { XMLParser } from 'fast-xml-parser';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { accessTable, heldBackRows } from '#core/derive/access.ts';
import { derivedOf } from '#core/derive/derived.ts';
import type { AccessChange } from '#core/model/access.ts';
import { type AudienceId, EVERYONE, closureOf } from '#core/model/audience.ts';
import { contentIdOf } from '#core/model/content.ts';
import { type PageId, toPageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import type { Operation } from '#core/operations/operation.ts';
import { emptySite, siteAfter } from '#core/testing/random-site.ts';
import { acceptContent } from '../contents/content-service.ts';
import { type TestServer, startTestServer, until } from '../testing/test-server.ts';
import { hashOfPassword } from '../security/passwords.ts';
import { deleteVisitor, insertVisitor, updateVisitor } from '../visitors/visitor-repository.ts';
import { wayOn } from './visitor-pages.ts';

const AUDIENCES = ['a0', 'a1', 'a2', 'a3', 'a4', 'a5'] as AudienceId[];
const PASSWORD = 'low-water-mark';
const KEYS = ['one', 'two', 'three'];
let server: TestServer;
const sites = new Map<string, Site>();
const cookies = new Map<string, string>();
const ids = new Map<string, string>();

beforeAll(async () => {
  server = await startTestServer();
  const password_hash = await hashOfPassword(PASSWORD);
  for (const [at, key] of KEYS.entries()) {
    const { site, contents } = randomSite(key, at + 1);
    sites.set(key, site);
    await server.site(key, site, contents);
    for (const audience of AUDIENCES) {
      const id = crypto.randomUUID();
      ids.set(`${key} ${audience}`, id);
      const email = `${audience}@home.example`;
      const given = { id, site: site.key, name: audience, email, password_hash, audiences: [audience] };
      await insertVisitor(server.database, { ...given, is_suspended: false, made_at: new Date() });
      cookies.set(`${key} ${audience}`, (await signIn(key, email)).cookie);
    }
  }
});
afterAll(() => server.close());

/** A live site of 300 pages, each with words of its own in title, description and text, and rules on every fourth. */
function randomSite(key: string, seed: number) {
  let state = seed * 7919;
  const random = (below: number) => (state = (state * 48271) % 2147483647) % below;
  const some = () => AUDIENCES.filter(() => random(3) === 0);
  const operations: Operation[] = AUDIENCES.map((audience, at) => ({
    name: 'audience.add',
    audience,
    title: `Audience ${at}`,
    includes: at > 0 && random(3) === 0 ? [AUDIENCES[random(at)]!] : [],
  }));
  const pages: PageId[] = [];
  const contents = [];
  for (let n = 0; n < 300; n++) {
    const page = toPageId(`p${n}`);
    const parent = n < 5 ? null : random(8) === 0 ? null : pages[random(n)]!;
    const document = {
      type: 'doc' as const,
      content: [{ type: 'paragraph', content: [{ type: 'text', text: `Text${n}word in the harbour.` }] }],
    };
    const content = contentIdOf(document);
    contents.push(acceptContent({ id: content, document }));
    const only = some();
    const access: AccessChange = {
      ...(random(2) === 0 && only.length > 0 && { only }),
      ...(random(6) === 0 && { except: [AUDIENCES[random(6)]!] }),
      ...(random(5) === 0 && { standsAlone: true }),
      ...(random(3) === 0 && { closedLook: random(2) === 0 ? 'locked' : 'out-of-sight' }),
      ...(random(8) === 0 && { from: random(2) === 0 ? '2020-01-01T00:00:00Z' : '2090-01-01T00:00:00Z' }),
      ...(random(8) === 0 && { engines: random(2) === 0 ? 'page' : 'branch' }),
      ...(random(8) === 0 && { search: random(2) === 0 ? 'page' : 'branch' }),
    };
    operations.push({
      name: 'page.add',
      page,
      place: { parent },
      title: { en: `Title${n}word` },
      description: { en: `Description${n}word` },
      inMenus: random(5) > 0,
      hidden: random(15) === 0 ? (random(2) === 0 ? 'page' : 'branch') : 'no',
      content,
      ...(random(4) === 0 && { access }),
    });
    pages.push(page);
  }
  operations.push({ name: 'release.make', pages: [...pages], retire: [] });
  const site = { ...siteAfter(operations, { ...emptySite(), key: key as Site['key'] }) };
  return { site, contents };
}

async function signIn(key: string, email: string, given: object = {}, origin = server.liveOrigin) {
  const response = await fetch(`${server.liveOrigin}/${key}/sign-in`, {
    method: 'POST',
    headers: { Origin: origin, 'Content-Type': 'application/x-www-form-urlencoded' },
    body: new URLSearchParams({ email, password: PASSWORD, ...given }),
    redirect: 'manual',
  });
  const set = response.headers.getSetCookie()[0] ?? '';
  return { response, set, cookie: set.split(';')[0]!, to: response.headers.get('location') };
}

/** What the core says of each page for a visitor: open, with a lock, or out of sight. */
function answersFor(site: Site, audience: AudienceId) {
  const { outline, addresses } = derivedOf(site);
  const member = closureOf(site.settings.audiences, [audience]);
  const { open, locked } = accessTable(outline, [member], Date.now());
  return outline.nodes.map((node, row) => ({
    number: node.id.slice(1),
    address: addresses[row]!,
    answer: open[row] === 1 ? 'open' : locked[row] === 1 ? 'locked' : 'out',
  }));
}
const WORDS = /(Title|Description|Text)(\d+)word/g;

describe.each(KEYS.slice(0, 2))('the site %s, page by page', (key) => {
  it.each([EVERYONE, ...AUDIENCES])(
    'gives visitors of %s what the rules say, and not a word more',
    async (audience) => {
      const site = sites.get(key)!;
      const cookie = cookies.get(`${key} ${audience}`);
      const answers = answersFor(site, audience);
      const answerOf = new Map(answers.map(({ number, answer }) => [number, answer]));
      const wanted = { open: 200, locked: cookie ? 403 : 401, out: 404 };
      for (const { number, address, answer } of answers) {
        const got = await server.live(`/${key}${address}`, cookie ? { Cookie: cookie } : {});
        expect([number, got.status]).toEqual([number, wanted[answer as keyof typeof wanted]]);
        const everything = got.text + JSON.stringify([...got.headers]);
        for (const [, what, of] of everything.matchAll(WORDS)) {
          const allowed = answerOf.get(of!);
          // A lock shows the entry: its title, and no more of it. A text stands on its own page alone.
          const isAllowed =
            allowed === 'open' ? what !== 'Text' || of === number : allowed === 'locked' && what === 'Title';
          expect([number, what, of, isAllowed]).toEqual([number, what, of, true]);
        }
        const caching = got.headers.get('cache-control')!;
        if (cookie) expect(caching).toMatch(/private|no-store/);
        else if (answer !== 'open') expect([number, /public/.test(caching)]).toEqual([number, answer === 'out']);
        expect(got.headers.get('vary')).toContain('Cookie');
      }
    },
  );

  it.each([EVERYONE, ...AUDIENCES])(
    'finds for visitors of %s what the rules say, and names nothing else',
    async (audience) => {
      const site = sites.get(key)!;
      const cookie = cookies.get(`${key} ${audience}`);
      const held = heldBackRows(derivedOf(site).outline, 'search');
      const answers = answersFor(site, audience);
      const found = new Set(
        answers.filter(({ answer }, row) => answer === 'open' && held[row] === -1).map((one) => one.number),
      );
      const listed = new Set(answers.filter(({ answer }) => answer !== 'out').map((one) => one.number));
      for (const asked of ['harbour', 'harbuor']) {
        const seen = new Set<string>();
        for (let part = 1; part <= Math.max(1, Math.ceil(found.size / 10)); part++) {
          const got = await server.live(`/${key}/search?q=${asked}&part=${part}`, cookie ? { Cookie: cookie } : {});
          expect([got.status, got.headers.get('x-robots-tag')]).toEqual([200, 'noindex']);
          expect(got.headers.get('cache-control')).toMatch(cookie ? /private/ : /no-cache/);
          if (found.size > 0) expect(got.text).toContain(`${found.size} page`);
          const main = got.text.slice(got.text.indexOf('<main'));
          for (const [, number] of main.matchAll(/<li><a href="[^"]*">Title(\d+)word<\/a>/g)) seen.add(number!);
          for (const [, what, of] of got.text.matchAll(WORDS))
            expect([what, of, what === 'Title' ? listed.has(of!) : found.has(of!)]).toEqual([what, of, true]);
        }
        expect([...seen].sort()).toEqual([...found].sort());
      }
      for (const { number } of answers.filter((one) => !found.has(one.number)).slice(0, 15)) {
        const got = await server.live(`/${key}/search?q=Text${number}word`, cookie ? { Cookie: cookie } : {});
        // The words that were asked for stand there, and nothing that the page says.
        expect([
          number,
          got.text.replaceAll(`Text${number}word`, '').match(new RegExp(`(Text|Description)${number}word`)),
        ]).toEqual([number, null]);
      }
    },
  );

  it('offers search engines what everyone can open and nothing holds back, with the file the same for all', async () => {
    const site = sites.get(key)!;
    const { outline } = derivedOf(site);
    const held = heldBackRows(outline, 'engines');
    const offered = answersFor(site, EVERYONE).filter(({ answer }, row) => answer === 'open' && held[row] === -1);
    for (const cookie of [undefined, cookies.get(`${key} a3`)]) {
      const file = await server.live(`/${key}/sitemap.xml`, cookie ? { Cookie: cookie } : {});
      const urls = new XMLParser({ isArray: (name) => name === 'url' }).parse(file.text).urlset.url as {
        loc: string;
      }[];
      expect(urls.map(({ loc }) => new URL(loc).pathname)).toEqual(offered.map(({ address }) => `/${key}${address}`));
    }
    for (const { address, answer } of answersFor(site, EVERYONE).slice(0, 60)) {
      if (answer !== 'open') continue;
      const page = await server.live(`/${key}${address}`);
      const isOffered = offered.some((one) => one.address === address);
      expect([page.headers.get('x-robots-tag'), /name="robots"/.test(page.text)]).toEqual(
        isOffered ? [null, false] : ['noindex', true],
      );
    }
  });
});

describe('a search engine', () => {
  it.each(KEYS.slice(0, 2))('would index of the site %s what is meant to be, and nothing else', async (key) => {
    const ines = await server.person('Ines');
    const { json } = await ines.post(`/api/sites/${key}/engine-looks`, undefined);
    const held = heldBackRows(derivedOf(sites.get(key)!).outline, 'engines');
    const offered = answersFor(sites.get(key)!, EVERYONE).filter(
      ({ answer }, row) => answer === 'open' && held[row] === -1,
    );
    expect(json).toMatchObject({ isWhole: true, intended: offered.length, indexed: offered.length });
    // Where the home page is closed the site's name leads nowhere, and the robot says so.
    const others = json.findings.filter((one: { address: string }) => one.address !== '/');
    expect(others).toEqual([]);
    expect(json.addresses).toBeGreaterThanOrEqual(offered.length);
  });

  it('is said to have nothing to read where nothing is live', async () => {
    const ines = await server.person('Ina');
    await server.site('draft');
    expect((await ines.post('/api/sites/draft/engine-looks', undefined)).json.code).toBe('nothing-live');
  });
});

describe('a visitor', () => {
  const closed = () => {
    const site = sites.get('one')!;
    const locked = answersFor(site, EVERYONE).find(
      ({ number, answer }) =>
        answer === 'locked' &&
        answersFor(site, 'a0' as AudienceId).some((one) => one.number === number && one.answer === 'open'),
    );
    return locked ?? answersFor(site, EVERYONE)[0]!;
  };

  it('signs in where a lock is, and goes on to the page that was asked for', async () => {
    const { address } = closed();
    const page = await server.live(`/one${address}`);
    expect(page.text).toContain(`name="to" value="${address}"`);
    const { response, set, to } = await signIn('one', 'a0@home.example', { to: address });
    expect([response.status, to]).toEqual([303, `/one${address}`]);
    expect(set).toMatch(/Path=\/one;.*HttpOnly; SameSite=Lax/i);
  });

  it('is told the same, with no cookie, for a wrong password and for an address that nobody has', async () => {
    const wrong = await signIn('one', 'a0@home.example', { password: 'wrong' });
    const nobody = await signIn('one', 'nobody@home.example');
    expect([wrong.response.status, nobody.response.status, wrong.set, nobody.set]).toEqual([401, 401, '', '']);
    const words = async ({ response }: typeof wrong) => (await response.text()).replace(/value="[^"]*@[^"]*"/, '');
    expect(await words(wrong)).toBe(await words(nobody));
  });

  it('is not led to another site after signing in', async () => {
    for (const to of [
      '//evil.example/',
      'https://evil.example/',
      '/\\evil.example',
      '/a//evil',
      '/%0d%0aLocation: x',
      'x',
    ]) {
      const { response } = await signIn('one', 'a0@home.example', { to });
      const location = new URL(response.headers.get('location')!, server.liveOrigin);
      expect([to, location.origin, location.pathname.startsWith('/one/')]).toEqual([to, server.liveOrigin, true]);
    }
    expect(wayOn(undefined)).toBe('/');
  });

  it('gets no fault of the server for a form that is too large', async () => {
    const { response } = await signIn('one', 'a0@home.example', { password: 'x'.repeat(20_000) });
    expect([response.status, response.headers.get('cache-control')]).toEqual([413, 'no-store']);
  });

  it('cannot be signed in by another site’s page, nor use the session on another site', async () => {
    const forged = await signIn('one', 'a0@home.example', {}, 'https://evil.example');
    expect([forged.response.status, forged.set]).toEqual([403, '']);
    const site = sites.get('two')!;
    const cookie = cookies.get('one a0')!;
    const anonymous = answersFor(site, EVERYONE)
      .filter(({ answer }) => answer === 'out')
      .slice(0, 20);
    for (const { address } of anonymous)
      expect((await server.live(`/two${address}`, { Cookie: cookie })).status).toBe(404);
  });

  it('loses what was open as soon as the account is changed, suspended or removed, and when signing out', async () => {
    const site = sites.get('three')!;
    const mine = answersFor(site, 'a1' as AudienceId).find(
      ({ number, answer }) =>
        answer === 'open' && answersFor(site, EVERYONE).some((one) => one.number === number && one.answer !== 'open'),
    )!;
    const status = async (cookie: string) => (await server.live(`/three${mine.address}`, { Cookie: cookie })).status;
    const id = ids.get('three a1')!;
    const cookie = cookies.get('three a1')!;
    expect(await status(cookie)).toBe(200);
    await updateVisitor(server.database, site.key, id, { audiences: [] });
    await until('the change has come through', async () => (await status(cookie)) !== 200);
    await updateVisitor(server.database, site.key, id, { audiences: ['a1' as AudienceId], is_suspended: true });
    expect((await signIn('three', 'a1@home.example')).set).toBe('');
    await updateVisitor(server.database, site.key, id, { is_suspended: false });
    const again = (await signIn('three', 'a1@home.example')).cookie;
    await until('it is open again', async () => (await status(again)) === 200);
    await fetch(`${server.liveOrigin}/three/sign-out`, {
      method: 'POST',
      headers: { Origin: server.liveOrigin, Cookie: again },
      redirect: 'manual',
    });
    expect(await status(again)).not.toBe(200);
    const last = (await signIn('three', 'a1@home.example')).cookie;
    await until('it is open once more', async () => (await status(last)) === 200);
    await deleteVisitor(server.database, site.key, id);
    await until('the account is gone', async () => (await status(last)) !== 200);
  });
});

describe('a page with a window', () => {
  it('opens and closes by the clock, without a release', async () => {
    const turn = new Date(Date.now() + 1200).toISOString();
    const site = siteAfter(
      [
        { name: 'page.add', page: toPageId('home'), place: { parent: null }, title: { en: 'Home' } },
        {
          name: 'page.add',
          page: toPageId('b'),
          place: { parent: null },
          title: { en: 'Opens' },
          access: { from: turn },
        },
        {
          name: 'page.add',
          page: toPageId('c'),
          place: { parent: null },
          title: { en: 'Closes' },
          access: { until: turn },
        },
        { name: 'release.make', pages: ['home', 'b', 'c'].map(toPageId), retire: [] },
      ],
      { ...emptySite(), key: 'clock' as Site['key'] },
    );
    await server.site('clock', site);
    const status = async () => [
      (await server.live('/clock/opens')).status,
      (await server.live('/clock/closes')).status,
      ((await server.live('/clock/')).text.match(/Opens|Closes/g) ?? []).join(),
    ];
    expect(await status()).toEqual([404, 200, 'Closes']);
    await until('the clock has turned', async () => (await server.live('/clock/opens')).status === 200);
    expect(await status()).toEqual([200, 404, 'Opens']);
  });
});
