import { updateYFragment } from '@tiptap/y-tiptap';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import * as Y from 'yjs';
import type { RoleId } from '#core/people/role.ts';
import { type TextDocument, contentIdOf, plainTextOf } from '#core/model/content.ts';
import { toPageId } from '#core/model/ids.ts';
import { JOINT_FRAGMENT, type JointAnswer } from '#contract/joint-text.ts';
import { textSchema } from '#contract/rich-text.ts';
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

/** A browser in which somebody writes in the text of a page. */
class Writer {
  readonly shared = new Y.Doc();
  readonly waiting: Uint8Array[] = [];
  readonly #who: Person;
  readonly #page: string;
  base: string | null = null;
  seq = 0;
  constructor(who: Person, page: string) {
    this.#who = who;
    this.#page = page;
    this.shared.on('update', (update: Uint8Array, origin: unknown) => {
      if (origin !== 'server') this.waiting.push(update);
    });
  }

  get text(): string {
    return this.shared
      .getXmlFragment(JOINT_FRAGMENT)
      .toArray()
      .map((part) => plainText(part))
      .filter(Boolean)
      .join(' / ');
  }

  write(...lines: string[]): void {
    const node = textSchema.nodeFromJSON(textOf(...lines));
    updateYFragment(this.shared, this.shared.getXmlFragment(JOINT_FRAGMENT), node, {
      mapping: new Map(),
      isOMark: new Map(),
    });
  }

  async exchange(save = false, sent: object = {}) {
    const taken = this.waiting.splice(0);
    const update = taken.length === 0 ? null : Buffer.from(Y.mergeUpdates(taken)).toString('base64');
    const body = { tab: 'a', base: this.base, after: this.seq, update, caret: null, save, ...sent };
    const answer = await this.#who.post(`/api/sites/jt/pages/${this.#page}/joint`, body);
    if (answer.status === 200) {
      const joint = answer.json as JointAnswer;
      this.base = joint.base;
      this.seq = joint.seq;
      if (joint.update) Y.applyUpdate(this.shared, Buffer.from(joint.update, 'base64'), 'server');
    }
    return answer;
  }
}
const plainText = (part: unknown): string => (part as Y.XmlElement).toString().replaceAll(/<[^>]*>/g, '');

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
    const [her, him] = [new Writer(mira, 'one'), new Writer(teo, 'one')];
    await Promise.all([her.exchange(), him.exchange()]);
    expect(her.text).toBe('Boats / Oars');
    her.write('Boats by Mira', 'Oars');
    him.write('Boats', 'Oars by Teo');
    // Neither has heard of the other.
    await Promise.all([her.exchange(), him.exchange()]);
    await her.exchange();
    await him.exchange(true);
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
    const writer = new Writer(mira, 'two');
    await writer.exchange();
    writer.write('By itself');
    await writer.exchange();
    expect(await contentOf('two')).toBeNull();
    await until('it is so', async () => (await textOn('two')) === 'By itself');
    await until('it is so', async () => ((await writer.exchange()).json as JointAnswer).savedSeq === writer.seq);
    // It is a step of undo of who wrote it.
    expect((await mira.post('/api/sites/jt/undo', {})).status).toBe(200);
    expect(await contentOf('two')).toBeNull();
    await writer.exchange();
    expect(writer.text).toBe('');
  });

  it('takes in what the page is given otherwise, without losing what is not saved yet', async () => {
    await give('three', 'First', 'Second');
    const writer = new Writer(mira, 'three');
    await writer.exchange();
    writer.write('First', 'Second, by hand');
    await writer.exchange();
    await give('three', 'Zero', 'First', 'Second');
    await writer.exchange(true);
    expect(writer.text).toBe('Zero / First / Second, by hand');
    expect(await textOn('three')).toBe('Zero First Second, by hand');
  });

  it('keeps what was taken, though the process that took it never saves it', async () => {
    await give('four', 'Start');
    const writer = new Writer(mira, 'four');
    await writer.exchange();
    writer.write('Start and more');
    await writer.exchange();
    const row = { site: 'jt', page: 'four' };
    await until('it is so', async () => (await textOn('four')) === 'Start and more');
    // As if it had ended between the edit and the note that it was made.
    await server.database('joint_text').where(row).update({ saved_seq: 0, content: writer.base, saved_revision: 0 });
    writer.write('Start and more and more');
    await writer.exchange(true);
    expect(await textOn('four')).toBe('Start and more and more');
    const again = new Writer(mira, 'four');
    await again.exchange();
    expect(again.text).toBe('Start and more and more');
  });

  it('is for who may write there; who may read it sees it, and the others nothing', async () => {
    await give('five', 'Look');
    const reader = await server.colleague('Oona Bell', 'jt', 'reader');
    const looking = new Writer(reader, 'five');
    expect((await looking.exchange()).status).toBe(200);
    looking.write('Look, changed');
    expect((await looking.exchange()).json.code).toBe('not-allowed');
    const elsewhere = new Writer(teo, 'five');
    expect((await elsewhere.exchange()).json.code).toBe('not-allowed');
    const caret = { anchor: '{}', head: '{}' };
    expect((await looking.exchange(false, { update: null, caret })).json.code).toBe('not-allowed');
    expect(await textOn('five')).toBe('Look');
  });

  it('takes nothing that is no change of it, and goes on', async () => {
    await give('six', 'Sound');
    const writer = new Writer(mira, 'six');
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
      const refused = await writer.exchange(false, { update: bytes.toString('base64') });
      expect(refused.json.code).toBe('update-invalid');
    }
    const stale = await writer.exchange(false, { base: 'another', update: Buffer.from([0, 0]).toString('base64') });
    expect(stale.json.code).toBe('text-began-anew');
    writer.write('Sound and whole');
    await writer.exchange(true);
    expect(await textOn('six')).toBe('Sound and whole');
    // A text that is too long is not saved, and who writes it is told.
    writer.write('x'.repeat(500_000));
    const told = await writer.exchange(true);
    expect((told.json as JointAnswer).problem).toMatch(/400000|400,000/);
    writer.write('Short again');
    expect(((await writer.exchange(true)).json as JointAnswer).problem).toBeNull();
    expect(await textOn('six')).toBe('Short again');
  });
});
