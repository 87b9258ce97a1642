import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readTree } from '#contract/sent-tree.ts';
import { contentIdOf } from '#core/model/content.ts';
import { plain } from '#core/testing/random-site.ts';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
let bram: Person;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  bram = await server.person('Bram');
});
afterAll(() => server.close());

const add = (page: string, parent: string | null, title = page) => ({
  name: 'page.add',
  page,
  place: { parent },
  title: { en: title },
});
const rename = (page: string, title: string) => ({ name: 'page.set', page, fields: { title: { en: title } } });
const remove = (page: string) => ({ name: 'page.remove', page });

/** A site in which some things have happened; gives its key. */
async function busySite(key: string): Promise<string> {
  await server.site(key);
  await ines.operations(key, add('a', null, 'Courses'), add('b', 'a', 'Knots'), add('c', 'b', 'Bowline'));
  await bram.operations(key, rename('b', 'Knots and splices'));
  await ines.operations(key, remove('b'));
  return key;
}
const tree = async (key: string, revision?: number) =>
  readTree((await ines.get(`/api/sites/${key}/tree${revision === undefined ? '' : `?revision=${revision}`}`)).json);

describe('looking back', () => {
  it('shows the tree as it was at each revision', async () => {
    const key = await busySite('looking-back');
    const titles = async (revision: number) => [...(await tree(key, revision)).nodes.values()].map((n) => n.title.en);
    expect(await titles(0)).toEqual([]);
    expect((await titles(1)).sort()).toEqual(['Bowline', 'Courses', 'Knots']);
    expect((await titles(2)).sort()).toEqual(['Bowline', 'Courses', 'Knots and splices']);
    expect(plain(await tree(key, 3))).toEqual(plain(await tree(key)));
  });
  it('refuses a moment that the history does not have', async () => {
    const key = await busySite('no-such-moment');
    for (const revision of ['9', '-1', 'x']) {
      const answer = await ines.get(`/api/sites/${key}/tree?revision=${revision}`);
      expect(answer.json).toMatchObject({ status: 404, code: 'revision-unknown' });
    }
  });
  it('lists the changes of one person', async () => {
    const key = await busySite('one-person');
    const { entries } = (await ines.get(`/api/sites/${key}/history?by=Bram`)).json;
    expect(entries.map((entry: { words: string }) => entry.words)).toEqual(['renamed ‘Knots’ to ‘Knots and splices’']);
  });
});

describe('the history', () => {
  it('is looked through by person, by kind of edit and by branch, in any combination', async () => {
    const key = await busySite('looked-through');
    await ines.operations(key, add('d', 'a', 'Sails'), add('e', null, 'Visit'));
    await bram.operations(key, { name: 'page.set', page: 'e', fields: { description: { en: 'By boat.' } } });
    await bram.operations(key, { name: 'goal.add', goal: 'g1', statement: 'More visitors' });
    const words = async (query: string) =>
      (await ines.get(`/api/sites/${key}/history?${query}`)).json.entries.map((one: { words: string }) => one.words);
    expect(await words('of=write')).toEqual(['changed the description of ‘Visit’']);
    expect(await words('of=plan')).toEqual(['added the goal ‘More visitors’']);
    expect(await words('page=e')).toHaveLength(2);
    expect(await words('page=e&of=shape')).toHaveLength(1);
    expect(await words('page=a&by=Bram')).toEqual([]);
    expect(await words('page=b')).toHaveLength(3);
    expect(await words('of=nothing')).toHaveLength(6);
    expect((await ines.get(`/api/sites/${key}/history?page=%00`)).status).toBe(404);
  });
});

describe('going back', () => {
  it('makes the draft what it was, as one step that can be undone, and leaves what is live', async () => {
    const key = await busySite('going-back');
    await ines.post(`/api/sites/${key}/releases`, { pages: 'all' });
    const before = await tree(key);
    const answer = await bram.post(`/api/sites/${key}/go-back`, { revision: 1 });
    expect(answer.json).toMatchObject({ revision: 5 });
    const then = await tree(key, 1);
    const now = await tree(key);
    expect(plain({ ...now, live: then.live, liveSettings: then.liveSettings })).toEqual(plain(then));
    expect(plain({ ...then, live: now.live, liveSettings: now.liveSettings })).toEqual(plain(now));
    expect(now.live.size).toBe(1);
    const [entry] = (await ines.get(`/api/sites/${key}/history`)).json.entries;
    expect(entry.words).toMatch(/^went back to the tree of \d{1,2} \w+ \d{4}, \d\d:\d\d$/);
    await bram.post(`/api/sites/${key}/undo`, {});
    expect(plain(await tree(key))).toEqual(plain(before));
  });
  it('there and back again is never more than what lies between, and says when nothing is left to go back', async () => {
    const key = await busySite('there-and-back');
    for (let round = 0; round < 8; round++)
      for (const revision of [1, 3])
        expect((await ines.post(`/api/sites/${key}/go-back`, { revision })).status).toBe(200);
    const edits = await server
      .database('edit_log')
      .where({ site: key })
      .whereNotNull('went_back_to')
      .pluck('operations');
    expect(edits).toHaveLength(16);
    expect(Math.max(...edits.map((operations: unknown[]) => operations.length))).toBeLessThanOrEqual(2);
    expect(plain(await tree(key))).toEqual(plain(await tree(key, 3)));
    expect((await ines.post(`/api/sites/${key}/go-back`, { revision: 3 })).json.code).toBe('nothing-to-go-back');
  });
  it('says so where nothing differs, and takes no moment that is still to come', async () => {
    const key = await busySite('as-it-was');
    expect((await ines.post(`/api/sites/${key}/go-back`, { revision: 3 })).json.code).toBe('nothing-to-go-back');
    expect((await ines.post(`/api/sites/${key}/go-back`, { revision: 4 })).json.code).toBe('revision-unknown');
  });
});

