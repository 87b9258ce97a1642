import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { contentIdOf } from '#core/model/content.ts';
import { type Answer, type Person, type TestServer, startTestServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
let marek: Person;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  marek = await server.person('Marek', 'manager', server.otherOrigin);
});
afterAll(() => server.close());

const add = (page: string, title: string, parent: string | null = null) => ({
  name: 'page.add',
  page,
  place: { parent },
  title: { en: title },
});
const set = (page: string, fields: object) => ({ name: 'page.set', page, fields });

let made = 0;
/** A site of its own with three pages: home, courses and, below that, evening. */
async function newSite(): Promise<string> {
  const key = `site-${++made}`;
  await server.site(key);
  await ines.operations(key, add('home', 'Home'), add('courses', 'Courses'), add('evening', 'Evening', 'courses'));
  return key;
}
/** All that is written of a site, to see that nothing was. */
async function written(key: string): Promise<unknown> {
  const rows = (table: string) => server.database(table).where({ site: key });
  return {
    nodes: await rows('node').orderBy('id'),
    log: await rows('edit_log').orderBy('revision'),
    contents: await rows('content').orderBy('id'),
    site: await server.database('site').where({ key }),
  };
}
const addressOf = async (key: string, page: string): Promise<string> =>
  (await ines.get(`/api/sites/${key}/pages/${page}`)).json.address;

