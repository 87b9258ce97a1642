import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AccessChange } from '#core/model/access.ts';
import type { AudienceId } from '#core/model/audience.ts';
import { contentIdOf } from '#core/model/content.ts';
import { toPageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import type { Operation } from '#core/operations/operation.ts';
import { emptySite, siteAfter } from '#core/testing/random-site.ts';
import { acceptContent } from '../contents/content-service.ts';
import { hashOfPassword } from '../security/passwords.ts';
import { type TestServer, startTestServer } from '../testing/test-server.ts';
import { insertVisitor } from '../visitors/visitor-repository.ts';

const STAFF = 'staff' as AudienceId;
const CREW = 'crew' as AudienceId;
let server: TestServer;
let cookie: string;

function text(words: string) {
  const document = { type: 'doc' as const, content: [{ type: 'paragraph', content: [{ type: 'text', text: words }] }] };
  return acceptContent({ id: contentIdOf(document), document });
}
const PAGES: readonly [id: string, title: string, access: AccessChange | null][] = [
  ['home', 'Home', null],
  ['door', 'Come aboard', { standsIn: 'sign-in', menuFor: 'signed-out' }],
  ['mine', 'My berth', { standsIn: 'account', menuFor: 'signed-in' }],
  ['no', 'Not for you', { standsIn: 'no-access' }],
  ['secret', 'Hidden sign', { standsIn: 'not-found', only: [CREW] }],
  ['lost', 'Lost at sea', { standsIn: 'not-found' }],
  ['log', 'The log', { only: [STAFF], closedLook: 'locked' }],
  ['bridge', 'The bridge', { only: [CREW], closedLook: 'locked' }],
  ['deck', 'The deck', { only: [CREW], closedLook: 'locked-for' }],
];

beforeAll(async () => {
  server = await startTestServer();
  const operations: Operation[] = [STAFF, CREW].map((audience) => ({
    name: 'audience.add',
    audience,
    title: audience,
  }));
  for (const [id, title, access] of PAGES)
    operations.push({
      name: 'page.add',
      page: toPageId(id),
      place: { parent: null },
      title: { en: title },
      content: text(`Words of ${id}.`).id,
      ...(access && { access }),
    });
  operations.push({ name: 'release.make', pages: PAGES.map(([id]) => toPageId(id)), retire: [] });
  const site = { ...siteAfter(operations, { ...emptySite(), key: 'boat' as Site['key'] }) };
  await server.site(
    'boat',
    site,
    PAGES.map(([id]) => text(`Words of ${id}.`)),
  );
  const account = { id: crypto.randomUUID(), site: site.key, name: 'Bram', email: 'bram@home.example' };
  const password_hash = await hashOfPassword('low-water-mark');
  await insertVisitor(server.database, {
    ...account,
    password_hash,
    audiences: [STAFF],
    is_suspended: false,
    made_at: new Date(),
  });
  const response = await fetch(`${server.liveOrigin}/boat/sign-in`, {
    method: 'POST',
    headers: { Origin: server.liveOrigin, 'Content-Type': 'application/x-www-form-urlencoded' },
    body: new URLSearchParams({ email: account.email, password: 'low-water-mark' }),
    redirect: 'manual',
  });
  cookie = response.headers.getSetCookie()[0]!.split(';')[0]!;
});
afterAll(() => server.close());

const get = async (path: string, isSignedIn = false) => {
  const { status, text: page, headers } = await server.live(`/boat${path}`, isSignedIn ? { Cookie: cookie } : {});
  const menu = page.slice(page.indexOf('aria-label="Main"'), page.indexOf('</header>'));
  return { status, page, menu, headers };
};

describe('a page of the site', () => {
  it('is the sign-in page: behind a lock, by its own address, and where a password was wrong', async () => {
    const behind = await get('/the-log');
    expect([behind.status, behind.page.includes('<h1>Come aboard</h1>')]).toEqual([401, true]);
    expect(behind.page).toContain('Words of door.');
    expect(behind.page).toContain('name="to" value="/the-log"');
    const own = await get('/come-aboard');
    expect([own.status, own.headers.get('cache-control')]).toEqual([200, 'no-store']);
    expect(own.page).toContain('name="password"');
    expect((await get('/come-aboard', true)).page).toContain('You are signed in.');
    expect((await get('/')).page).toContain('href="/boat/come-aboard">Sign in</a>');
  });

  it('is what those get who are signed in and may not open a page', async () => {
    const { status, page } = await get('/the-bridge', true);
    expect(status).toBe(403);
    expect(page).toContain('<h1>Not for you</h1>');
    expect(page).not.toContain('Words of bridge.');
  });

  it('16: tells behind a lock to whom the page is open where its rule says so, and nowhere else', async () => {
    expect((await get('/the-deck')).page).toContain('‘The deck’ is not open to everyone. It is open to crew. Sign in');
    const signedIn = await get('/the-deck', true);
    expect([signedIn.status, signedIn.page.includes('It is open to crew.')]).toEqual([403, true]);
    for (const path of ['/the-log', '/the-bridge']) expect((await get(path)).page).not.toContain('It is open to');
  });

  it('is the not-found page; one that the visitor may not open is left out', async () => {
    const { status, page, headers } = await get('/nothing-here');
    expect([status, headers.get('x-robots-tag')]).toEqual([404, 'noindex']);
    expect(page).toContain('<h1>Lost at sea</h1>');
    expect(page).not.toMatch(/Hidden sign|Words of secret/);
  });

  it('is the account page, with the way out; who is not signed in gets the sign-in page', async () => {
    const mine = await get('/my-berth', true);
    expect(mine.page).toContain('action="/boat/sign-out"');
    expect(mine.headers.get('cache-control')).toContain('private');
    const before = await get('/my-berth');
    expect([before.status, before.page.includes('name="to" value="/my-berth"')]).toEqual([401, true]);
  });

  it('has an entry in menus for visitors who are signed in, or for those who are not', async () => {
    const [out, signedIn] = [(await get('/')).menu, (await get('/', true)).menu];
    expect([out.includes('Come aboard'), out.includes('My berth')]).toEqual([true, false]);
    expect([signedIn.includes('Come aboard'), signedIn.includes('My berth')]).toEqual([false, true]);
  });

  it('is not found by search, and not offered to engines', async () => {
    const sitemap = (await server.live('/boat/sitemap.xml')).text;
    expect(sitemap).not.toMatch(/come-aboard|lost-at-sea|not-for-you|my-berth/);
    const results = (await get('/search?q=words')).page;
    expect(results.slice(results.indexOf('<main'))).not.toMatch(
      /<li><a href="[^"]*">(Come aboard|Lost at sea|Not for you)/,
    );
  });
});
