import { load } from 'cheerio';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type TextPart, contentIdOf } from '#core/model/content.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';

const KEY = 'shared';
let server: TestServer;
let ines: Person;

const line = (text: string): TextPart => ({ type: 'paragraph', content: [{ type: 'text', text }] });
const place = (of: string): TextPart => ({ type: 'shared', attrs: { of } });
const textOf = (...content: TextPart[]) => {
  const document = { type: 'doc' as const, content };
  return { id: contentIdOf(document), document };
};
const add = (page: string, title: string, content: string | null) => ({
  name: 'page.add',
  page,
  place: { parent: null },
  title: { en: title },
  ...(content && { content }),
});
const HOURS = textOf(
  { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: 'When we are there' }] },
  line('Closed at noon.'),
  { type: 'button', attrs: { to: 'page:slip' }, content: [{ type: 'text', text: 'here' }] },
);
const NEW_HOURS = textOf(line('Open at noon.'));
const OWN = textOf(
  { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: 'When we are there' }] },
  line('The slip.'),
  place('hours'),
);
const OTHER = textOf(place('hours'), line('The pier.'), place('gone'));

const edit = async (operations: object[], contents: object[] = []) => {
  const answer = await ines.post(`/api/sites/${KEY}/operations`, { operations, contents });
  expect([answer.status, answer.json.detail]).toEqual([200, undefined]);
};
const release = async (body: object) => {
  expect((await ines.post(`/api/sites/${KEY}/releases`, { pages: [], retire: [], ...body })).status).toBe(200);
};
const words = async (path: string) =>
  load((await server.live(`/${KEY}${path}`)).text)('main')
    .text()
    .replace(/\s+/g, ' ')
    .trim();
const found = async (query: string) =>
  ((await ines.get(`/api/sites/${KEY}/find?${query}`)).json.pages as string[]).sort();
const foundByVisitors = async (word: string) =>
  load((await server.live(`/${KEY}/search?q=${word}`)).text)('main li a')
    .toArray()
    .map((one) => load(one).text());

beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site(KEY);
  await edit(
    [
      { name: 'shared.add', shared: 'hours', title: 'Opening hours', content: HOURS.id },
      add('slip', 'The slip', OWN.id),
      add('pier', 'The pier', OTHER.id),
      add('buoy', 'The buoy', null),
      { name: 'site.set', fields: { home: 'buoy' } },
    ],
    [HOURS, OWN, OTHER],
  );
  await release({ pages: 'all', settings: ['shared'] });
  await until('the site is live', async () => (await server.live(`/${KEY}/the-pier`)).status === 200);
});
afterAll(() => server.close());

it('stands on each page that shows it; one that is not there shows nothing', async () => {
  expect(await words('/the-slip')).toContain('The slip.When we are thereClosed at noon.');
  expect(await words('/the-pier')).toMatch(/Closed at noon\.here *The pier\.$/);
});

it('leaves the anchors of a page’s own headings as they are, and leads where its links lead', async () => {
  const $ = load((await server.live(`/${KEY}/the-slip`)).text);
  expect(
    $('main h2')
      .toArray()
      .map((one) => $(one).attr('id')),
  ).toEqual(['when-we-are-there', undefined]);
  expect($('main .button a').attr('href')).toBe(`/${KEY}/the-slip`);
});

it('is looked for: by what it says and by itself, in the workbench and by visitors', async () => {
  expect(await found('shared=hours')).toEqual(['pier', 'slip']);
  expect(await found('text=closed+at+noon')).toEqual(['pier', 'slip']);
  expect(await found('shared=gone')).toEqual(['pier']);
  expect((await foundByVisitors('noon')).sort()).toEqual(['The pier', 'The slip']);
  // Mistyped, too: its words are among those that the site has.
  expect((await foundByVisitors('closde')).sort()).toEqual(['The pier', 'The slip']);
});

it('has its links and faults told with the pages that show it', async () => {
  const { draftFaults, draft } = (await ines.get(`/api/sites/${KEY}/text-links`)).json;
  const links = (draft as { page: string; to: string }[]).map(({ page, to }) => `${page} ${to}`);
  expect(links.sort()).toEqual(['pier slip', 'slip slip']);
  const faults = (draftFaults as { page: string; fault: string }[]).map(({ page, fault }) => `${page} ${fault}`);
  expect(faults.sort()).toEqual(['pier link words', 'pier no shared', 'slip link words']);
});

it('says something else with a release alone, on all pages then, and is found by it', async () => {
  await edit([{ name: 'shared.set', shared: 'hours', fields: { content: NEW_HOURS.id } }], [NEW_HOURS]);
  expect(await words('/the-pier')).toContain('Closed at noon.');
  await release({ settings: ['shared'] });
  await until('visitors have it', async () => (await words('/the-pier')).includes('Open at noon.'));
  expect(await words('/the-slip')).toContain('Open at noon.');
  expect(await foundByVisitors('closed')).toEqual([]);
  expect((await foundByVisitors('open')).sort()).toEqual(['The pier', 'The slip']);
});

it('is refused where its text is not there', async () => {
  const answer = await ines.post(`/api/sites/${KEY}/operations`, {
    operations: [{ name: 'shared.set', shared: 'hours', fields: { content: 'noSuchText01' } }],
  });
  expect([answer.status, answer.json.code]).toEqual([422, 'content-unknown']);
});

it('goes along with the site as a file and as an archive', async () => {
  const file = (await ines.get(`/api/sites/${KEY}/exports/site.json`)).text;
  await server.site('again');
  const brought = await ines.post('/api/sites/again/imports', { text: file, name: 'site.json', apply: true });
  expect(brought.status).toBe(200);
  const site = JSON.parse((await ines.get('/api/sites/again/exports/site.json')).text);
  expect(site.shared).toEqual([{ id: 'hours', name: 'Opening hours', content: NEW_HOURS.id }]);
  expect(site.contents.map(({ id }: { id: string }) => id)).toContain(NEW_HOURS.id);
  const archive = JSON.parse((await ines.get(`/api/sites/${KEY}/archive`)).text);
  const restore = (of: object) => ines.sendFile('/api/archives/restored', Buffer.from(JSON.stringify(of)));
  const without = archive.contents.filter(({ id }: { id: string }) => id !== NEW_HOURS.id);
  const refused = await restore({ ...archive, contents: without });
  expect([refused.status, JSON.stringify(refused.json)]).toEqual([
    422,
    expect.stringContaining('Shared section hours: its text is not in the file.'),
  ]);
  expect((await restore(archive)).status).toBe(200);
  await until('it is live', async () => (await server.live('/restored/the-pier')).text.includes('Open at noon.'));
});

it('leaves nothing on its pages once it is removed', async () => {
  await edit([{ name: 'shared.remove', shared: 'hours' }]);
  await release({ settings: ['shared'] });
  await until('it is gone', async () => !(await words('/the-slip')).includes('noon'));
  expect(await words('/the-slip')).toMatch(/The slip\.$/);
});