describe('what the filters ask for', () => {
  it('is who changed each page last', async () => {
    const key = await busySite('last-changed');
    await bram.operations(key, rename('a', 'All courses'));
    // What is no page's is no page's change, and neither is a release.
    await bram.operations(
      key,
      { name: 'goal.add', goal: 'g1', statement: 'More applicants' },
      { name: 'site.set', fields: { name: 'The school' } },
    );
    await bram.post(`/api/sites/${key}/releases`, { pages: 'all' });
    const { pages, by } = (await ines.get(`/api/sites/${key}/latest-changes`)).json;
    const last = Object.fromEntries(pages.map((page: string, index: number) => [page, by[index]]));
    expect(last).toEqual({ a: 'Bram', b: 'Ines', c: 'Ines' });
    // The plan never goes live.
    await bram.operations(key, { name: 'page.set', page: 'b', fields: { plan: { purpose: 'For all' } } });
    const live = (await ines.get(`/api/sites/${key}/latest-changes?of=live`)).json;
    expect(live.by[live.pages.indexOf('b')]).toBe('Ines');
  });
  it('is who said last who can open a page, or hid it', async () => {
    const key = await busySite('access-changed');
    await ines.operations(key, add('d', null, 'Legal'), { name: 'page.set', page: 'a', fields: { hidden: 'page' } });
    await bram.operations(key, { name: 'page.set', page: 'd', fields: { access: { closedLook: 'locked' } } });
    await ines.operations(key, rename('d', 'Still a rule of Bram'));
    const { pages, by } = (await ines.get(`/api/sites/${key}/latest-changes?of=access`)).json;
    expect([pages, by]).toEqual([
      ['a', 'd'],
      ['Ines', 'Bram'],
    ]);
  });
  it('is which pages have words in their text, marks and signs of patterns taken as they are', async () => {
    await server.site('texts');
    const document = (text: string) => ({
      type: 'doc' as const,
      content: [{ type: 'paragraph', content: [{ type: 'text', text }] }],
    });
    const texts = { a: document('Oak, larch & 100% wool'), b: document('Larch only') };
    const contents = Object.values(texts).map((one) => ({ id: contentIdOf(one), document: one }));
    await ines.post('/api/sites/texts/operations', {
      operations: [
        { ...add('a', null), content: contents[0]!.id },
        { ...add('b', null), content: contents[1]!.id },
      ],
      contents,
    });
    const found = async (text: string) =>
      (await ines.get(`/api/sites/texts/find?text=${encodeURIComponent(text)}`)).json.pages.sort();
    expect(await found('larch')).toEqual(['a', 'b']);
    expect(await found('larch oak')).toEqual(['a']);
    expect(await found('100%')).toEqual(['a']);
    expect(await found('l_rch')).toEqual([]);
    expect(await found('strong')).toEqual([]);
    expect(await found(' ')).toEqual([]);
  });
});

describe('removed pages', () => {
  it('are listed with where they stood, what went along, by whom, and where they would come back to', async () => {
    const key = await busySite('removed');
    await bram.operations(key, remove('a'));
    const { branches } = (await ines.get(`/api/sites/${key}/removed`)).json;
    const knots = branches.find((branch: { page: string }) => branch.page === 'b');
    expect(knots).toMatchObject({
      title: 'Knots and splices',
      from: ['Courses'],
      below: [{ page: 'c', title: 'Bowline', depth: 1 }],
      by: 'Ines',
      isParentThere: false,
      nearest: null,
    });
  });
  it('can be deleted for good, and even that can be undone', async () => {
    const key = await busySite('for-good');
    const before = plain(await tree(key));
    expect((await ines.operations(key, { name: 'page.erase', page: 'b' })).status).toBe(200);
    expect([...(await tree(key)).nodes.keys()]).toEqual(['a']);
    expect((await server.database('node').where({ site: key })).map((row) => row.id)).toEqual(['a']);
    await ines.post(`/api/sites/${key}/undo`, {});
    expect(plain(await tree(key))).toEqual(before);
  });
  it('cannot be brought in from outside by the way back of deleting', async () => {
    const key = await busySite('no-recall');
    expect((await ines.operations(key, { name: 'page.recall', nodes: [] })).status).toBe(422);
  });
});

describe('a person’s own settings', () => {
  it('are kept for that person alone, and can be taken away', async () => {
    const value = { columns: ['state', 'address'], widths: { state: 96 } };
    expect((await ines.send('PUT', '/api/preferences/columns.write', { value })).json).toEqual({ ok: true });
    expect((await ines.get('/api/preferences')).json.preferences).toEqual({ 'columns.write': value });
    expect((await bram.get('/api/preferences')).json.preferences).toEqual({});
    await ines.send('PUT', '/api/preferences/columns.write', { value: null });
    expect((await ines.get('/api/preferences')).json.preferences).toEqual({});
  });
  it('have plain names', async () => {
    const answer = await ines.send('PUT', `/api/preferences/${encodeURIComponent('No Name!')}`, { value: 1 });
    expect(answer.json).toMatchObject({ status: 422, code: 'preference-name' });
  });
});

describe('copies', () => {
  it('are made on the server by the same rules', async () => {
    const key = await busySite('copies');
    const answer = await ines.operations(key, {
      name: 'page.copy',
      page: 'a',
      place: { parent: null },
      ids: { a: 'x' },
    });
    expect(answer.status).toBe(200);
    await ines.operations(key, { name: 'page.copy', page: 'a', place: { parent: null }, ids: { a: 'y' } });
    expect((await tree(key)).nodes.get('y' as never)!.slug.en!.text).toBe('courses-2');
  });
});
