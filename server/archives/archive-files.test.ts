import { strFromU8, unzipSync, zipSync } from 'fflate';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type TextPart, contentIdOf } from '#core/model/content.ts';
import type { Archive } from '#contract/archive.ts';
import type { LibraryFile } from '#contract/files.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';
import { upload } from '../testing/upload.ts';

const KEY = 'quay';
/** Two Spurs that know nothing of each other. */
let here: TestServer;
let there: TestServer;
let ines: Person;
let oona: Person;
let archive: Uint8Array;
let files: LibraryFile[];

const photo = (background: string): Promise<Buffer> =>
  sharp({ create: { width: 800, height: 400, channels: 3, background } })
    .jpeg()
    .toBuffer();
const library = async (person: Person, site: string): Promise<LibraryFile[]> =>
  (await person.get(`/api/sites/${site}/files`)).json.files;
const called = (list: readonly LibraryFile[], name: string) => list.find((one) => one.name === name)!;
const send = async (name: string, bytes: Uint8Array | string, replaces?: string): Promise<LibraryFile> => {
  const said = await upload(ines, here.origin, KEY, name, bytes, replaces);
  if (!('answer' in said)) throw new Error(JSON.stringify(said));
  return said.answer.file;
};
const bytesOf = async (server: TestServer, person: Person, path: string): Promise<Uint8Array> =>
  new Uint8Array(await (await fetch(`${server.origin}${path}`, { headers: { Cookie: person.cookie } })).arrayBuffer());

beforeAll(async () => {
  [here, there] = [await startTestServer(), await startTestServer()];
  [ines, oona] = [await here.person('Ines'), await there.person('Oona')];
  await here.site(KEY);
  const slip = await send('Slip.jpg', await photo('#336699'));
  const form = await send('Form.txt', 'The form of May');
  await send('Form.txt', 'The form of June', form.id);
  const lost = await send('Lost.txt', 'What nobody needs');
  await ines.send('PUT', `/api/sites/${KEY}/files/${slip.id}`, { alternative: 'The slip at noon', focalX: 0.25 });
  await ines.send('DELETE', `/api/sites/${KEY}/files/${lost.id}`);
  const content: TextPart[] = [
    { type: 'picture', attrs: { file: slip.id, place: 'text', alternative: null, credit: '' } },
    { type: 'download', attrs: { file: form.id, words: 'The form' } },
  ];
  const document = { type: 'doc' as const, content };
  const id = contentIdOf(document);
  const made = await ines.post(`/api/sites/${KEY}/operations`, {
    operations: [
      { name: 'page.add', page: 'pier', place: { parent: null }, title: { en: 'Pier' }, content: id },
      { name: 'page.add', page: 'home', place: { parent: null }, title: { en: 'Home' } },
      { name: 'site.set', fields: { home: 'home' } },
    ],
    contents: [{ id, document }],
  });
  expect([made.status, made.text]).toEqual([200, made.text]);
  await ines.post(`/api/sites/${KEY}/releases`, { pages: 'all' });
  await until(
    'all are ready',
    async () => (files = await library(ines, KEY)).every(({ state }) => state === 'ready'),
    30_000,
  );
  archive = await bytesOf(here, ines, `/api/sites/${KEY}/archive?files=yes`);
});
afterAll(() => Promise.all([here.close(), there.close()]));

