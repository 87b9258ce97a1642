import { load } from 'cheerio';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AudienceId } from '#core/model/audience.ts';
import { contentIdOf } from '#core/model/content.ts';
import { toSiteKey } from '#core/model/ids.ts';
import { hashOfPassword } from '../security/passwords.ts';
import { insertVisitor } from '../visitors/visitor-repository.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';

const KEY = 'framed';
const PASSWORD = 'low-water-mark';
let server: TestServer;
let ines: Person;

const add = (page: string, title: string, parent: string | null = null, more: object = {}) => ({
  name: 'page.add',
  page,
  place: { parent },
  title: { en: title },
  ...more,
});
const frame = (page: string, change: object) => ({ name: 'page.set', page, fields: { frame: change } });
const pageAt = async (path: string) => load((await server.live(`/${KEY}${path}`)).text);
const texts = ($: ReturnType<typeof load>, selector: string) =>
  $(selector)
    .toArray()
    .map((one) => $(one).text().replace(/\s+/g, ' ').trim());

beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site(KEY);
  const document = {
    type: 'doc' as const,
    content: [
      {
        type: 'paragraph',
        content: [
          { type: 'text', text: 'Ring ' },
          { type: 'fact', attrs: { id: 'telephone' } },
          { type: 'text', text: ' or ' },
          { type: 'fact', attrs: { id: 'gone' } },
          { type: 'text', text: '.' },
        ],
      },
    ],
  };
  const content = contentIdOf(document);
  await ines.post(`/api/sites/${KEY}/operations`, {
    operations: [
      { name: 'site.set', fields: { name: 'The Quay' } },
      { name: 'fact.set', fact: 'telephone', fields: { text: '01632 960 001 <day>' } },
      { name: 'fact.set', fact: 'strapline', fields: { text: 'Boats & tides' } },
      { name: 'layout.add', layout: 'tall', title: 'Tall', fields: { header: 'tall', hasTurns: true } },
      { name: 'layout.add', layout: 'bare', title: 'Bare', fields: { header: 'none', hasFooter: false } },
      add('home', 'Home'),
      add('courses', 'Courses', null, { frame: { layout: 'tall' } }),
      add('first', 'Zebrawood', 'courses', { frame: { date: '2026-01-01' } }),
      add('second', 'Alder', 'courses', { frame: { date: '2026-06-01' } }),
      add('links', 'Links', null, { content, frame: { layout: 'bare' } }),
      add('all', 'All pages', null, {
        inMenus: false,
        frame: { listing: { look: 'sitemap', levels: 2, order: 'tree' } },
      }),
    ],
    contents: [{ id: content, document }],
  });
  await release();
});
afterAll(() => server.close());

async function release(): Promise<void> {
  const done = await ines.post(`/api/sites/${KEY}/releases`, { pages: 'all', retire: [] });
  expect(done.status).toBe(200);
}

describe('a layout', () => {
  it('frames the pages that name it, and those below them', async () => {
    await until('the site is live', async () => (await server.live(`/${KEY}/courses/alder`)).status === 200);
    const below = await pageAt('/courses/alder');
    expect(below('header').attr('class')).toContain('head-tall');
    expect(texts(below, '.strapline')).toEqual(['Boats & tides']);
    expect(texts(below, 'nav[aria-label="Previous and next"] a')).toEqual(['Previous Zebrawood']);
    expect((await pageAt('/'))('header').attr('class')).toContain('head-band');
  });

  it('goes without header and footer where it is told to', async () => {
    const links = await pageAt('/links');
    expect(links('header').length + links('footer').length).toBe(0);
    expect(links('main').length).toBe(1);
  });
});

describe('a fact', () => {
  it('is said in texts and footers, as text, and nothing is said of one that is not there', async () => {
    expect(texts(await pageAt('/links'), 'main p')).toEqual(['Ring 01632 960 001 <day> or .']);
    expect(texts(await pageAt('/'), 'footer .facts li')).toEqual(['Telephone 01632 960 001 <day>']);
  });

  it('is found in the texts that name it', async () => {
    const find = async (fact: string) => (await ines.get(`/api/sites/${KEY}/find?fact=${fact}`)).json.pages;
    expect(await find('telephone')).toEqual(['links']);
    expect(await find('mail')).toEqual([]);
  });

  it('says what it says now after a release of the settings alone', async () => {
    await ines.operations(KEY, { name: 'fact.set', fact: 'telephone', fields: { text: '01632 960 002' } });
    expect(texts(await pageAt('/links'), 'main p')[0]).toContain('960 001');
    await release();
    await until('visitors read it', async () => texts(await pageAt('/links'), 'main p')[0]!.includes('960 002'));
  });

  it('leads to a call or a letter where it is a number or an address, and stands in headers where it is told to', async () => {
    await ines.operations(
      KEY,
      { name: 'fact.set', fact: 'telephone', fields: { inHeader: true } },
      { name: 'fact.set', fact: 'mail', fields: { text: 'desk@quay.example' } },
    );
    await release();
    await until('visitors have it', async () => texts(await pageAt('/'), 'header .facts li').length > 0);
    const home = await pageAt('/');
    expect(texts(home, 'header .facts a[href="tel:01632960002"]')).toEqual(['01632 960 002']);
    expect(texts(home, 'footer .facts a[href="mailto:desk@quay.example"]')).toEqual(['desk@quay.example']);
    expect(texts(await pageAt('/links'), 'main p a[href="tel:01632960002"]')).toEqual(['01632 960 002']);
    await ines.operations(KEY, { name: 'fact.set', fact: 'telephone', fields: { inHeader: false } });
    await release();
    await until('it is gone', async () => texts(await pageAt('/'), 'header .facts li').length === 0);
  });

  it.each([{ attrs: { id: 'no such id' } }, { attrs: {} }])(
    'is refused in a text where it is no id: %j',
    async (part) => {
      const document = { type: 'doc' as const, content: [{ type: 'paragraph', content: [{ type: 'fact', ...part }] }] };
      const id = contentIdOf(document);
      const answer = await ines.post(`/api/sites/${KEY}/operations`, {
        operations: [{ name: 'page.set', page: 'home', fields: { content: id } }],
        contents: [{ id, document }],
      });
      expect(answer.status).toBe(422);
    },
  );
});

