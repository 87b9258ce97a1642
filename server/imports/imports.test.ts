import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { contentIdOf } from '#core/model/content.ts';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  for (const key of ['from', 'into', 'parts', 'wrong']) await server.site(key);
  const document = { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Long ago.' }] }] };
  const id = contentIdOf(document as never);
  await ines.post('/api/sites/from/operations', {
    operations: [
      { name: 'page.add', page: 'home', place: { parent: null }, title: { en: 'Home' } },
      { name: 'page.add', page: 'boats', place: { parent: null }, title: { en: 'Boats' }, content: id },
      { name: 'page.add', page: 'oars', place: { parent: 'boats' }, title: { en: 'Oars, "sweeps"' }, inMenus: false },
      { name: 'goal.add', goal: 'g1', statement: 'More applicants' },
      {
        name: 'page.set',
        page: 'oars',
        fields: { plan: { owner: 'Bram', goals: ['g1'], oldAddresses: ['/oars.php'] } },
      },
      { name: 'oldPage.decide', address: '/guestbook', fields: { letGo: 'gone' } },
    ],
    contents: [{ id, document }],
  });
});
afterAll(() => server.close());

const take = async (site: string, format: string) => (await ines.get(`/api/sites/${site}/exports/${format}`)).text;
const bring = (site: string, body: object) => ines.post(`/api/sites/${site}/imports`, { apply: false, ...body });
const tree = async (site: string) => {
  const { nodes, goals, oldPages } = (await ines.get(`/api/sites/${site}/tree`)).json;
  const { id, title, signs, parent, plan, content } = nodes;
  return { id, title, signs, parent, plan, content, goals, oldPages };
};

describe('a site that is taken along', () => {
  it('comes back whole from its JSON file: pages, texts, plans, goals, decisions; as one step that is undone', async () => {
    const file = await take('from', 'site.json');
    const seen = await bring('into', { text: file, name: 'site.json' });
    expect(seen.json).toMatchObject({ format: 'json', pages: 3, applied: null });
    expect(await tree('into')).toMatchObject({ id: '' });
    const done = await bring('into', { text: file, name: 'site.json', apply: true });
    expect(done.json.applied).toBeGreaterThan(3);
    expect(await tree('into')).toEqual(await tree('from'));
    expect(await take('into', 'site.json')).toBe(file.replace('"name": "from"', '"name": "from"'));
    expect((await bring('into', { text: file })).json.items).toEqual([]);
    await ines.post('/api/sites/into/undo', {});
    expect(await tree('into')).toMatchObject({ id: '', goals: [] });
  });

  it.each(['site.csv', 'site.opml', 'site.json'])(
    'asks for nothing when %s is brought back where it is from',
    async (format) => {
      const seen = await bring('from', { text: await take('from', format), name: format });
      expect(seen.json.items).toEqual([]);
    },
  );

  it('is taken along as an indented list and as a sitemap too', async () => {
    expect(await take('from', 'site.md')).toBe('- Home\n- Boats\n  - Oars, "sweeps"\n');
    expect(await take('from', 'sitemap.xml')).toContain('/from/boats/oars-sweeps</loc>');
  });
});

describe('an import', () => {
  it('is previewed, and taken in part: pages are removed only where they are named', async () => {
    await bring('parts', { text: '- Home\n- One\n- Two\n', apply: true });
    const csv = 'title,parent\nHome,\nTwo,\nThree,\n';
    const { items } = (await bring('parts', { text: csv, name: 'x.csv' })).json;
    expect(items.map(({ kind, title }: { kind: string; title: string }) => `${kind} ${title}`)).toEqual([
      'added Three',
      'removed One',
    ]);
    await bring('parts', { text: csv, name: 'x.csv', apply: true });
    expect(await take('parts', 'site.md')).toBe('- Home\n- One\n- Two\n- Three\n');
    const again = (await bring('parts', { text: csv, name: 'x.csv' })).json.items;
    await bring('parts', { text: csv, name: 'x.csv', apply: true, chosen: [again[0].key] });
    expect(await take('parts', 'site.md')).toBe('- Home\n- Two\n- Three\n');
  });

  it.each([
    ['parents in a circle', 'x.csv', 'id,parent,title\na,b,A\nb,a,B\n', 'file-unreadable'],
    ['an open quotation mark', 'x.csv', 'title,slug\n"A,a\n', 'file-unreadable'],
    [
      'entities that grow',
      'x.opml',
      '<!DOCTYPE x [<!ENTITY a "aa">]><opml version="2.0"><body/></opml>',
      'file-unreadable',
    ],
    ['JSON of another kind', 'x.json', '{"pages": 3}', 'file-unreadable'],
    ['nothing', 'x.csv', ' ', 'import-empty'],
  ])('refuses %s and changes nothing', async (_, name, text, code) => {
    const answer = await bring('wrong', { text, name, apply: true });
    expect([answer.status, answer.json.code]).toEqual([422, code]);
    if (code === 'file-unreadable') expect(answer.json.errors[0].pointer).toMatch(/^\/line\/\d+$/);
    expect(await tree('wrong')).toMatchObject({ id: '' });
  });

  it('understands UTF-16 and Windows-1252', async () => {
    for (const [encoding, bytes] of [
      ['utf16le', Buffer.from('\uFEFFtitle,slug\nGebühren,fees\n', 'utf16le')],
      ['latin1', Buffer.from('title,slug\nGebühren,fees\n', 'latin1')],
    ] as const) {
      const { items } = (await bring('wrong', { bytes: bytes.toString('base64'), name: `${encoding}.csv` })).json;
      expect(items[0].title).toBe('Gebühren');
    }
  });
});