describe('an archive with the files of the library', () => {
  it('is a ZIP file with the archive, and each file under its id', async () => {
    const parts = unzipSync(archive);
    const text = JSON.parse(strFromU8(parts['archive.json']!)) as Archive;
    const ending = (type: string) => (type === 'image/jpeg' ? 'jpg' : 'txt');
    expect(Object.keys(parts).sort()).toEqual(
      ['archive.json', ...text.files.map(({ id, type }) => `files/${id}.${ending(type)}`)].sort(),
    );
    expect(text.files.length).toBe(3);
    expect(text.files.find(({ name }) => name === 'Slip')).toMatchObject({
      alternative: 'The slip at noon',
      focalX: 0.25,
      isRemoved: false,
    });
    expect(text.files.find(({ name }) => name === 'Lost')!.isRemoved).toBe(true);
    expect(text.files.find(({ name }) => name === 'Form')!.formerContents.length).toBe(1);
    expect(strFromU8(parts[`files/${called(files, 'Form').id}.txt`]!)).toBe('The form of June');
  });

  it('brings all of them to another Spur: names, words, what shows them, and addresses that were given away', async () => {
    const brought = await oona.sendFile('/api/archives/far?name=quay-archive.zip', archive);
    expect([brought.status, brought.json.detail]).toEqual([200, undefined]);
    const again = async () => library(oona, 'far');
    await until('they are prepared', async () => (await again()).every(({ state }) => state === 'ready'), 30_000);
    const plain = ({ id, name, type, width, height, alternative, focalX, usedBy, liveOn }: LibraryFile) => ({
      ...{ id, name, type, width, height, alternative, focalX, usedBy, liveOn },
    });
    const byId = (a: { id: string }, b: { id: string }) => (a.id < b.id ? -1 : 1);
    expect((await again()).map(plain).sort(byId)).toEqual(files.map(plain).sort(byId));
    await until('the page shows the picture', async () => (await there.live('/far/pier')).text.includes('<picture>'));
    const page = (await there.live('/far/pier')).text;
    expect(page).toContain('alt="The slip at noon"');
    const form = called(await again(), 'Form');
    expect((await there.live(`/far/~files/${form.content}/form.txt`)).text).toBe('The form of June');
    const before = JSON.parse(strFromU8(unzipSync(archive)['archive.json']!)) as Archive;
    const former = before.files.find(({ name }) => name === 'Form')!.formerContents[0]!;
    const led = await there.live(`/far/~files/${former}/form.txt`);
    expect([led.status, led.headers.get('location')]).toEqual([
      expect.toSatisfy((status: number) => status >= 301 && status <= 308),
      expect.stringContaining(form.content),
    ]);
  });

  it('brings them without their bytes where this Spur has these still', async () => {
    const text = Buffer.from(unzipSync(archive)['archive.json']!);
    expect((await ines.sendFile('/api/archives/twin', text)).status).toBe(200);
    expect((await library(ines, 'twin')).map(({ id, state }) => [id, state]).sort()).toEqual(
      files.map(({ id }) => [id, 'ready']).sort(),
    );
  });

  it('is not begun where the files are too large for it; without them it can be taken', async () => {
    await ines.sendFile('/api/archives/heavy', Buffer.from(unzipSync(archive)['archive.json']!));
    await here.database('file').where({ site: 'heavy', name: 'Form' }).update({ bytes: 3_600_000_000 });
    const answer = await ines.get('/api/sites/heavy/archive?files=yes');
    expect([answer.status, answer.json.code]).toEqual([409, 'archive-too-large']);
    expect((await ines.get('/api/sites/heavy/archive')).status).toBe(200);
  });

  const parts = () => unzipSync(archive);
  const slip = () => `files/${called(files, 'Slip').id}.jpg`;
  it.each([
    ['without an archive', () => zipSync({ 'other.json': parts()['archive.json']! }), /without ‘archive.json’/],
    ['cut off', () => archive.subarray(0, archive.length - 40), /ZIP file that cannot be read/],
    [
      'with a page of HTML as a picture',
      () => zipSync({ ...parts(), [slip()]: Buffer.from('<!doctype html><script>alert(1)</script>') }),
      /Slip/,
    ],
    ['with an empty file', () => zipSync({ ...parts(), [slip()]: new Uint8Array() }), /Slip/],
    [
      'with names that lead elsewhere',
      () => zipSync({ ...parts(), '../../etc/spur': Buffer.from('x') }),
      /cannot be read/,
    ],
    ['that is no archive', () => zipSync({ 'archive.json': Buffer.from('{"format":"other"}') }), /format/],
  ])('is refused %s, and nothing is made', async (_, bytes, reason) => {
    const stored = async () => (await there.database('file').where({ site: 'wrong' })).length;
    const answer = await oona.sendFile('/api/archives/wrong?name=x.zip', bytes());
    expect([answer.status, answer.json.code]).toEqual([422, 'file-unreadable']);
    expect(answer.json.errors[0].detail).toMatch(reason);
    expect([(await oona.get('/api/sites/wrong/tree')).status, await stored()]).toEqual([404, 0]);
  });
});
