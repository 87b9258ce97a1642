import { updateYFragment } from '@tiptap/y-tiptap';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import * as Y from 'yjs';
import type { RoleId } from '#core/people/role.ts';
import { type TextDocument, contentIdOf, plainTextOf } from '#core/model/content.ts';
import { toPageId } from '#core/model/ids.ts';
import type { TextPlace } from '#core/model/text-place.ts';
import { JOINT_FRAGMENT, type JointAnswer } from '#contract/joint-text.ts';
import { textSchema } from '#contract/rich-text.ts';
import { type Answered, JointWriter } from '../testing/joint-writer.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
let mira: Person;
let teo: Person;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines Farrow');
  await server.site('jt');
  await ines.operations(
    'jt',
    ...['one', 'two', 'three', 'four', 'five', 'six'].map((page) => ({
      name: 'page.add',
      page,
      place: { parent: null },
      title: { en: page },
    })),
  );
  mira = await server.colleague('Mira Sand', 'jt', 'writer');
  // The other process.
  teo = await server.colleague(
    'Teo Brandt',
    'jt',
    [{ page: toPageId('one'), role: 'writer' as RoleId }],
    server.otherOrigin,
  );
});
afterAll(() => server.close());

const textOf = (...lines: string[]): TextDocument => ({
  type: 'doc',
  content: lines.map((text) => ({ type: 'paragraph', content: [{ type: 'text', text }] })),
});

const writerAt = (who: Person, page: string) => writerOf(who, 'page', page);
const writerOf = (who: Person, of: TextPlace['of'], id: string) =>
  new JointWriter((body) => who.post(`/api/sites/jt/texts/${of}/${id}/joint`, body));

/** Makes a text these lines, as the editor would. */
function write({ shared, fragment }: JointWriter, ...lines: string[]): void {
  updateYFragment(shared, fragment, textSchema.nodeFromJSON(textOf(...lines)), {
    mapping: new Map(),
    isOMark: new Map(),
  });
}
const told = (answer: Answered | null) => answer!.json as JointAnswer & { readonly code: string };

const contentOf = async (page: string): Promise<string | null> =>
  (await server.database('node').where({ site: 'jt', id: page }).first('content')).content;
async function textOn(page: string): Promise<string> {
  const row = await server
    .database('content')
    .where({ site: 'jt', id: (await contentOf(page)) ?? '' })
    .first('document');
  return row ? plainTextOf(row.document) : '';
}
async function give(page: string, ...lines: string[]): Promise<void> {
  const document = textOf(...lines);
  const id = contentIdOf(document);
  const body = { operations: [{ name: 'page.set', page, fields: { content: id } }], contents: [{ id, document }] };
  expect((await ines.post('/api/sites/jt/operations', body)).status).toBe(200);
}

