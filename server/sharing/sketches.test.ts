import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type TextDocument, contentIdOf } from '#core/model/content.ts';
import type { Box, BoxId } from '#core/model/sketch.ts';
import { withPlaces } from '#core/sketch/start-writing.ts';
import { Person, type TestServer, startTestServer } from '../testing/test-server.ts';
import { upload } from '../testing/upload.ts';

const box = (id: string, purpose: string): Box => ({
  id: id as BoxId,
  type: 'text',
  purpose,
  words: null,
  width: 'whole',
});
const BOXES = [box('cost', 'What it costs'), box('who', 'Who teaches here')];

let server: TestServer;
let ines: Person;
let oona: Person;
let path: string;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site('pq');
  await ines.operations(
    'pq',
    { name: 'label.add', label: 'course', title: 'Course', about: 'course' },
    { name: 'page.add', page: 'courses', place: { parent: null }, title: { en: 'Courses' } },
    { name: 'page.add', page: 'evening', place: { parent: 'courses' }, title: { en: 'Evening course' } },
    { name: 'page.set', page: 'evening', fields: { access: { labels: ['course'] } } },
    {
      name: 'sketch.add',
      sketch: 's1',
      title: 'Course',
      kinds: ['course'],
      variants: [
        { id: 'a', name: 'Short', boxes: BOXES },
        { id: 'b', name: 'With pictures', boxes: [] },
      ],
    },
    { name: 'sketch.add', sketch: 's2', title: 'On no page', variants: [{ id: 'a', name: 'A', boxes: [] }] },
  );
  path = `/api${(await ines.post('/api/sites/pq/shares', { name: 'Governors', days: 14 })).json.path}`;
  oona = new Person({ id: '', name: '', email: '', looksAfterAll: false }, server.origin);
  await oona.post(`${path}/guest`, { name: 'Oona' });
});
afterAll(() => server.close());

const choices = async () =>
  (await ines.get('/api/sites/pq/feedback')).json.choices as { by: string; variant: string }[];
const choose = (sketch: string, variant: string | null) => oona.send('PUT', `${path}/choices/${sketch}`, { variant });
const comment = (about: object | null) =>
  oona.post(`${path}/comments`, { page: 'evening', kind: 'comment', text: 'Say it first.', about });

describe('sketches in a shared plan', () => {
  it('come with the pages that have them, and with what stands around these', async () => {
    const { json, text } = await oona.get(`${path}/tree`);
    expect(json.sketches.map(({ id, kinds }: { id: string; kinds: string[] }) => [id, kinds])).toEqual([['s1', []]]);
    expect(text).toContain('"sketch":"s1"');
    const around = (await oona.get(`${path}/surrounds/evening`)).json;
    expect(around).toMatchObject({ siteName: 'pq', title: 'Evening course', menus: { header: ['Courses'] } });
    expect((await oona.get(`${path}/surrounds/courses`)).json.code).toBe('page-unknown');
  });

  it('let guests choose a variant, think again, and take it back', async () => {
    expect((await choose('s1', 'a')).status).toBe(200);
    expect((await choose('s1', 'b')).status).toBe(200);
    expect(await choices()).toEqual([expect.objectContaining({ by: 'Oona', sketch: 's1', variant: 'b' })]);
    await choose('s1', null);
    expect(await choices()).toEqual([]);
  });

  it('let guests comment on a box, and refuse what is not there', async () => {
    const about = { sketch: 's1', variant: 'a', box: 'who' };
    expect((await comment(about)).status).toBe(200);
    expect((await comment(null)).status).toBe(200);
    const { comments } = (await ines.get('/api/sites/pq/feedback')).json;
    expect(comments.map((one: { about: object }) => one.about)).toEqual([about, null]);
    const refused = async (answer: Promise<{ json: { code: string } }>) => (await answer).json.code;
    expect(await refused(choose('nobody', 'a'))).toBe('sketch-unknown');
    expect(await refused(choose('a'.repeat(200), null))).toBe('sketch-unknown');
    expect(await refused(choose('s1', 'z'))).toBe('variant-unknown');
    expect(await refused(comment({ ...about, box: 'gone' }))).toBe('box-unknown');
    expect(await refused(comment({ ...about, variant: 'b' }))).toBe('box-unknown');
    expect(await refused(oona.send('PUT', `${path}/choices/s1`, { variant: '../x' }))).toBe('body-invalid');
  });

  it('say which places texts have for their boxes, and where something is said', async () => {
    const planned = async () => (await ines.get('/api/sites/pq/planned-texts')).json.pages;
    const set = async (document: TextDocument) => {
      const id = contentIdOf(document);
      const answer = await ines.post('/api/sites/pq/operations', {
        request: crypto.randomUUID(),
        operations: [{ name: 'page.set', page: 'evening', fields: { content: id } }],
        contents: [{ id, document }],
      });
      expect(answer.status).toBe(200);
    };
    const empty = withPlaces(null, BOXES)!;
    await set(empty);
    expect(await planned()).toEqual([{ page: 'evening', boxes: ['cost', 'who'], written: [] }]);
    const [first, second] = empty.content!;
    await set({ type: 'doc', content: [{ ...first!, content: [{ type: 'text', text: 'Nothing at all.' }] }, second!] });
    expect(await planned()).toEqual([{ page: 'evening', boxes: ['cost', 'who'], written: ['cost'] }]);
  });

  it('stay as they are through the database, in every process, and in a site file', async () => {
    const tree = async (person: Person) => (await person.get('/api/sites/pq/tree')).json.sketches;
    const here = await tree(ines);
    expect(here).toHaveLength(2);
    expect(await tree(await server.colleague('Ansel', 'pq', 'reader', server.otherOrigin))).toEqual(here);
    const file = (await ines.get('/api/sites/pq/exports/site.json')).text;
    expect(JSON.parse(file).sketches).toEqual(here);
  });
});

