import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { SHIPPED } from '#core/starters/shipped.ts';
import { contentIdOf } from '#core/model/content.ts';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site('pq');
  await server.site('bare');
  const document = {
    type: 'doc',
    content: [
      { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: 'Dates' }] },
      { type: 'paragraph', content: [{ type: 'text', text: 'Every Monday.' }] },
    ],
  };
  const id = contentIdOf(document as never);
  await ines.post('/api/sites/pq/operations', {
    operations: [
      { name: 'page.add', page: 'courses', place: { parent: null }, title: { en: 'Courses' }, content: id },
      { name: 'page.add', page: 'oars', place: { parent: 'courses' }, title: { en: 'Oars' }, inMenus: false },
    ],
    contents: [{ id, document }],
  });
});
afterAll(() => server.close());

const list = async () => (await ines.get('/api/starters')).json.starters;

describe('starters', () => {
  it('are shipped, three of them, and these stay', async () => {
    expect((await list()).map(({ starter }: { starter: { name: string } }) => starter.name)).toEqual(
      Object.values(SHIPPED).map(({ name }) => name),
    );
    expect((await ines.send('DELETE', '/api/starters/school')).json.code).toBe('starter-unknown');
  });

  it('are saved of a branch, with the outline of its texts, taken along as a file, brought back, and deleted', async () => {
    const saved = await ines.post('/api/sites/pq/starters', { page: 'courses', name: 'Courses', description: '' });
    expect(saved.json.starter.pages).toEqual([
      { title: 'Courses', sections: ['Dates'], below: [{ title: 'Oars', inMenus: false }] },
    ]);
    const brought = await ines.post('/api/starters', { starter: saved.json.starter });
    expect(brought.json.starter).toEqual(saved.json.starter);
    expect(await list()).toHaveLength(5);
    for (const { id } of [saved.json, brought.json])
      expect((await ines.send('DELETE', `/api/starters/${id}`)).json).toEqual({ ok: true });
    expect(await list()).toHaveLength(3);
  });

  it('are refused where they are none, or where there is nothing to save', async () => {
    const wrong = await ines.post('/api/starters', {
      starter: { format: 'spur-starter', version: 1, name: 'x', description: '', pages: [{}] },
    });
    expect([wrong.status, wrong.json.errors[0].pointer]).toEqual([422, '/starter/pages/0/title']);
    const empty = await ines.post('/api/sites/bare/starters', { page: null, name: 'Nothing' });
    expect(empty.json.code).toBe('starter-empty');
  });
});
