import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { contentIdOf } from '#core/model/content.ts';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
beforeAll(async () => {
  server = await startTestServer();
  await server.site('words');
  ines = await server.person('Ines');
  const pages = ['The long shed is open.', 'Meet at the shed, then at the Shed gate.', 'Tides.'].map((words, at) => {
    const document = {
      type: 'doc',
      content: [{ type: 'paragraph', content: [{ type: 'text', text: words }] }],
    } as const;
    return { page: `p${at}`, id: contentIdOf(document), document };
  });
  const answer = await ines.post('/api/sites/words/operations', {
    operations: pages.flatMap(({ page, id }) => [
      { name: 'page.add', page, place: { parent: null }, title: { en: `The shed ${page}` } },
      { name: 'page.set', page, fields: { content: id } },
    ]),
    contents: pages.map(({ id, document }) => ({ id, document })),
  });
  expect(answer.status).toBe(200);
});
afterAll(() => server.close());

const asked = { find: 'shed', by: 'loft', isWhole: true, isExact: false };
const textOf = async (page: string): Promise<string> => {
  const { document } = await server
    .database('node')
    .join('content', (join) => join.on('content.site', 'node.site').andOn('content.id', 'node.content'))
    .where({ 'node.site': 'words', 'node.id': page })
    .first('document');
  return JSON.stringify(document);
};

describe('words that are replaced in all texts', () => {
  it('are found first, page by page, and nothing is changed', async () => {
    const { json } = await ines.post('/api/sites/words/words/found', asked);
    expect(json.pages).toMatchObject([
      { page: 'p0', count: 1, places: [{ before: 'The long ', found: 'shed', after: ' is open.' }] },
      { page: 'p1', count: 2 },
    ]);
    expect(await textOf('p1')).toContain('the shed, then at the Shed gate');
  });

  it('are replaced on the pages that are chosen, once for each request, as one step that can be undone', async () => {
    const body = { ...asked, pages: ['p1', 'p2'], request: 'replace-the-shed' };
    expect((await ines.post('/api/sites/words/words/replaced', body)).json).toEqual({ pages: 1, places: 2 });
    expect(await textOf('p1')).toContain('the loft, then at the loft gate');
    expect(await textOf('p0')).toContain('long shed');
    expect((await ines.post('/api/sites/words/words/replaced', body)).json).toEqual({ pages: 0, places: 0 });
    expect((await ines.post('/api/sites/words/undo', {})).status).toBe(200);
    expect(await textOf('p1')).toContain('the shed, then at the Shed gate');
  });

  it('do not overrule somebody who writes meanwhile: both are there', async () => {
    const marek = await server.person('Marek', 'manager', server.otherOrigin);
    const renames = Array.from({ length: 20 }, (_, n) =>
      marek.operations('words', { name: 'page.set', page: 'p2', fields: { title: { en: `Tides ${n}` } } }),
    );
    const replaced = ines.post('/api/sites/words/words/replaced', {
      ...asked,
      pages: ['p0'],
      request: 'replace-meanwhile',
    });
    const statuses = (await Promise.all([replaced, ...renames])).map(({ status }) => status);
    expect(new Set(statuses)).toEqual(new Set([200]));
    expect(await textOf('p0')).toContain('long loft');
  });

  it('are not replaced by somebody who may only read', async () => {
    const reader = await server.colleague('Reader', 'words', 'reader');
    expect((await reader.post('/api/sites/words/words/found', asked)).status).toBe(200);
    const body = { ...asked, pages: ['p1'], request: 'replace-by-reader' };
    expect((await reader.post('/api/sites/words/words/replaced', body)).status).toBe(403);
  });
});
