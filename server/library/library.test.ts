import { strFromU8, unzipSync } from 'fflate';
import { PDFDocument } from 'pdf-lib';
import { mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { FileContent } from '#core/files/file.ts';
import type { SiteKey } from '#core/model/ids.ts';
import { type TextPart, contentIdOf } from '#core/model/content.ts';
import type { LibraryFile, UploadAnswer } from '#contract/files.ts';
import type { JobQueue } from '../jobs/job-queue.ts';
import { LibraryService } from './library-service.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';
import { upload } from '../testing/upload.ts';

/** A picture of one colour, with a camera's notes of where it was taken, lying on its side. */
const photo = (colour: string, width = 900, height = 600): Promise<Buffer> =>
  sharp({ create: { width, height, channels: 3, background: colour } })
    .jpeg()
    .withExif({ IFD0: { Copyright: 'camera of somebody' }, IFD3: { GPSLatitude: '50/1 6/1 0/1', GPSLatitudeRef: 'N' } })
    .withMetadata({ orientation: 6 })
    .toBuffer();

describe('the library of a site', () => {
  let server: TestServer;
  let ines: Person;

  beforeAll(async () => {
    server = await startTestServer();
    await server.site('files');
    ines = await server.person('Ines');
    await show('home', [{ type: 'paragraph' }], true);
  });
  afterAll(() => server.close());

  const send = (name: string, bytes: Uint8Array | string, replaces?: string) =>
    upload(ines, server.origin, 'files', name, bytes, replaces);
  const sent = async (name: string, bytes: Uint8Array | string, replaces?: string): Promise<UploadAnswer> => {
    const said = await send(name, bytes, replaces);
    if (!('answer' in said)) throw new Error(JSON.stringify(said));
    return said.answer;
  };
  const list = async (): Promise<LibraryFile[]> => (await ines.get('/api/sites/files/files')).json.files;
  const at = async (id: string) => (await list()).find((one) => one.id === id)!;
  const ready = async (answer: UploadAnswer): Promise<LibraryFile> => {
    await until('the file is prepared', async () => (await at(answer.file.id)).state !== 'waiting', 30_000);
    return at(answer.file.id);
  };
  /** Has a page show something, and makes it live where that is asked for. */
  const show = async (page: string, parts: TextPart[], isLive: boolean, extra: object[] = []): Promise<void> => {
    const document = { type: 'doc' as const, content: parts };
    const id = contentIdOf(document);
    const answer = await ines.post('/api/sites/files/operations', {
      operations: [
        { name: 'page.add', page, place: { parent: null }, title: { en: page } },
        { name: 'page.set', page, fields: { content: id } },
        ...extra,
      ],
      contents: [{ id, document }],
    });
    expect([answer.status, answer.text]).toEqual([200, answer.text]);
    if (isLive) expect((await ines.post('/api/sites/files/releases', { pages: [page] })).status).toBe(200);
  };

  it('takes a picture, upright and without where it was taken, in several sizes', async () => {
    const answer = await sent('C:\\camera\\harbour_at-dawn.jpg', await photo('#336699'));
    expect(answer).toMatchObject({
      isKnown: false,
      isNameProposed: false,
      file: { name: 'Harbour at-dawn', width: 600, height: 900 },
    });
    const file = await ready(answer);
    expect(file).toMatchObject({ state: 'ready', type: 'image/jpeg', width: 600, height: 900 });
    const bytes = async (query: string) =>
      Buffer.from(
        await (
          await fetch(`${server.origin}/api/sites/files/files/${file.id}/bytes${query}`, {
            headers: { Cookie: ines.cookie },
          })
        ).arrayBuffer(),
      );
    const whole = await sharp(await bytes('')).metadata();
    expect(whole).toMatchObject({ format: 'jpeg', width: 600, height: 900 });
    expect([whole.exif, whole.orientation]).toEqual([undefined, undefined]);
    expect(await sharp(await bytes('?width=300')).metadata()).toMatchObject({ format: 'webp', width: 320 });
  });

  it('is prepared by another process where the one that took the file has ended, and never twice', async () => {
    const parts = { database: server.database, store: server.store, now: () => new Date() };
    const [first, second] = [new LibraryService(parts), new LibraryService(parts)];
    const path = join(await mkdtemp(join(tmpdir(), 'spur-library-')), 'sent');
    await writeFile(path, await photo('#772299'));
    // Nobody takes its job: the process ends.
    const { file } = await first.take({
      site: 'files' as SiteKey,
      path,
      name: 'Oar.jpg',
      replaces: null,
      account: null,
    });
    expect((await at(file.id)).state).toBe('waiting');
    const jobs: FileContent[] = [];
    second.useQueue({
      send: async (_, data) => void jobs.push((data as { content: FileContent }).content),
    } as JobQueue);
    await second.takeUp();
    expect(jobs).toContain(file.content);
    await Promise.all([1, 2, 3].map(() => second.prepare({ content: file.content as FileContent })));
    expect(await at(file.id)).toMatchObject({ state: 'ready', width: 600, height: 900 });
    expect(await server.store.get(file.content as FileContent, 'original')).toBeUndefined();
    expect((await server.store.get(file.content as FileContent, '320.avif'))!.length).toBeGreaterThan(100);
  });

  it('takes the same bytes twice as one file, and puts it back where it was removed', async () => {
    const bytes = await photo('#aa5500');
    const once = await sent('Kiln.jpg', bytes);
    const twice = await sent('Kiln again.jpg', bytes);
    expect([twice.isKnown, twice.file.id, twice.file.name]).toEqual([true, once.file.id, 'Kiln']);
    const both = await Promise.all([1, 2, 3].map((n) => sent(`At once ${n}.txt`, 'the same words')));
    expect(new Set(both.map(({ file }) => file.id)).size).toBe(1);
    expect((await ines.send('DELETE', `/api/sites/files/files/${once.file.id}`)).status).toBe(200);
    expect(await at(once.file.id)).toBeUndefined();
    expect((await sent('Kiln.jpg', bytes)).file.id).toBe(once.file.id);
    expect(await at(once.file.id)).toMatchObject({ name: 'Kiln' });
  });

  it('proposes a name where the one that came says nothing', async () => {
    const answer = await sent('../../IMG_20260312_093312.jpg', await photo('#224466'));
    expect([answer.isNameProposed, answer.file.name]).toEqual([true, 'Picture']);
  });

  it('goes on with an upload where it was interrupted, for who began it and nobody else', async () => {
    const bytes = Buffer.from('words that come in two parts, one after the other');
    const headers = { Origin: server.origin, Cookie: ines.cookie, 'Tus-Resumable': '1.0.0' };
    const begun = await fetch(`${server.origin}/api/sites/files/uploads`, {
      method: 'POST',
      headers: {
        ...headers,
        'Upload-Length': String(bytes.length),
        'Upload-Metadata': `name ${Buffer.from('Two parts.txt').toString('base64')}`,
      },
    });
    expect(begun.status).toBe(201);
    const where = new URL(begun.headers.get('location')!, server.origin).href;
    const patch = (offset: number, part: Uint8Array<ArrayBuffer>, cookie = ines.cookie) =>
      fetch(where, {
        method: 'PATCH',
        headers: {
          ...headers,
          Cookie: cookie,
          'Upload-Offset': String(offset),
          'Content-Type': 'application/offset+octet-stream',
        },
        body: part,
      });
    expect((await patch(0, bytes.subarray(0, 20))).status).toBe(204);
    const marek = await server.person('Marek');
    const reader = await server.colleague('Reader', 'files', 'reader');
    expect((await patch(20, bytes.subarray(20), marek.cookie)).status).toBe(404);
    expect((await patch(20, bytes.subarray(20), reader.cookie)).status).toBe(403);
    expect((await fetch(where, { headers })).status).toBe(404);
    const asked = await fetch(where, { method: 'HEAD', headers });
    expect(asked.headers.get('upload-offset')).toBe('20');
    const done = await patch(20, bytes.subarray(20));
    expect(done.status).toBe(200);
    const { file } = (await done.json()) as UploadAnswer;
    const got = await ines.get(`/api/sites/files/files/${file.id}/bytes`);
    expect(got.text).toBe(bytes.toString());
  });

  it.each<[string, string, Uint8Array | string, string]>([
    ['a page', 'story.txt', '<!doctype html><script>alert(1)</script>', 'file-type'],
    ['a program', 'picture.jpg', Buffer.from([0x4d, 0x5a, 0x90, 0, 3, 0, 0, 0, 4, 0, 0, 0, 255, 255]), 'file-type'],
    ['a script of a shell', 'notes.txt', '#!/bin/sh\nrm -rf /', 'file-type'],
    ['an archive', 'all.zip', Buffer.from('504b0506000000000000000000000000000000000000', 'hex'), 'file-type'],
    ['nothing', 'empty.txt', '', 'file-empty'],
    ['a picture that is cut off', 'half.png', Buffer.from('89504e470d0a1a0a0000000d49484452', 'hex'), 'file-broken'],
  ])('refuses %s with a reason, and keeps nothing of it', async (_, name, bytes, code) => {
    const before = (await list()).length;
    const said = await send(name, bytes);
    expect([said.status >= 400, 'problem' in said && said.problem.code]).toEqual([true, code]);
    expect((await list()).length).toBe(before);
  });

  it('refuses a picture of too many pixels by its head, and a file that is announced too large', async () => {
    const bomb = Buffer.from(
      '89504e470d0a1a0a0000000d494844520000ea600000ea60080200000000000000'.slice(0, 66) + '0000000049454e44ae426082',
      'hex',
    );
    const said = await send('bomb.png', bomb);
    expect(['problem' in said && said.problem.code]).toEqual(['file-broken']);
    const announced = await fetch(`${server.origin}/api/sites/files/uploads`, {
      method: 'POST',
      headers: {
        Origin: server.origin,
        Cookie: ines.cookie,
        'Tus-Resumable': '1.0.0',
        'Upload-Length': '10000000000',
        'Upload-Metadata': `name ${Buffer.from('all.mp4').toString('base64')}`,
      },
    });
    expect(announced.status).toBe(413);
  });

  it('leaves nothing in a drawing but what draws', async () => {
    const file = await ready(
      await sent(
        'Plan.svg',
        `<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 30" onload="alert(1)">
        <script>alert(2)</script><style>@import url(https://evil.example/x.css);</style><style>.a{fill:red}</style>
        <foreignObject><iframe src="https://evil.example"/></foreignObject><a href="javascript:alert(3)"><text>Quay</text></a>
        <image href="https://evil.example/track.png"/><use href="#a"/><use href="https://evil.example/#a"/>
        <rect id="a" class="a" width="40" height="30" style="background:url(https://evil.example/y)"/></svg>`,
      ),
    );
    expect(file).toMatchObject({ state: 'ready', width: 40, height: 30 });
    const { text, headers } = await ines.get(`/api/sites/files/files/${file.id}/bytes`);
    expect(text).not.toMatch(/script|evil|onload|foreignObject|iframe|javascript|@import/i);
    expect(text).toMatch(/<rect id="a"[^>]*>/);
    expect(text).toContain('Quay');
    expect(headers.get('content-security-policy')).toContain('sandbox');
  });

  it('counts the pages of a PDF document and makes a picture of the first one; one that is broken stays a document', async () => {
    const document = await PDFDocument.create();
    document.addPage([300, 400]).drawText('Prospectus', { x: 20, y: 200 });
    document.addPage([300, 400]);
    const file = await ready(await sent('Prospectus.pdf', await document.save()));
    expect(file).toMatchObject({ state: 'ready', pages: 2, hasPicture: true });
    const broken = await ready(await sent('Broken.pdf', '%PDF-1.7\nnothing of worth'));
    expect(broken).toMatchObject({ state: 'ready', pages: null, hasPicture: false });
  });

  describe('on pages', () => {
    const address = (html: string) => /src="([^"]*~files[^"]*)"/.exec(html)![1]!;

    it('gives a picture to nobody until a page that shows it is live, then to whoever can open that page', async () => {
      const file = await ready(await sent('Slipway.jpg', await photo('#118855', 1400, 1000)));
      const parts: TextPart[] = [
        {
          type: 'picture',
          attrs: { file: file.id, place: 'text', alternative: 'The slipway', credit: 'Wren' },
          content: [{ type: 'text', text: 'At low water' }],
        },
        { type: 'download', attrs: { file: file.id, words: 'As a file' } },
      ];
      const whole = `/files/~files/${file.content}/slipway.jpg`;
      await show('slipway', parts, false);
      expect((await server.live(whole)).status).toBe(404);
      expect((await ines.post('/api/sites/files/releases', { pages: ['slipway'] })).status).toBe(200);
      const page = await server.live('/files/slipway');
      expect(page.text).toContain('alt="The slipway"');
      expect(page.text).toMatch(/<source type="image\/avif" srcset="[^"]*320\.avif 320w, [^"]*1000\.avif 1000w"/);
      expect(page.text).toMatch(/width="1000" height="1400"/);
      expect(page.text).toContain('<figcaption>At low water</figcaption>');
      expect(page.text).toContain('<meta property="og:image" content="https://www.example/files/~files/');
      expect(page.text).toMatch(/As a file<\/a> <small>JPEG, \d+ kB<\/small>/);
      const picture = await server.live(address(page.text));
      expect([picture.status, picture.headers.get('content-type')]).toEqual([200, 'image/jpeg']);
      expect(picture.headers.get('cache-control')).toBe('public, max-age=31536000, immutable');
      for (const [, one] of page.text.matchAll(/(\/files\/~files\/[\w./-]+) \d+w/g))
        expect([one, (await server.live(one!)).status]).toEqual([one, 200]);
      const some = await server.live(whole, { Range: 'bytes=2-5' });
      expect([
        some.status,
        some.headers.get('content-range')?.split('/')[0],
        some.headers.get('content-length'),
      ]).toEqual([206, 'bytes 2-5', '4']);
      expect((await server.live(whole, { Range: 'bytes=999999999-' })).status).toBe(416);
      expect((await at(file.id)).usedBy).toEqual(['slipway']);
      expect((await at(file.id)).liveOn).toEqual(['slipway']);
    });

    it('has a page found by what a PDF document says that it shows to all, until another stands in its place', async () => {
      const saying = async (words: string) => {
        const document = await PDFDocument.create();
        document.addPage([300, 400]).drawText(words, { x: 20, y: 200 });
        return document.save();
      };
      const found = async (word: string) =>
        [
          ...(await server.live(`/files/search?q=${word}`)).text
            .split('<main')[1]!
            .matchAll(/<li><a href="\/files\/(\w+)"/g),
        ].map(([, page]) => page);
      const file = await ready(await sent('Tools.pdf', await saying('Bring an adze and a slick.')));
      const shown: TextPart = { type: 'download', attrs: { file: file.id, words: '' } };
      const forCrew: TextPart = { type: 'audienceSection', attrs: { only: ['crew'], except: [] }, content: [shown] };
      const crew = { name: 'audience.add', audience: 'crew', title: 'Crew' };
      await show('crewtools', [forCrew], true, [crew]);
      await show('tools', [shown], true);
      await until('it is found', async () => (await found('adze')).includes('tools'));
      expect(await found('adze')).toEqual(['tools']);
      await sent('Tools.pdf', await saying('Bring a spokeshave.'), file.id);
      await until('it is found by other words', async () => (await found('spokeshave')).includes('tools'));
      expect(await found('adze')).toEqual([]);
      await ines.send('DELETE', `/api/sites/files/files/${file.id}`);
      await until('it is found no more', async () => (await found('spokeshave')).length === 0);
    });

    it('tells of a picture without words, until the library has some, and of a file that is gone', async () => {
      const file = await ready(await sent('Rudder.jpg', await photo('#cc8811')));
      await show(
        'rudder',
        [{ type: 'picture', attrs: { file: file.id, place: 'text', alternative: null, credit: '' } }],
        false,
      );
      const faults = async () =>
        ((await ines.get('/api/sites/files/text-links')).json.draftFaults as { page: string; fault: string }[]).flatMap(
          (one) => (one.page === 'rudder' ? [one.fault] : []),
        );
      expect(await faults()).toEqual(['alternative']);
      await ines.send('PUT', `/api/sites/files/files/${file.id}`, { alternative: 'A rudder of oak' });
      expect(await faults()).toEqual([]);
      await ines.send('DELETE', `/api/sites/files/files/${file.id}`);
      expect(await faults()).toEqual(['no file']);
    });

    it('shows what a file was replaced by on every page, and leads on from its former address', async () => {
      const first = await ready(await sent('Timetable.txt', 'Ferries of May'));
      await show('ferries', [{ type: 'download', attrs: { file: first.id, words: '' } }], true);
      expect((await server.live('/files/ferries')).text).toContain(`${first.content}/timetable.txt`);
      const wrong = await send('Timetable.png', await photo('#000000'), first.id);
      expect('problem' in wrong && wrong.problem.code).toBe('file-kind');
      const { file } = await sent('June.txt', 'Ferries of June', first.id);
      expect([file.id, file.name, file.state]).toEqual([first.id, 'Timetable', 'ready']);
      await until('the page shows it', async () =>
        (await server.live('/files/ferries')).text.includes(`${file.content}/timetable.txt`),
      );
      const former = await server.live(`/files/~files/${first.content}/timetable.txt`);
      expect([former.status, former.headers.get('location')]).toEqual([
        301,
        `/files/~files/${file.content}/timetable.txt`,
      ]);
      expect((await server.live(former.headers.get('location')!)).text).toBe('Ferries of June');
    });

    it('gives bytes that two files have to whoever can open a page of either, also once one has others', async () => {
      const [a, b] = [await ready(await sent('Red.txt', 'red')), await ready(await sent('Blue.txt', 'blue'))];
      await show('blue', [{ type: 'download', attrs: { file: b.id, words: '' } }], true);
      await sent('Red.txt', 'blue', a.id);
      const address = `/files/~files/${b.content}/blue.txt`;
      expect((await server.live(address)).text).toBe('blue');
      await sent('Red.txt', 'green', a.id);
      expect((await server.live(address)).text).toBe('blue');
    });

    it('keeps nothing of what cannot replace a file, and the file stays', async () => {
      const first = await ready(await sent('Dot.svg', '<svg viewBox="0 0 9 9"><rect width="9" height="9"/></svg>'));
      const said = await send('Dot.svg', '<svg><rect width="9" height="9"/></svg>', first.id);
      expect('problem' in said && said.problem.code).toBe('file-broken');
      expect(await at(first.id)).toMatchObject({ state: 'ready', content: first.content });
    });

    it('shows nothing in the place of a file that was removed, and gives it to nobody', async () => {
      const file = await ready(await sent('Menu.txt', 'Soup and bread'));
      await show('canteen', [{ type: 'download', attrs: { file: file.id, words: 'This week' } }], true);
      expect((await server.live('/files/canteen')).text).toContain('This week');
      await ines.send('DELETE', `/api/sites/files/files/${file.id}`);
      await until(
        'the page shows nothing',
        async () => !(await server.live('/files/canteen')).text.includes('This week'),
      );
      expect((await server.live(`/files/~files/${file.content}/menu.txt`)).status).toBe(404);
      // To send it again puts it back, as the way that is meant for that does.
      await sent('Menu.txt', 'Soup and bread');
      await until('the page shows it', async () => (await server.live('/files/canteen')).text.includes('This week'));
      await ines.send('DELETE', `/api/sites/files/files/${file.id}`);
      expect((await ines.post(`/api/sites/files/files/${file.id}/put-back`, {})).status).toBe(200);
      await until('the page shows it', async () => (await server.live('/files/canteen')).text.includes('This week'));
    });

    it('goes along with a text that is copied to another site, and with the site as files', async () => {
      const file = await ready(await sent('Rules.txt', 'No running on the quay'));
      const document = {
        type: 'doc' as const,
        content: [{ type: 'download', attrs: { file: file.id, words: 'Rules' } }],
      };
      const content = contentIdOf(document);
      await server.site('other');
      const operations = [
        { name: 'page.add', page: 'p1', place: { parent: null }, title: { en: 'Rules' } },
        { name: 'page.set', page: 'p1', fields: { content } },
      ];
      const answer = await ines.post('/api/sites/other/operations', {
        operations,
        contents: [{ id: content, document }],
      });
      expect(answer.status).toBe(200);
      expect((await ines.get('/api/sites/other/files')).json.files).toMatchObject([{ id: file.id, usedBy: ['p1'] }]);
      expect((await ines.post('/api/sites/other/releases', { pages: ['p1'] })).status).toBe(200);
      expect((await server.live(`/other/~files/${file.content}/rules.txt`)).text).toBe('No running on the quay');
      const zip = await fetch(`${server.origin}/api/sites/other/static-site`, { headers: { Cookie: ines.cookie } });
      const files = unzipSync(new Uint8Array(await zip.arrayBuffer()));
      expect(strFromU8(files[`~files/${file.content}/rules.txt`]!)).toBe('No running on the quay');
      const page = Object.entries(files).find(([name]) => name.endsWith('rules/index.html') || name === 'index.html')!;
      expect(strFromU8(page[1])).toMatch(new RegExp(`href="(\\./|\\.\\./)~files/${file.content}/rules.txt"`));
    });
  });
});