describe('a text that two write at once', () => {
  it('has the letters of both, through two processes, and is saved as an edit of both', async () => {
    await give('one', 'Boats', 'Oars');
    const [her, him] = [writerAt(mira, 'one'), writerAt(teo, 'one')];
    await Promise.all([her.exchange(), him.exchange()]);
    expect(her.text).toBe('Boats / Oars');
    write(her, 'Boats by Mira', 'Oars');
    write(him, 'Boats', 'Oars by Teo');
    // Neither has heard of the other.
    await Promise.all([her.exchange(), him.exchange()]);
    await her.exchange();
    await him.exchange({ save: true });
    expect(her.text).toBe('Boats by Mira / Oars by Teo');
    expect(him.text).toBe(her.text);
    await until('it is so', async () => (await textOn('one')).includes('by Teo'));
    expect(await textOn('one')).toContain('Boats by Mira');
    const path = '/api/sites/jt/history?by=';
    for (const name of ['Mira%20Sand', 'Teo%20Brandt']) {
      const [entry] = (await ines.get(`${path}${name}`)).json.entries as { words: string }[];
      expect(entry!.words).toMatch(/with (Mira Sand|Teo Brandt)/);
    }
  });

  it('is saved by itself after a pause, and told to everybody', async () => {
    const writer = writerAt(mira, 'two');
    await writer.exchange();
    write(writer, 'By itself');
    await writer.exchange();
    expect(await contentOf('two')).toBeNull();
    await until('it is so', async () => (await textOn('two')) === 'By itself');
    await until('it is so', async () => told(await writer.exchange()).savedSeq === writer.seq);
    // It is a step of undo of who wrote it.
    expect((await mira.post('/api/sites/jt/undo', {})).status).toBe(200);
    expect(await contentOf('two')).toBeNull();
    await writer.exchange();
    expect(writer.text).toBe('');
  });

  it('takes in what the page is given otherwise, without losing what is not saved yet', async () => {
    await give('three', 'First', 'Second');
    const writer = writerAt(mira, 'three');
    await writer.exchange();
    write(writer, 'First', 'Second, by hand');
    await writer.exchange();
    await give('three', 'Zero', 'First', 'Second');
    await writer.exchange({ save: true });
    expect(writer.text).toBe('Zero / First / Second, by hand');
    expect(await textOn('three')).toBe('Zero First Second, by hand');
  });

  it('keeps what was taken, though the process that took it never saves it', async () => {
    await give('four', 'Start');
    const writer = writerAt(mira, 'four');
    await writer.exchange();
    write(writer, 'Start and more');
    await writer.exchange();
    const row = { site: 'jt', place: 'page four' };
    const columns = ['saved_seq', 'content', 'state', 'saved_revision'];
    const before = await server.database('joint_text').where(row).first(columns);
    await until('it is so', async () => (await textOn('four')) === 'Start and more');
    // As if it had ended between the edit and the note that it was made.
    await server.database('joint_text').where(row).update(before);
    write(writer, 'Start and more and more');
    await writer.exchange({ save: true });
    expect(await textOn('four')).toBe('Start and more and more');
    const again = writerAt(mira, 'four');
    await again.exchange();
    expect(again.text).toBe('Start and more and more');
  });

  it('is for who may write there; who may read it sees it, and the others nothing', async () => {
    await give('five', 'Look');
    const reader = await server.colleague('Oona Bell', 'jt', 'reader');
    const looking = writerAt(reader, 'five');
    expect((await looking.exchange())!.status).toBe(200);
    write(looking, 'Look, changed');
    expect(told(await looking.exchange()).code).toBe('not-allowed');
    const elsewhere = writerAt(teo, 'five');
    expect(told(await elsewhere.exchange()).code).toBe('not-allowed');
    expect(told(await writerOf(teo, 'notes', 'five').exchange()).code).toBe('not-allowed');
    expect((await writerOf(teo, 'notes', 'one').exchange())!.status).toBe(200);
    const caret = { anchor: '{}', head: '{}' };
    expect(told(await looking.exchange({ update: null, caret })).code).toBe('not-allowed');
    expect(await textOn('five')).toBe('Look');
  });

  it('takes nothing that is no change of it, and goes on', async () => {
    await give('six', 'Sound');
    const writer = writerAt(mira, 'six');
    await writer.exchange();
    const other = new Y.Doc();
    other.getXmlFragment(JOINT_FRAGMENT).insert(0, [new Y.XmlText('loose')]);
    const half = new Y.Doc();
    half.getText('x').insert(0, 'a');
    const before = Y.encodeStateVector(half);
    half.getText('x').insert(1, 'b');
    for (const bytes of [
      Buffer.from([1, 2, 3, 250, 250, 250, 250, 9]),
      Buffer.from(Y.encodeStateAsUpdate(other)),
      Buffer.from(Y.encodeStateAsUpdate(half, before)),
    ]) {
      const refused = await writer.exchange({ update: bytes.toString('base64') });
      expect(told(refused).code).toBe('update-invalid');
    }
    const stale = await writer.exchange({ base: 'another', update: Buffer.from([0, 0]).toString('base64') });
    expect(told(stale).code).toBe('text-began-anew');
    write(writer, 'Sound and whole');
    await writer.exchange({ save: true });
    expect(await textOn('six')).toBe('Sound and whole');
    // What grows without end, and is no text, ends: who writes goes on from what the page has.
    let ended: Answered | null = null;
    for (let tries = 0; tries < 30 && ended?.status !== 409; tries++) {
      writer.shared.getMap('junk').set(String(tries), 'x'.repeat(900_000));
      ended = await writer.exchange();
    }
    expect(told(ended).code).toBe('text-began-anew');
    const anew = writerAt(mira, 'six');
    await anew.exchange();
    expect(anew.text).toBe('Sound and whole');
    // A text that is too long is not saved, and who writes it is told.
    write(anew, 'x'.repeat(500_000));
    expect(told(await anew.exchange({ save: true })).problem).toMatch(/400000|400,000/);
    write(anew, 'Short again');
    expect(told(await anew.exchange({ save: true })).problem).toBeNull();
    expect(await textOn('six')).toBe('Short again');
  });
});