describe('a page for visitors', () => {
  it('has a sign of its own, a search in each header, and a name for each landmark, also where one menu stands twice', async () => {
    const main = 'main';
    await ines.operations(
      KEY,
      {
        name: 'layout.add',
        layout: 'twice',
        title: 'Twice',
        fields: { header: 'slim', menus: { utility: null, header: main, side: null, footer: main } },
      },
      frame('home', { layout: 'twice' }),
      frame('first', { layout: 'twice' }),
    );
    await release();
    await until('it is framed so', async () => (await pageAt('/'))('header').attr('class')!.includes('head-slim'));
    const home = await pageAt('/');
    expect(home('link[rel=icon]').attr('href')).toMatch(/^data:image\/svg\+xml,.*%3ET%3C/);
    expect(home('header form[role=search]').length).toBe(1);
    const names = home('nav')
      .toArray()
      .map((nav) => home(nav).attr('aria-label'));
    expect([names.length > 1, new Set(names).size]).toEqual([true, names.length]);
  });

  it('has no empty paragraphs', async () => {
    const text = (words: string) => ({ type: 'paragraph', ...(words && { content: [{ type: 'text', text: words }] }) });
    const document = { type: 'doc' as const, content: [text('One.'), text(''), text(''), text('Two.')] };
    const id = contentIdOf(document);
    const done = await ines.post(`/api/sites/${KEY}/operations`, {
      operations: [{ name: 'page.set', page: 'second', fields: { content: id } }],
      contents: [{ id, document }],
    });
    expect(done.status).toBe(200);
    await release();
    await until('it is live', async () => texts(await pageAt('/courses/alder'), 'main p').includes('Two.'));
    expect(texts(await pageAt('/courses/alder'), 'main > p')).toEqual(['One.', 'Two.']);
  });
});

describe('a page that lists others', () => {
  it('has them as it is told: in whatever order, as cards, from A to Z, or the whole site', async () => {
    const names = async (path: string, selector: string) => texts(await pageAt(path), selector);
    expect(await names('/courses', '.section a')).toEqual(['Zebrawood', 'Alder']);
    expect(await names('/all-pages', '.sitemap a')).toEqual(['Home', 'Courses', 'Zebrawood', 'Alder', 'Links']);
    await ines.operations(KEY, frame('courses', { listing: { look: 'cards', levels: 1, order: 'date' } }));
    await release();
    await until('the newest comes first', async () => (await names('/courses', '.cards a'))[0] === 'Alder');
    await ines.operations(KEY, frame('courses', { listing: { look: 'a to z', levels: 1, order: 'tree' } }));
    await release();
    await until('they stand under letters', async () => (await names('/courses', '.by-letter .text')).join() === 'A,Z');
  });
});

describe('an entry for an audience', () => {
  it('shows to them alone, where no page has a rule', async () => {
    const staff = 'staff' as AudienceId;
    await ines.operations(
      KEY,
      { name: 'audience.add', audience: staff, title: 'Staff' },
      {
        name: 'entry.add',
        menu: 'main',
        entry: 'rota',
        label: { en: 'Rota' },
        target: { url: 'https://rota.example/' },
        only: [staff],
        under: null,
      },
    );
    await release();
    const password_hash = await hashOfPassword(PASSWORD);
    const signedIn = async (name: string, audiences: AudienceId[]): Promise<Record<string, string>> => {
      const email = `${name}@home.example`;
      const given = { id: crypto.randomUUID(), site: toSiteKey(KEY), name, email, password_hash, audiences };
      await insertVisitor(server.database, { ...given, is_suspended: false, made_at: new Date() });
      const response = await fetch(`${server.liveOrigin}/${KEY}/sign-in`, {
        method: 'POST',
        headers: { Origin: server.liveOrigin, 'Content-Type': 'application/x-www-form-urlencoded' },
        body: new URLSearchParams({ email, password: PASSWORD }),
        redirect: 'manual',
      });
      return { Cookie: response.headers.getSetCookie()[0]!.split(';')[0]! };
    };
    const [bram, petra] = [await signedIn('bram', [staff]), await signedIn('petra', [])];
    const menuFor = async (headers: Record<string, string>) =>
      texts(load((await server.live(`/${KEY}/`, headers)).text), 'nav[aria-label="Main"] a');
    await until('staff have it', async () => (await menuFor(bram)).includes('Rota'));
    expect(await menuFor(petra)).not.toContain('Rota');
    expect(await menuFor({})).not.toContain('Rota');
    expect(await menuFor(bram)).toContain('Rota');
  });
});