describe('bad operations', () => {
  const document = { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Hello' }] }] };
  const refused: [string, number, string, object][] = [
    ['an unknown page', 404, 'page-unknown', { operations: [set('nowhere', { inMenus: false })] }],
    ['an unknown parent', 422, 'parent-unknown', { operations: [add('new', 'New', 'nowhere')] }],
    [
      'a page moved inside itself',
      422,
      'moved-inside-itself',
      { operations: [{ name: 'page.move', page: 'courses', place: { parent: 'evening' } }] },
    ],
    [
      'two home pages',
      422,
      'two-homes',
      {
        operations: [
          { name: 'site.set', fields: { home: 'courses' } },
          { name: 'site.set', fields: { home: 'evening' } },
        ],
      },
    ],
    ['a title of 10,000 characters', 422, 'body-invalid', { operations: [add('new', 'x'.repeat(10_000))] }],
    ['an empty title', 422, 'title-empty', { operations: [set('courses', { title: { en: '  ' } })] }],
    [
      'a reserved slug',
      422,
      'slug-reserved',
      { operations: [set('courses', { slug: { en: { text: 'search', own: true } } })] },
    ],
    [
      'a slug that is no part of an address',
      422,
      'slug-shape',
      { operations: [set('courses', { slug: { en: { text: '../x', own: true } } })] },
    ],
    [
      'a restored slug that is no part of an address',
      422,
      'slug-shape',
      {
        operations: [
          { ...set('courses', { inMenus: false }), restores: { courses: { en: { text: 'a/b', own: true } } } },
        ],
      },
    ],
    [
      'a link to a script',
      422,
      'body-invalid',
      { operations: [{ ...add('new', 'New'), type: 'link', target: { url: 'javascript:alert(1)' } }] },
    ],
    ['an id that is taken', 409, 'page-exists', { operations: [add('courses', 'Courses')] }],
    ['a stale revision', 409, 'stale-revision', { revision: 0, operations: [set('courses', { inMenus: false })] }],
    ['an unknown operation', 422, 'body-invalid', { operations: [{ name: 'page.explode', page: 'courses' }] }],
    [
      'a release by the door for edits',
      422,
      'body-invalid',
      { operations: [{ name: 'release.make', pages: ['courses'], retire: [] }] },
    ],
    ['a text that is nowhere', 422, 'content-unknown', { operations: [set('courses', { content: 'AAAAAAAAAAAA' })] }],
    [
      'a text under a wrong id',
      422,
      'content-mismatch',
      { operations: [set('courses', { content: 'AAAAAAAAAAAA' })], contents: [{ id: 'AAAAAAAAAAAA', document }] },
    ],
    [
      'a text that is no document',
      422,
      'content-invalid',
      {
        operations: [set('courses', { content: 'AAAAAAAAAAAA' })],
        contents: [{ id: 'AAAAAAAAAAAA', document: { type: 'doc', content: [{ type: 'script' }] } }],
      },
    ],
    [
      'a good one before a bad one',
      404,
      'page-unknown',
      { operations: [set('courses', { inMenus: false }), set('nowhere', { inMenus: false })] },
    ],
  ];
  it.each(refused)('%s: is refused, says what and where, and writes nothing', async (_, status, code, body) => {
    const key = await newSite();
    const before = await written(key);
    const answer = await ines.post(`/api/sites/${key}/operations`, body);
    expect([answer.status, answer.json.code]).toEqual([status, code]);
    expect(answer.json.detail).toMatch(/\.$/);
    expect(await written(key)).toEqual(before);
  });

  it('name the operation that was refused, and the page by its title', async () => {
    const key = await newSite();
    const answer = await ines.operations(key, set('home', { inMenus: false }), {
      name: 'page.move',
      page: 'courses',
      place: { parent: 'evening' },
    });
    expect(answer.json.errors).toEqual([{ pointer: '/operations/1', detail: answer.json.detail }]);
    expect(answer.json.detail).toMatch('‘Courses’');
  });

  it('tell the current revision where the sent one is stale', async () => {
    const key = await newSite();
    const answer = await ines.post(`/api/sites/${key}/operations`, {
      revision: 0,
      operations: [set('courses', { inMenus: false })],
    });
    expect(answer.json.params).toMatchObject({ sent: 0, revision: 1 });
  });
});

describe('an edit', () => {
  it('writes only the rows that change, and the log', async () => {
    const key = await newSite();
    const marks = async () =>
      new Map(
        (
          await server.database('node').where({ site: key }).select('id', server.database.raw('xmin::text AS mark'))
        ).map((row) => [row.id, row.mark]),
      );
    const before = await marks();
    await ines.operations(key, set('evening', { title: { en: 'Evening classes' } }));
    const after = await marks();
    expect([...after.keys()].filter((id) => after.get(id) !== before.get(id))).toEqual(['evening']);
  });

  it('that is sent twice is applied once, and answered alike', async () => {
    const key = await newSite();
    const body = { request: 'request-0001', operations: [add('twice', 'Twice')] };
    const first = await ines.post(`/api/sites/${key}/operations`, body);
    const second = await ines.post(`/api/sites/${key}/operations`, body);
    expect(second.json).toEqual(first.json);
    expect(second.status).toBe(200);
  });

  it('gives an inverse that undoes it', async () => {
    const key = await newSite();
    const { json } = await ines.operations(key, { name: 'page.remove', page: 'courses' });
    expect((await ines.get(`/api/sites/${key}/pages/evening`)).json.code).toBe('page-removed');
    await ines.operations(key, ...json.inverse);
    expect(await addressOf(key, 'evening')).toBe('/courses/evening');
  });

  it('keeps its text, which can be fetched and is the same again', async () => {
    const key = await newSite();
    const document = {
      type: 'doc' as const,
      content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Seven to nine.' }] }],
    };
    const id = contentIdOf(document);
    await ines.post(`/api/sites/${key}/operations`, {
      operations: [set('evening', { content: id })],
      contents: [{ id, document }],
    });
    expect((await ines.get(`/api/sites/${key}/contents/${id}`)).json).toEqual({ id, document });
  });

  it('made in two processes at once keeps both, in one order', async () => {
    const key = await newSite();
    const answers: Answer[] = await Promise.all(
      Array.from({ length: 40 }, (_, n) =>
        (n % 2 === 0 ? ines : marek).operations(key, add(`page${n}`, 'Same title', 'courses')),
      ),
    );
    expect(answers.map((answer) => answer.status)).toEqual(answers.map(() => 200));
    const revisions = answers.map((answer) => answer.json.revision).sort((a, b) => a - b);
    expect(revisions).toEqual(Array.from({ length: 40 }, (_, n) => n + 2));
    const trees = await Promise.all([ines.get(`/api/sites/${key}/tree`), marek.get(`/api/sites/${key}/tree`)]);
    expect(trees[0].json).toEqual(trees[1].json);
    const addresses = await Promise.all(answers.map((_, n) => addressOf(key, `page${n}`)));
    expect(new Set(addresses).size).toBe(40);
  });
});

describe('what changes', () => {
  it('is told before, and nothing is written', async () => {
    const key = await newSite();
    const before = await written(key);
    const { json } = await ines.post(`/api/sites/${key}/what-changes`, {
      operations: [set('courses', { slug: { en: { text: 'learn', own: true } } })],
    });
    expect(json.addresses).toEqual([
      { page: 'courses', before: '/courses', after: '/learn' },
      { page: 'evening', before: '/courses/evening', after: '/learn/evening' },
    ]);
    expect(await written(key)).toEqual(before);
  });
});

describe('undo', () => {
  const undo = (person: Person, key: string, how = {}) => person.post(`/api/sites/${key}/undo`, how);
  const redo = (person: Person, key: string) => person.post(`/api/sites/${key}/redo`, {});

  it('takes back the person’s own last change, not somebody else’s, and makes it again', async () => {
    const key = await newSite();
    await ines.operations(key, set('courses', { title: { en: 'Learning' } }));
    await marek.operations(key, set('evening', { title: { en: 'Nights' } }));
    expect((await undo(ines, key)).json.words).toBe('undid: renamed ‘Courses’ to ‘Learning’');
    expect(await addressOf(key, 'evening')).toBe('/courses/nights');
    await redo(ines, key);
    expect(await addressOf(key, 'evening')).toBe('/learning/nights');
    expect((await redo(ines, key)).json.code).toBe('redo-nothing');
  });

  it('goes back step by step to the beginning, and forward again to the same tree', async () => {
    const key = await newSite();
    await ines.operations(key, { name: 'page.move', page: 'evening', place: { parent: null, after: null } });
    await ines.operations(key, { name: 'page.remove', page: 'courses' });
    const whole = await ines.get(`/api/sites/${key}/tree`);
    for (let n = 0; n < 3; n++) expect((await undo(ines, key)).status).toBe(200);
    expect((await undo(ines, key)).json.code).toBe('undo-nothing');
    expect((await ines.get(`/api/sites/${key}/tree`)).json.nodes.id).toBe('');
    for (let n = 0; n < 3; n++) expect((await redo(ines, key)).status).toBe(200);
    expect((await ines.get(`/api/sites/${key}/tree`)).json.nodes).toEqual(whole.json.nodes);
  });

  it('makes nothing again once the person has edited anew, and goes on with what came before', async () => {
    const key = await newSite();
    await ines.operations(key, set('courses', { title: { en: 'Learning' } }));
    await ines.operations(key, set('evening', { title: { en: 'Nights' } }));
    await undo(ines, key);
    await undo(ines, key);
    await marek.operations(key, set('home', { title: { en: 'Welcome' } }));
    expect((await redo(ines, key)).json.words).toBe('made again: renamed ‘Courses’ to ‘Learning’');
    expect((await undo(ines, key)).json.words).toBe('undid: renamed ‘Courses’ to ‘Learning’');
    await ines.operations(key, set('courses', { inMenus: false }));
    expect((await redo(ines, key)).json.code).toBe('redo-nothing');
    expect((await undo(ines, key)).json.words).toBe('undid: took ‘Courses’ off menus');
    expect((await redo(ines, key)).json.words).toBe('made again: took ‘Courses’ off menus');
    expect((await redo(ines, key)).json.code).toBe('redo-nothing');
  });

  it('says whose later change stands in the way, and writes nothing until it is told to', async () => {
    const key = await newSite();
    await ines.operations(key, set('courses', { title: { en: 'Learning' } }));
    await marek.operations(key, set('courses', { title: { en: 'Teaching' } }));
    const before = await written(key);
    const answer = await undo(ines, key);
    expect([answer.status, answer.json.code]).toEqual([409, 'undo-blocked']);
    expect(answer.json.detail).toMatch(/^Marek renamed ‘Learning’ to ‘Teaching’ at /);
    expect(await written(key)).toEqual(before);
    await undo(ines, key, { anyway: true });
    expect(await addressOf(key, 'courses')).toBe('/courses');
  });

  it('can leave a step that is in the way', async () => {
    const key = await newSite();
    await ines.operations(key, set('home', { inMenus: false }));
    await ines.operations(key, set('courses', { title: { en: 'Learning' } }));
    await marek.operations(key, set('courses', { title: { en: 'Teaching' } }));
    await undo(ines, key, { skip: true });
    expect((await undo(ines, key)).json.words).toBe('undid: took ‘Home’ off menus');
    expect(await addressOf(key, 'courses')).toBe('/teaching');
  });

  it('does not take a page from under what others put there', async () => {
    const key = await newSite();
    await ines.operations(key, add('new', 'New'));
    await marek.operations(key, add('below', 'Below', 'new'));
    expect((await undo(ines, key)).json.code).toBe('pages-below');
  });
});

describe('the history and the removed pages', () => {
  it('tell who did what, newest first', async () => {
    const key = await newSite();
    await marek.operations(key, { name: 'page.remove', page: 'courses' });
    const { entries } = (await ines.get(`/api/sites/${key}/history`)).json;
    expect(entries.map((entry: { by: string; words: string }) => `${entry.by} ${entry.words}`)).toEqual([
      'Marek removed ‘Courses’ and the page below it',
      'Ines added the page ‘Home’ at the top level, added the page ‘Courses’ at the top level and made 1 more change',
    ]);
    const { branches } = (await ines.get(`/api/sites/${key}/removed`)).json;
    expect(branches).toMatchObject([
      { page: 'courses', title: 'Courses', below: [{ page: 'evening', title: 'Evening', depth: 1 }], by: 'Marek' },
    ]);
    await ines.operations(key, { name: 'page.putBack', page: 'courses' });
    expect(await addressOf(key, 'evening')).toBe('/courses/evening');
    expect((await ines.get(`/api/sites/${key}/removed`)).json.branches).toEqual([]);
  });
});

describe('the tree', () => {
  it('is answered with 304 while it is the same', async () => {
    const key = await newSite();
    const first = await ines.get(`/api/sites/${key}/tree`);
    const tag = first.headers.get('etag')!;
    expect((await ines.get(`/api/sites/${key}/tree`, { 'If-None-Match': tag })).status).toBe(304);
    await ines.operations(key, set('courses', { inMenus: false }));
    expect((await ines.get(`/api/sites/${key}/tree`, { 'If-None-Match': tag })).status).toBe(200);
  });
});
