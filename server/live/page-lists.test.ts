import { load } from 'cheerio';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type TextPart, contentIdOf } from '#core/model/content.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';

const KEY = 'listing';
let server: TestServer;
let ines: Person;

const add = (page: string, title: string, parent: string | null = null, more: object = {}) => ({
  name: 'page.add',
  page,
  place: { parent },
  title: { en: title },
  ...more,
});
const list = (attrs: object): TextPart => ({
  type: 'pageList',
  attrs: { of: null, look: 'list', order: 'tree', most: 0, ...attrs },
});
const textOf = (...content: TextPart[]) => {
  const document = { type: 'doc' as const, content };
  return { id: contentIdOf(document), document };
};
const listed = async (path: string) => {
  const $ = load((await server.live(`/${KEY}${path}`)).text);
  return $('.listed')
    .toArray()
    .map((one) =>
      $(one)
        .find('li')
        .toArray()
        .map((item) => $(item).text().replace(/\s+/g, ' ').trim()),
    );
};

beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site(KEY);
  const own = textOf(list({}), list({ order: 'date', look: 'dates', most: 1 }));
  const lost = textOf({ type: 'paragraph', content: [{ type: 'text', text: 'Lost at sea.' }] }, list({ of: 'news' }));
  const ofNews = textOf(list({ of: 'news' }), list({ of: 'shut' }), list({ of: 'gone' }));
  await ines.post(`/api/sites/${KEY}/operations`, {
    operations: [
      { name: 'audience.add', audience: 'crew', title: 'Crew' },
      add('home', 'Home', null, { content: ofNews.id }),
      add('news', 'News', null, { content: own.id, frame: { listing: { look: 'none', levels: 1, order: 'tree' } } }),
      add('first', 'The slip is mended', 'news', { frame: { date: '2026-01-01' } }),
      add('second', 'A new boat', 'news', { frame: { date: '2026-06-01' } }),
      add('inner', 'For the crew', 'news'),
      add('shut', 'Rota'),
      add('below', 'This week', 'shut'),
      add('lost', 'Nothing here', null, { content: lost.id }),
      { name: 'page.set', page: 'lost', fields: { access: { standsIn: 'not-found' } } },
      { name: 'page.set', page: 'inner', fields: { access: { only: ['crew'] } } },
      { name: 'page.set', page: 'shut', fields: { access: { only: ['crew'], closedLook: 'locked' } } },
      { name: 'site.set', fields: { home: 'home' } },
    ],
    contents: [own, ofNews, lost],
  });
  expect((await ines.post(`/api/sites/${KEY}/releases`, { pages: 'all', retire: [] })).status).toBe(200);
  await until('the site is live', async () => (await server.live(`/${KEY}/news`)).status === 200);
});
afterAll(() => server.close());

it('lists the pages below the one that the text is of, as the visitor may open them, and the newest ones with their days', async () => {
  expect(await listed('/news')).toEqual([['The slip is mended', 'A new boat'], ['1 June 2026 A new boat']]);
});

it('lists those below another page; nothing of one that is locked or not there', async () => {
  expect(await listed('/')).toEqual([['The slip is mended', 'A new boat']]);
});

it('lists pages where nothing is found, too', async () => {
  expect(await listed('/no-such-page')).toEqual([['The slip is mended', 'A new boat']]);
});

it('says nothing of what it lists to those who read the source', async () => {
  const { text } = await server.live(`/${KEY}/`);
  expect(text).not.toContain('data-pages');
});