describe('the other texts that several write', () => {
  const settings = async () => {
    const { rows } = await server.database.raw(`SELECT shared, labels FROM site WHERE key = 'jt'`);
    return rows[0] as { shared: { content: string | null }[]; labels: { pageOutline?: string }[] };
  };
  const words = async (id: string | null | undefined): Promise<string> => {
    const row = await server
      .database('content')
      .where({ site: 'jt', id: id ?? '' })
      .first('document');
    return row ? plainTextOf(row.document) : '';
  };
  const notesOn = async (page: string): Promise<string> =>
    words((await server.database('node').where({ site: 'jt', id: page }).first('plan')).plan?.notes);
  /** Two write at the two ends of a line, in processes of their own, and neither has heard of the other. */
  async function bothWrite(of: TextPlace['of'], id: string): Promise<void> {
    const [her, him] = [writerOf(mira, of, id), writerOf(max, of, id)];
    await her.exchange();
    write(her, 'Ferries');
    await her.exchange({ save: true });
    await him.exchange();
    expect(him.text).toBe('Ferries');
    write(her, 'All ferries');
    write(him, 'Ferries sail');
    await Promise.all([her.exchange(), him.exchange()]);
    await him.exchange({ save: true });
    await her.exchange();
    expect(new Set([her.text, him.text]).size).toBe(1);
    expect(him.text).toMatch(/All.*sail/);
  }
  let max: Person;
  beforeAll(async () => {
    max = await server.colleague('Max Orr', 'jt', 'manager', server.otherOrigin);
    await ines.operations(
      'jt',
      { name: 'shared.add', shared: 'hours', title: 'Hours' },
      { name: 'label.add', label: 'boat', title: 'Boat', about: 'page' },
      { name: 'page.add', page: 'seven', place: { parent: null }, title: { en: 'seven' } },
      { name: 'page.set', page: 'seven', fields: { access: { labels: ['boat'] } } },
    );
  });

  it('are a shared section', async () => {
    await bothWrite('shared', 'hours');
    await until('it is so', async () => /All.*sail/.test(await words((await settings()).shared[0]!.content)));
  });

  it('are the notes on a page, beside its text', async () => {
    await bothWrite('notes', 'seven');
    await until('it is so', async () => /All.*sail/.test(await notesOn('seven')));
    expect(await textOn('seven')).toBe('');
  });

  it('are the outline of a kind, which pages of it follow; it is for who may set kinds', async () => {
    const writer = writerOf(mira, 'outline', 'boat');
    await writer.exchange();
    write(writer, 'Not hers');
    expect(told(await writer.exchange()).code).toBe('not-allowed');
    mira = await server.colleague('Vera Lund', 'jt', 'manager');
    await bothWrite('outline', 'boat');
    await until('it is so', async () => /All.*sail/.test(await words((await settings()).labels[0]!.pageOutline)));
    expect(await contentOf('seven')).toBe((await settings()).labels[0]!.pageOutline);
  });

  it('are nowhere else', async () => {
    const body = { tab: 'x', base: null, after: 0, update: null, caret: null, save: false };
    const codeAt = async (path: string) =>
      (await mira.post(`/api/sites/jt/texts/${path}/joint`, body)).json.code as string;
    expect(await codeAt('shared/gone')).toBe('shared-unknown');
    expect(await codeAt('outline/gone')).toBe('label-unknown');
    expect(await codeAt('notes/gone')).toBe('page-unknown');
    expect(await codeAt('menu/main')).toBe('text-unknown');
    expect(await codeAt("page/x'%20OR%20'1")).toBe('text-unknown');
  });

  it('wait for their place where it was removed, and are saved once it is there again', async () => {
    const writer = writerOf(mira, 'shared', 'hours');
    await writer.exchange();
    write(writer, 'Open at nine');
    await writer.exchange();
    await ines.operations('jt', { name: 'shared.remove', shared: 'hours' });
    write(writer, 'Open at nine and ten');
    expect(told(await writer.exchange({ save: true })).code).toBe('shared-unknown');
    expect((await ines.post('/api/sites/jt/undo', {})).status).toBe(200);
    await writer.exchange({ save: true });
    expect(await words((await settings()).shared[0]!.content)).toBe('Open at nine and ten');
  });
});