describe('boards in a shared plan', () => {
  const place = { x: 0, y: 0, width: 200, height: 100 };
  const tiny = (background: string) =>
    sharp({ create: { width: 40, height: 30, channels: 3, background } })
      .png()
      .toBuffer();

  it('are seen with their pictures, and nothing else of the library is', async () => {
    const sent = async (name: string, bytes: Uint8Array): Promise<string> => {
      const said = await upload(ines, server.origin, 'pq', name, bytes);
      if (!('answer' in said)) throw new Error(JSON.stringify(said));
      return said.answer.file.id;
    };
    const shown = await sent('On the board.png', await tiny('#7a2e22'));
    const kept = await sent('Not on a board.png', await tiny('#224466'));
    await ines.operations('pq', {
      name: 'board.add',
      board: 'warm',
      title: 'Warm',
      pieces: [
        { kind: 'picture', id: 'p', ...place, file: shown },
        { kind: 'colour', id: 'c', ...place, colour: '#7a2e22', name: 'Shed door' },
      ],
    });
    const tree = (await oona.get(`${path}/tree`)).json;
    expect(tree.boards).toHaveLength(1);
    const { pictures } = (await oona.get(`${path}/pictures`)).json;
    expect(pictures).toEqual([{ file: shown, content: expect.any(String), words: 'On the board' }]);
    const picture = await oona.get(`${path}/pictures/${shown}`);
    expect([picture.status, picture.headers.get('content-type')]).toEqual([200, expect.stringMatching(/^image\//)]);
    expect(picture.headers.get('cache-control')).toMatch(/private/);
    for (const other of [kept, 'nobody', '../x'])
      expect([(await oona.get(`${path}/pictures/${encodeURIComponent(other)}`)).status, other]).toEqual([404, other]);
  });

  it('are commented on as a whole and piece by piece; what is about nothing is refused', async () => {
    const say = (given: object) => oona.post(`${path}/comments`, { kind: 'comment', text: 'Warmer.', ...given });
    const about = { board: 'warm', piece: 'c' };
    expect((await say({ page: null, about })).status).toBe(200);
    expect((await say({ page: null, about: { board: 'warm', piece: null } })).status).toBe(200);
    const code = async (given: object) => (await say(given)).json.code;
    expect(await code({ page: null, about: null })).toBe('comment-about-nothing');
    expect(await code({ page: 'evening', about })).toBe('comment-about-nothing');
    expect(await code({ page: null, about: { sketch: 's1', variant: 'a', box: null } })).toBe('comment-about-nothing');
    expect(await code({ page: null, about: { board: 'warm', piece: 'gone' } })).toBe('piece-unknown');
    expect(await code({ page: null, about: { board: 'gone', piece: null } })).toBe('board-unknown');
    const { comments } = (await ines.get('/api/sites/pq/feedback')).json;
    const onBoard = comments.filter((one: { page: string | null }) => one.page === null);
    expect(onBoard.map((one: { about: object }) => one.about)).toEqual([about, { board: 'warm', piece: null }]);
    const answered = await ines.send('PUT', `/api/sites/pq/comments/${onBoard[0].id}`, {
      answer: 'Yes.',
      isSettled: true,
    });
    expect(answered.status).toBe(200);
  });
});
