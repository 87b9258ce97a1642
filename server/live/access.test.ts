import { createHash } from 'node:crypto';
import { XMLParser } from 'fast-xml-parser';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Membership, accessTable, heldBackRows, passphrasesIn, seesSection } from '#core/derive/access.ts';
import { derivedOf } from '#core/derive/derived.ts';
import type { FileContent } from '#core/files/file.ts';
import type { PassphraseId } from '#core/model/access.ts';
import { type AudienceId, EVERYONE, closureOf } from '#core/model/audience.ts';
import { type SectionRule, contentIdOf } from '#core/model/content.ts';
import { toPageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { emptySite, siteAfter } from '#core/testing/random-site.ts';
import {
  AUDIENCES,
  FILES_OF_PAGES,
  FILES_OF_SECTIONS,
  PASSPHRASES,
  SHARED,
  type SharedPlace,
  FILES_OF_FIELDS,
  fileOfField,
  fileOfKept,
  fileOfPage,
  fileOfSection,
  fileOfShared,
  fileOfSharedPart,
  randomLiveSite,
} from '../testing/random-live-site.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';
import { insertPassphrase } from '../security/passphrase-repository.ts';
import { hashOfPassword } from '../security/passwords.ts';
import { deleteVisitor, insertVisitor, updateVisitor } from '../visitors/visitor-repository.ts';
import { wayOn } from './visitor-pages.ts';

const PASSWORD = 'low-water-mark';
const KEYS = ['one', 'two', 'three'];
let server: TestServer;
const sites = new Map<string, Site>();
const cookies = new Map<string, string>();
const ids = new Map<string, string>();
/** Whom the section of each page is for, by site and number; the others have none. */
const sections = new Map<string, SectionRule>();
/** The shared sections of each page, by site and number, and whom the stretches for some in them are for, by site. */
const sharedOn = new Map<string, readonly SharedPlace[]>();
const sharedRules = new Map<string, readonly SectionRule[]>();

/** Who asks in the tests: nobody who is signed in or somebody of one audience, with all passphrases or none. */
const VISITORS = [
  ...[EVERYONE, ...AUDIENCES].map((audience) => ({ audience, gave: false })),
  { audience: EVERYONE, gave: true },
  { audience: 'a2' as AudienceId, gave: true },
];
type Visitor = (typeof VISITORS)[number];
const memberOf = (site: Site, { audience, gave }: Visitor): Membership =>
  new Set([...closureOf(site.settings.audiences, [audience]), ...(gave ? passphrasesIn(site) : [])]);
const cookieOf = (key: string, { audience, gave }: Visitor): string | undefined =>
  [cookies.get(`${key} ${audience}`), gave && cookies.get(`${key} passphrases`)].filter(Boolean).join('; ') ||
  undefined;

beforeAll(async () => {
  server = await startTestServer();
  const password_hash = await hashOfPassword(PASSWORD);
  for (const [at, key] of KEYS.entries()) {
    const { site, contents, sections: ofSite, ...shared } = randomLiveSite(key, at + 1);
    for (const [number, places] of shared.sharedOn) sharedOn.set(`${key} ${number}`, places);
    sharedRules.set(key, shared.sharedRules);
    for (const [number, rule] of ofSite) sections.set(`${key} ${number}`, rule);
    sites.set(key, site);
    await server.site(key, site, contents);
    await fillLibrary(site.key);
    for (const [id, words] of Object.entries(PASSPHRASES))
      await insertPassphrase(server.database, site.key, id as PassphraseId, await hashOfPassword(words));
    for (const audience of AUDIENCES) {
      const id = crypto.randomUUID();
      ids.set(`${key} ${audience}`, id);
      const email = `${audience}@home.example`;
      const given = { id, site: site.key, name: audience, email, password_hash, audiences: [audience] };
      await insertVisitor(server.database, { ...given, is_suspended: false, made_at: new Date() });
      cookies.set(`${key} ${audience}`, (await signIn(key, email)).cookie);
    }
    await giveAllPassphrases(key);
  }
});
afterAll(() => server.close());

const ALL_FILES = [
  ...Array.from({ length: FILES_OF_PAGES }, (_, n) => fileOfPage(n)),
  ...Array.from({ length: FILES_OF_SECTIONS }, (_, n) => fileOfSection(n)),
  ...SHARED.flatMap((_, n) => [fileOfShared(n), fileOfSharedPart(n)]),
  ...Array.from({ length: FILES_OF_FIELDS / 2 }, (_, n) => [fileOfField(2 * n), fileOfKept(2 * n)]).flat(),
];
const contentOfFile = (key: string, file: string) =>
  createHash('sha256').update(`${key} ${file}`).digest('hex').slice(0, 32) as FileContent;

/** Puts the files that the pages show into the library, each with its id as its words. */
async function fillLibrary(site: Site['key']): Promise<void> {
  const rows = ALL_FILES.map((id) => ({
    site,
    id,
    name: id,
    type: 'text/plain',
    content: contentOfFile(site, id),
    bytes: id.length,
    state: 'ready',
    added_at: new Date(),
  }));
  const contents = rows.map(({ content, id }) => ({ site, content, file: id }));
  // A site with the same pages has taken them over from the one before.
  await server.database('file').insert(rows).onConflict(['site', 'id']).merge();
  await server.database('file_content').insert(contents).onConflict(['site', 'content']).merge();
  await Promise.all(rows.map(({ content, id }) => server.store.put(content, 'whole', Buffer.from(id))));
}

async function signIn(key: string, email: string, given: object = {}, origin = server.liveOrigin, cookie = '') {
  const response = await fetch(`${server.liveOrigin}/${key}/sign-in`, {
    method: 'POST',
    headers: { Origin: origin, Cookie: cookie, 'Content-Type': 'application/x-www-form-urlencoded' },
    body: new URLSearchParams({ email, password: PASSWORD, ...given }),
    redirect: 'manual',
  });
  const set = response.headers.getSetCookie()[0] ?? '';
  return { response, set, cookie: set.split(';')[0]!, to: response.headers.get('location') };
}

const givePassphrase = (key: string, to: string, passphrase: string, cookie = '', origin = server.liveOrigin) =>
  fetch(`${server.liveOrigin}/${key}/~passphrase`, {
    method: 'POST',
    headers: { Origin: origin, Cookie: cookie, 'Content-Type': 'application/x-www-form-urlencoded' },
    body: new URLSearchParams({ to, passphrase }),
    redirect: 'manual',
  });

/** Gives the passphrases of a site one after the other, as they are asked for, and keeps the cookie that comes of it. */
async function giveAllPassphrases(key: string): Promise<void> {
  const site = sites.get(key)!;
  let cookie = '';
  for (const { address, answer } of answersFor(site, { audience: EVERYONE, gave: false })) {
    if (!answer.startsWith('asks')) continue;
    for (const words of Object.values(PASSPHRASES)) {
      const response = await givePassphrase(key, address, words, cookie);
      cookie = response.headers.getSetCookie()[0]?.split(';')[0] ?? cookie;
    }
    if ((await server.live(`/${key}${address}`, { Cookie: cookie })).status !== 200)
      for (const words of Object.values(PASSPHRASES)) {
        const response = await givePassphrase(key, address, words, cookie);
        cookie = response.headers.getSetCookie()[0]?.split(';')[0] ?? cookie;
      }
    if (Object.keys(PASSPHRASES).every((id) => cookie.includes(id))) break;
  }
  cookies.set(`${key} passphrases`, cookie);
}

/** What the core says of each page for a visitor: open, with a passphrase, with a lock, with both, or out of sight. */
function answersFor(site: Site, visitor: Visitor) {
  const { outline, addresses } = derivedOf(site);
  const { open, asks, locked } = accessTable(outline, site.settings, [memberOf(site, visitor)], Date.now());
  return outline.nodes.map((node, row) => ({
    number: node.id.slice(1),
    address: addresses[row]!,
    answer:
      open[row] === 1
        ? 'open'
        : asks[row] === 1
          ? locked[row] === 1
            ? 'asks locked'
            : 'asks'
          : locked[row] === 1
            ? 'locked'
            : 'out',
  }));
}
/** The files of the pages that are open to a visitor, and of the sections that they get there. */
function filesFor(site: Site, visitor: Visitor): ReadonlySet<string> {
  const member = memberOf(site, visitor);
  return new Set(
    answersFor(site, visitor).flatMap(({ number, answer }) => {
      if (answer !== 'open') return [];
      const section = sections.get(`${site.key} ${number}`);
      const isInSection = section !== undefined && seesSection(section, member, site.settings);
      return [
        fileOfPage(Number(number)),
        ...(Number(number) % 2 === 0 ? [fileOfField(Number(number))] : []),
        ...(isInSection ? [fileOfSection(Number(number))] : []),
        ...sharedFor(site, number, member).flatMap(({ shared, hasPart }) => [
          fileOfShared(shared),
          ...(hasPart ? [fileOfSharedPart(shared)] : []),
        ]),
      ];
    }),
  );
}
/** The shared sections that an open page shows to somebody, and whether their stretches for some are among it. */
function sharedFor(site: Site, number: string, member: Membership) {
  const section = sections.get(`${site.key} ${number}`);
  return sharedOn
    .get(`${site.key} ${number}`)!
    .filter(({ isInSection }) => !isInSection || seesSection(section!, member, site.settings))
    .map(({ shared }) => ({
      shared,
      hasPart: seesSection(sharedRules.get(site.key)![shared]!, member, site.settings),
    }));
}
const NOBODY = VISITORS[0]!;
const inOf = (audience: string): Visitor => ({ audience: audience as AudienceId, gave: false });
/** What no visitor gets is `Kept`. */
const WORDS = /(Title|Description|Text|Section|Said|Kept)(\d+)word/g;

describe.each(KEYS.slice(0, 2))('the site %s, page by page', (key) => {
  it.each(VISITORS)(
    'gives visitors of $audience (passphrases given: $gave) what the rules say, and not a word more',
    async (visitor) => {
      const site = sites.get(key)!;
      const cookie = cookieOf(key, visitor);
      const isSignedIn = visitor.audience !== EVERYONE;
      const member = memberOf(site, visitor);
      const answers = answersFor(site, visitor);
      const answerOf = new Map(answers.map(({ number, answer }) => [number, answer]));
      const wanted = { open: 200, asks: 401, 'asks locked': 401, locked: isSignedIn ? 403 : 401, out: 404 };
      for (const { number, address, answer } of answers) {
        const got = await server.live(`/${key}${address}`, cookie ? { Cookie: cookie } : {});
        expect([number, got.status]).toEqual([number, wanted[answer as keyof typeof wanted]]);
        const everything = got.text + JSON.stringify([...got.headers]);
        for (const [, what, of] of everything.matchAll(WORDS)) {
          const allowed = answerOf.get(of!);
          // A lock shows the entry: its title, and no more of it. A text stands on its own page alone.
          const isOwn =
            of === number && (what !== 'Section' || seesSection(sections.get(`${key} ${of}`)!, member, site.settings));
          const isAllowed =
            allowed === 'open'
              ? what === 'Title' || what === 'Description' || what === 'Said' || (isOwn && what !== 'Kept')
              : allowed!.endsWith('locked') && what === 'Title';
          expect([number, what, of, isAllowed]).toEqual([number, what, of, true]);
        }
        const ofShared = answer === 'open' ? sharedFor(site, number, member) : [];
        expect([number, ...new Set(everything.match(/Shared(?:Part)?\dword/g) ?? [])].sort()).toEqual(
          [
            number,
            ...new Set(
              ofShared.flatMap(({ shared, hasPart }) => [
                `Shared${shared}word`,
                ...(hasPart ? [`SharedPart${shared}word`] : []),
              ]),
            ),
          ].sort(),
        );
        const section = sections.get(`${key} ${number}`);
        if (answer === 'open' && section)
          expect([number, got.text.includes(`Section${number}word`)]).toEqual([
            number,
            seesSection(section, member, site.settings),
          ]);
        const caching = got.headers.get('cache-control')!;
        if (cookie) expect(caching).toMatch(/private|no-store/);
        else if (answer !== 'open') expect([number, /public/.test(caching)]).toEqual([number, answer === 'out']);
        expect(got.headers.get('vary')).toContain('Cookie');
      }
    },
  );

  it.each(VISITORS)(
    'gives visitors of $audience (passphrases given: $gave) the files of pages that they can open, and no other',
    async (visitor) => {
      const site = sites.get(key)!;
      const cookie = cookieOf(key, visitor);
      const isOpen = filesFor(site, visitor);
      const isOpenToAll = filesFor(site, NOBODY);
      expect([isOpen.size > 10, isOpen.size < ALL_FILES.length]).toEqual([true, true]);
      for (const file of ALL_FILES) {
        const path = `/${key}/~files/${contentOfFile(key, file)}/${file.toLowerCase()}.txt`;
        const got = await server.live(path, cookie ? { Cookie: cookie } : {});
        expect([file, got.status, got.text.includes(file)]).toEqual([
          file,
          isOpen.has(file) ? 200 : 404,
          isOpen.has(file),
        ]);
        if (cookie || !isOpenToAll.has(file)) expect(got.headers.get('cache-control')).toMatch(/private|no-store/);
        else expect(got.headers.get('cache-control')).toMatch(/public.*immutable/);
      }
    },
  );

  it.each(VISITORS)(
    'finds for visitors of $audience (passphrases given: $gave) what the rules say, and names nothing else',
    async (visitor) => {
      const site = sites.get(key)!;
      const cookie = cookieOf(key, visitor);
      const member = memberOf(site, visitor);
      const held = heldBackRows(derivedOf(site).outline, site.settings, 'search');
      const answers = answersFor(site, visitor);
      const found = new Set(
        answers.filter(({ answer }, row) => answer === 'open' && held[row] === -1).map((one) => one.number),
      );
      const listed = new Set(
        answers.filter(({ answer }) => answer === 'open' || answer.endsWith('locked')).map((one) => one.number),
      );
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
      for (const { number } of answers.filter((one) => sections.has(`${key} ${one.number}`)).slice(0, 25)) {
        const got = await server.live(`/${key}/search?q="Section${number}word"`, cookie ? { Cookie: cookie } : {});
        const isMine = found.has(number) && seesSection(sections.get(`${key} ${number}`)!, member, site.settings);
        expect([number, got.text.includes(`>Title${number}word</a>\n`)]).toEqual([number, isMine]);
      }
      for (const n of SHARED.keys()) {
        const got = await server.live(`/${key}/search?q=Shared${n}word`, cookie ? { Cookie: cookie } : {});
        const seen = [...got.text.matchAll(/<li><a href="[^"]*">Title(\d+)word<\/a>\n/g)].map(([, number]) => number!);
        // Within stretches for some, shared words are shown and not found.
        const isForAll = (number: string) => {
          const rule = sections.get(`${key} ${number}`);
          return rule?.only === null && rule.except.length === 0;
        };
        const wanted = [...found].filter((number) =>
          sharedOn
            .get(`${key} ${number}`)!
            .some(({ shared, isInSection }) => shared === n && (!isInSection || isForAll(number))),
        );
        // The first part has ten.
        expect([n, seen.length, seen.filter((one) => !wanted.includes(one))]).toEqual([
          n,
          Math.min(10, wanted.length),
          [],
        ]);
      }
      for (const { number } of answers.filter((one) => !found.has(one.number)).slice(0, 15)) {
        const got = await server.live(`/${key}/search?q=Text${number}word`, cookie ? { Cookie: cookie } : {});
        // The words that were asked for stand there, and nothing that the page says.
        expect([
          number,
          got.text.replaceAll(`Text${number}word`, '').match(new RegExp(`(Text|Description|Section)${number}word`)),
        ]).toEqual([number, null]);
      }
    },
  );

  it('offers search engines what everyone can open and nothing holds back, with the file the same for all', async () => {
    const site = sites.get(key)!;
    const { outline } = derivedOf(site);
    const held = heldBackRows(outline, site.settings, 'engines');
    const offered = answersFor(site, NOBODY).filter(({ answer }, row) => answer === 'open' && held[row] === -1);
    for (const cookie of [undefined, cookies.get(`${key} a3`)]) {
      const file = await server.live(`/${key}/sitemap.xml`, cookie ? { Cookie: cookie } : {});
      const urls = new XMLParser({ isArray: (name) => name === 'url' }).parse(file.text).urlset.url as {
        loc: string;
      }[];
      expect(urls.map(({ loc }) => new URL(loc).pathname)).toEqual(offered.map(({ address }) => `/${key}${address}`));
    }
    for (const { address, answer } of answersFor(site, NOBODY).slice(0, 60)) {
      if (answer !== 'open') continue;
      const page = await server.live(`/${key}${address}`);
      const isOffered = offered.some((one) => one.address === address);
      expect([page.headers.get('x-robots-tag'), /name="robots"/.test(page.text)]).toEqual(
        isOffered ? [null, false] : ['noindex', true],
      );
    }
  });
});

/** Waits until a look that was begun is done; one that a slow machine did not let end is begun again. */
async function lookIsDone(by: Person, path: string): Promise<void> {
  const isDone = async () => {
    const { state } = (await by.get(path)).json;
    if (state === 'failed') await by.post(path, undefined);
    return state === 'done';
  };
  await until('the robot has read the site', isDone, 60_000);
}

describe('a search engine', () => {
  it.each(KEYS.slice(0, 2))('would index of the site %s what is meant to be, and nothing else', async (key) => {
    const ines = await server.person('Ines');
    expect((await ines.get(`/api/sites/${key}/engine-look`)).json.state).toBe('none');
    expect((await ines.post(`/api/sites/${key}/engine-look`, undefined)).json.state).toBe('running');
    await lookIsDone(ines, `/api/sites/${key}/engine-look`);
    const json = (await ines.get(`/api/sites/${key}/engine-look`)).json.report;
    const held = heldBackRows(derivedOf(sites.get(key)!).outline, sites.get(key)!.settings, 'engines');
    const offered = answersFor(sites.get(key)!, NOBODY).filter(
      ({ answer }, row) => answer === 'open' && held[row] === -1,
    );
    expect(json).toMatchObject({ isWhole: true, intended: offered.length, indexed: offered.length });
    // Where the home page is closed the site's name leads nowhere, and the robot says so.
    const others = json.findings.filter((one: { address: string }) => one.address !== '/');
    expect(others).toEqual([]);
    expect(json.addresses).toBeGreaterThanOrEqual(offered.length);
  });

  it('stops when it is told to, and what it found before stays', async () => {
    const ines = await server.person('Ines');
    const path = '/api/sites/one/engine-look';
    const before = (await ines.get(path)).json.report;
    await ines.post(path, undefined);
    expect((await ines.send('DELETE', path)).json).toMatchObject({ state: 'stopped', report: before });
    // Another one begins as if the first had never been.
    await ines.post(path, undefined);
    await lookIsDone(ines, path);
    expect((await ines.get(path)).json.report.readAt).not.toBe(before.readAt);
  });

  it('is said to have nothing to read where nothing is live', async () => {
    const ines = await server.person('Ina');
    await server.site('draft');
    expect((await ines.post('/api/sites/draft/engine-look', undefined)).json.code).toBe('nothing-live');
  });
});

describe('a visitor', () => {
  const closed = () => {
    const site = sites.get('one')!;
    const locked = answersFor(site, NOBODY).find(
      ({ number, answer }) =>
        answer === 'locked' &&
        answersFor(site, inOf('a0')).some((one) => one.number === number && one.answer === 'open'),
    );
    return locked ?? answersFor(site, NOBODY)[0]!;
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
    for (const up of ['/../other', '/a/../../b', '/%2e%2e/other', '/a/.', '/..']) expect(wayOn(up)).toBe('/');
    expect(wayOn('/a..b/c.')).toBe('/a..b/c.');
  });

  it('gets a session of their own, whatever cookie came with the form, and the one before ends', async () => {
    const { address } = closed();
    const status = async (cookie: string) => (await server.live(`/one${address}`, { Cookie: cookie })).status;
    const chosen = 'spur.visitor=chosen-by-somebody-else-0000';
    const first = await signIn('one', 'a0@home.example', {}, server.liveOrigin, chosen);
    expect(first.cookie).not.toBe(chosen);
    expect([await status(first.cookie), (await status(chosen)) === 200]).toEqual([200, false]);
    const second = await signIn('one', 'a0@home.example', {}, server.liveOrigin, first.cookie);
    expect(second.cookie).not.toBe(first.cookie);
    expect([await status(second.cookie), (await status(first.cookie)) === 200]).toEqual([200, false]);
  });

  it('is answered by the same work whether or not an address has an account', async () => {
    const workFor = async (path: string, fields: Record<string, string>) => {
      const asked: string[] = [];
      const note = ({ sql }: { sql: string }) => void asked.push(sql);
      server.database.on('query', note);
      await fetch(`${server.liveOrigin}/one/${path}`, {
        method: 'POST',
        headers: { Origin: server.liveOrigin, 'Content-Type': 'application/x-www-form-urlencoded' },
        body: new URLSearchParams(fields),
      });
      server.database.off('query', note);
      return asked;
    };
    for (const [path, fields] of [
      ['sign-in', { password: 'wrong', to: '/' }],
      ['~password', {}],
    ] as const) {
      const known = await workFor(path, { ...fields, email: 'a2@home.example' });
      const unknown = await workFor(path, { ...fields, email: 'no-one@home.example' });
      expect(known.length).toBeGreaterThan(0);
      expect(unknown).toEqual(known);
    }
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
    const anonymous = answersFor(site, NOBODY)
      .filter(({ answer }) => answer === 'out')
      .slice(0, 20);
    for (const { address } of anonymous)
      expect((await server.live(`/two${address}`, { Cookie: cookie })).status).toBe(404);
  });

  it('loses what was open as soon as the account is changed, suspended or removed, and when signing out', async () => {
    const site = sites.get('three')!;
    const mine = answersFor(site, inOf('a1')).find(
      ({ number, answer }) =>
        answer === 'open' && answersFor(site, NOBODY).some((one) => one.number === number && one.answer !== 'open'),
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

describe('a passphrase', () => {
  const site = () => sites.get('one')!;
  const asking = () => answersFor(site(), NOBODY).find(({ answer }) => answer === 'asks')!;

  it('is asked for at the address of the page, and a wrong one opens nothing', async () => {
    const { address } = asking();
    const page = await server.live(`/one${address}`);
    expect([page.status, page.headers.get('cache-control')]).toEqual([401, 'no-store']);
    expect(page.text).toContain('action="/one/~passphrase"');
    const wrong = await givePassphrase('one', address, 'neap tide');
    expect([wrong.status, wrong.headers.getSetCookie()]).toEqual([401, []]);
    expect(await wrong.text()).toContain('This is not the passphrase');
  });

  it('leads on to the page, for the branch, by a cookie that is for this site alone', async () => {
    const { address } = asking();
    let cookie = '';
    for (const words of [...Object.values(PASSPHRASES), ...Object.values(PASSPHRASES)]) {
      const given = await givePassphrase('one', address, ` ${words} `, cookie);
      const set = given.headers.getSetCookie()[0];
      if (set) expect(set).toMatch(/^spur\.passphrases=[^;]+;.*Path=\/one;.*HttpOnly; SameSite=Lax/i);
      cookie = set?.split(';')[0] ?? cookie;
    }
    const page = await server.live(`/one${address}`, { Cookie: cookie });
    expect([page.status, page.headers.get('cache-control')]).toEqual([200, 'private, no-cache']);
    const elsewhere = answersFor(sites.get('two')!, NOBODY).filter(({ answer }) => answer.startsWith('asks'));
    for (const one of elsewhere.slice(0, 5))
      expect((await server.live(`/two${one.address}`, { Cookie: cookie })).status).toBe(401);
    for (const forged of [cookie.slice(0, -2), cookie.replace(/\.[^.]+$/, '.'), 'spur.passphrases=passphraseNumber0.x'])
      expect((await server.live(`/one${address}`, { Cookie: forged })).status).toBe(401);
  });

  it('is not taken from another site’s page, leads to no other site, and is guessed a few times only', async () => {
    const { address } = asking();
    expect((await givePassphrase('one', address, 'ebb and flow', '', 'https://evil.example')).status).toBe(403);
    const out = await givePassphrase('one', '//evil.example/', 'ebb and flow');
    expect(new URL(out.headers.get('location')!, server.liveOrigin).origin).toBe(server.liveOrigin);
    const statuses = [];
    for (let tries = 0; tries < 10; tries++) statuses.push((await givePassphrase('one', address, 'guess')).status);
    expect(statuses).toContain(429);
    expect(statuses.at(-1)).toBe(429);
  });
});

describe('16: the address of a page that asks for a passphrase and shows no lock', () => {
  const key = 'quiet';
  const page = (id: string, title: string, more: object = {}) => ({
    name: 'page.add',
    page: id,
    place: { parent: null },
    title: { en: title },
    ...more,
  });
  let ines: Person;
  beforeAll(async () => {
    ines = await server.person('Ines');
    await server.site(key);
    const { id } = (await ines.post(`/api/sites/${key}/passphrases`, { words: 'slack water' })).json;
    const text = {
      type: 'doc',
      content: [
        {
          type: 'paragraph',
          content: [{ type: 'text', text: 'the merger', marks: [{ type: 'link', attrs: { href: 'page:plans' } }] }],
        },
      ],
    };
    const content = contentIdOf(text as never);
    await ines.post(`/api/sites/${key}/operations`, {
      operations: [
        page('home', 'Home', { content }),
        page('plans', 'Old plans', { access: { passphrase: id, closedLook: 'out-of-sight' } }),
      ],
      contents: [{ id: content, document: text }],
    });
    await ines.post(`/api/sites/${key}/releases`, { pages: 'all', retire: [] });
    await ines.operations(key, { name: 'page.set', page: 'plans', fields: { title: { en: 'Secret merger' } } });
    await ines.post(`/api/sites/${key}/releases`, { pages: 'all', retire: [] });
  });

  it('stands in no link of a text, and in no exported rule', async () => {
    const home = await server.live(`/${key}/`);
    expect(home.text).toContain('the merger');
    expect(home.text).not.toContain('secret-merger');
    for (const name of ['redirects.csv', 'redirects.nginx', 'redirects.apache'])
      expect((await ines.get(`/api/sites/${key}/exports/${name}`)).text).not.toContain('secret-merger');
  });

  it('is told by a former address only to who has given the passphrase there', async () => {
    const before = await server.live(`/${key}/old-plans`);
    expect([before.status, before.headers.get('location')]).toEqual([401, null]);
    expect(before.text).not.toContain('ecret');
    expect((await givePassphrase(key, '/old-plans', 'ebb')).status).toBe(401);
    const given = await givePassphrase(key, '/old-plans', 'slack water');
    const cookie = given.headers.getSetCookie()[0]!.split(';')[0]!;
    expect(given.headers.get('location')).toBe(`/${key}/old-plans`);
    const after = await server.live(`/${key}/old-plans`, { Cookie: cookie });
    expect([after.status, after.headers.get('location')]).toEqual([301, `/${key}/secret-merger`]);
    expect(after.headers.get('cache-control')).toBe('private, no-cache');
    expect((await server.live(`/${key}/secret-merger`, { Cookie: cookie })).status).toBe(200);
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
