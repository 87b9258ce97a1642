import { load } from 'cheerio';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { type TextPart, contentIdOf } from '#core/model/content.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';

const KEY = 'frames';
let server: TestServer;
let ines: Person;

const frame = (address: string, title: string): TextPart => ({
  type: 'frame',
  attrs: { address, title, shape: 'film' },
});
const textOf = (...content: TextPart[]) => {
  const document = { type: 'doc' as const, content };
  return { id: contentIdOf(document), document };
};
const TIDES = textOf(
  frame('https://player.example/film/7?a=1&b="2"', 'The <launch>'),
  frame('https://other.example/map', 'Where it is'),
  frame('', 'Nothing yet'),
);
const WORDS = textOf({
  type: 'paragraph',
  content: [{ type: 'text', text: '<a href="https://evil.example/" data-frame="x">' }],
});
const policyOf = async (path: string) => (await server.live(`/${KEY}${path}`)).headers.get('content-security-policy')!;
const figures = async () => {
  const $ = load((await server.live(`/${KEY}/tides`)).text);
  return $('main figure')
    .toArray()
    .map((one) => [$(one).find('a').attr('href'), $(one).find('a').attr('data-frame'), $(one).text()]);
};

beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site(KEY);
  const add = (page: string, title: string, content: string | undefined) => ({
    name: 'page.add',
    page,
    place: { parent: null },
    title: { en: title },
    content,
  });
  const made = await ines.post(`/api/sites/${KEY}/operations`, {
    operations: [
      add('home', 'Home', undefined),
      add('tides', 'Tides', TIDES.id),
      add('words', 'Words', WORDS.id),
      { name: 'site.set', fields: { home: 'home', hosts: ['player.example', 'player.example'] } },
    ],
    contents: [TIDES, WORDS],
  });
  expect([made.status, made.json.detail]).toEqual([200, undefined]);
  await ines.post(`/api/sites/${KEY}/releases`, { pages: 'all', settings: ['hosts'] });
  await until('the site is live', async () => (await server.live(`/${KEY}/tides`)).status === 200);
});
afterAll(() => server.close());

it('is a link that can show a frame, where its host is allowed, and a link that leads there where it is not', async () => {
  expect(await figures()).toEqual([
    [
      'https://player.example/film/7?a=1&b="2"',
      'The <launch>',
      'Show here: The <launch>From player.example. Nothing is loaded from there until you show it.',
    ],
  ]);
  const $ = load((await server.live(`/${KEY}/tides`)).text);
  expect($('main > p a').attr('href')).toBe('https://other.example/map');
  expect($('iframe').length).toBe(0);
  expect($('main').text()).not.toContain('Nothing yet');
});

it('lets a page frame the hosts of its own frames and no other; others frame nothing', async () => {
  expect(await policyOf('/tides')).toMatch(/; frame-src https:\/\/player\.example$/);
  expect(await policyOf('/tides')).toMatch(/default-src 'none'; script-src 'sha256-[^']+' 'sha256-[^']+';/);
  for (const path of ['/', '/words']) expect(await policyOf(path)).not.toContain('frame-src');
});

it('shows no frame of a host any more that is no longer allowed, after a release', async () => {
  await ines.post(`/api/sites/${KEY}/operations`, { operations: [{ name: 'site.set', fields: { hosts: [] } }] });
  expect((await figures()).length).toBe(1);
  await ines.post(`/api/sites/${KEY}/releases`, { pages: [], settings: ['hosts'] });
  await until('it is a link', async () => (await figures()).length === 0);
  expect(await policyOf('/tides')).not.toContain('frame-src');
});

it.each([
  ['not a host'],
  ['https://player.example'],
  ['player.example/path'],
  ["x.example'; script-src *"],
  ['localhost'],
])('allows nothing that is no host: %s', async (host) => {
  const answer = await ines.post(`/api/sites/${KEY}/operations`, {
    operations: [{ name: 'site.set', fields: { hosts: [host] } }],
  });
  expect(answer.status).toBe(422);
});
