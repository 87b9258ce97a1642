import { unzipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import sharp from 'sharp';
import type { FileContent } from '#core/files/file.ts';
import { FIRST_LOOK } from '#core/model/look.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';

const KEY = 'colours';
const OTHER = { ...FIRST_LOOK, colour: '#ffe600', pair: 'museum', header: 'strong' };
let server: TestServer;
let ines: Person;

const sheetOf = (html: string) => /<link rel="stylesheet" href="([^"]+)">/.exec(html)![1]!;
const home = async () => (await server.live(`/${KEY}/`)).text;
const setLook = (look: object) =>
  ines.post(`/api/sites/${KEY}/operations`, { operations: [{ name: 'site.set', fields: { look } }], contents: [] });
const release = (settings: string[]) => ines.post(`/api/sites/${KEY}/releases`, { pages: [], retire: [], settings });

beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site(KEY);
  await ines.operations(KEY, { name: 'page.add', page: 'home', place: { parent: null }, title: { en: 'Home' } });
  await ines.post(`/api/sites/${KEY}/releases`, { pages: 'all' });
});
afterAll(() => server.close());

describe('the look of a site', () => {
  let first = '';

  it('is one stylesheet that pages name by what it says, kept for ever, with the fonts that it needs', async () => {
    const html = await home();
    first = sheetOf(html);
    const sheet = await server.live(first);
    expect([sheet.status, sheet.headers.get('content-type'), sheet.headers.get('cache-control')]).toEqual([
      200,
      'text/css; charset=utf-8',
      'public, max-age=31536000, immutable',
    ]);
    expect(sheet.text).toContain('--accent: #0e6470;');
    const fonts = [...sheet.text.matchAll(/url\('(\/assets\/[^']+)'\)/g)].map(([, url]) => url!);
    expect(new Set(fonts.map((one) => one.split('-latin')[0]))).toEqual(
      new Set(['/assets/bricolage-grotesque', '/assets/hanken-grotesk']),
    );
    for (const font of fonts) expect((await server.live(font)).headers.get('content-type')).toBe('font/woff2');
    for (const [, preloaded] of html.matchAll(/rel="preload" href="([^"]+)"/g)) expect(fonts).toContain(preloaded);
  });

  it('changes nothing for visitors before it is released, but shows in a walk through the draft', async () => {
    expect((await setLook(OTHER)).status).toBe(200);
    expect(sheetOf(await home())).toBe(first);
    const walk = { isDraft: true, who: { audiences: ['everyone'] }, at: null };
    const { address } = (await ines.post(`/api/sites/${KEY}/walks`, walk)).json;
    const page = await server.live(new URL(address).pathname);
    const sheet = await server.live(sheetOf(page.text));
    expect(sheet.headers.get('content-type')).toBe('text/css; charset=utf-8');
    expect(sheet.text).toContain("'Crimson Pro'");
  });

  it('can be looked at before it is set, on light screens or dark ones', async () => {
    const walkIn = async (more: object) => {
      const walk = { isDraft: true, who: { audiences: ['everyone'] }, at: null, ...more };
      return new URL((await ines.post(`/api/sites/${KEY}/walks`, walk)).json.address).pathname;
    };
    const sheetIn = async (more: object) => {
      const page = await server.live(await walkIn(more));
      return (await server.live(sheetOf(page.text))).text;
    };
    const look = { ...FIRST_LOOK, colour: '#7a1f5c', corners: 'round' };
    const [both, dark] = [await sheetIn({ look }), await sheetIn({ look, screen: 'dark' })];
    expect(both).toContain('--radius: 16px');
    expect(dark).toContain('color-scheme: dark;');
    const colours = (sheet: string) => /:root \{ (--paper[^}]+?) --head-ground/.exec(sheet)![1];
    expect(both).toContain('@media (prefers-color-scheme: dark)');
    expect(dark).not.toContain('prefers-color-scheme');
    // On dark screens the first colours are those that the other sheet has below its question.
    expect(both.split('prefers-color-scheme: dark')[1]).toContain(colours(dark));
    expect(
      (
        await ines.post(`/api/sites/${KEY}/walks`, {
          isDraft: true,
          who: { audiences: [] },
          at: null,
          look: { ...look, colour: 'red' },
        })
      ).status,
    ).toBe(422);
  });

  it('has a page with all that can stand on pages, which visitors never get', async () => {
    const walk = { isDraft: true, who: { audiences: ['everyone'] }, at: null };
    const { pathname } = new URL((await ines.post(`/api/sites/${KEY}/walks`, walk)).json.address);
    const page = await server.live(`${pathname}~sample`);
    expect(page.status).toBe(200);
    for (const scheme of ['plain', 'tinted', 'strong', 'dark'])
      expect(page.text).toContain(`<div class="band is-wide in-${scheme}"`);
    expect(page.text.match(/aria-invalid="true"/g)!.length).toBeGreaterThanOrEqual(8);
    expect(page.text).not.toMatch(/undefined|\[object/);
    const ids = [...page.text.matchAll(/ id="([^"]+)"/g)].map(([, id]) => id);
    expect(ids.filter((id, at) => ids.indexOf(id) !== at)).toEqual([]);
    expect(page.text).toContain('<table class="month">');
    const [, next] = /href="([^"]+~sample\?[^"]+)"/.exec(page.text)!;
    expect((await server.live(next!.replaceAll('&amp;', '&'))).status).toBe(200);
    const drawing = /src="([^"]+the-quay\.svg)"/.exec(page.text)![1]!;
    expect((await server.live(drawing)).headers.get('content-type')).toMatch(/^image\/svg\+xml/);
    expect((await server.live(`/${KEY}/~sample`)).status).toBe(404);
  });

  it('goes live as a setting, and is taken back with its release; a page of before gets the look of now', async () => {
    expect((await release(['look'])).status).toBe(200);
    await until('visitors have it', async () => sheetOf(await home()) !== first);
    const second = sheetOf(await home());
    expect((await server.live(second)).text).toContain('--paper: #ffe600');
    const asked = await server.live(first);
    expect([asked.status, asked.headers.get('cache-control')]).toEqual([200, 'no-cache']);
    expect(asked.text).toContain('--paper: #ffe600');
    expect(await home()).toContain('%23ffe600');
    const releases = (await ines.get(`/api/sites/${KEY}/releases`)).json.releases as { number: number }[];
    const number = Math.max(...releases.map((one) => one.number));
    expect((await ines.post(`/api/sites/${KEY}/releases/${number}/take-back`, {})).status).toBe(200);
    await until('it is as it was', async () => sheetOf(await home()) === first);
  });

  it('is refused where it is none, with what is wrong', async () => {
    for (const wrong of [
      { ...OTHER, colour: 'red' },
      { ...OTHER, colour: '#fff; } body { display: none' },
      { ...OTHER, pair: 'comic' },
      { ...OTHER, more: 1 },
    ]) {
      const answer = await setLook(wrong);
      expect([answer.status, answer.json.code]).toEqual([422, 'body-invalid']);
    }
  });

  it('stands in no site that is not there, and in one that is closed for works', async () => {
    expect((await server.live('/nowhere/~look/0123456789.css')).status).toBe(404);
    await ines.send('PUT', `/api/sites/${KEY}/works`, { works: { words: 'New roof', until: null } });
    await until('it is closed', async () => (await server.live(`/${KEY}/`)).status === 503);
    const page = await server.live(`/${KEY}/`);
    expect((await server.live(sheetOf(page.text))).headers.get('content-type')).toBe('text/css; charset=utf-8');
    await ines.send('PUT', `/api/sites/${KEY}/works`, { works: null });
  });

  it('has a logo that whoever comes sees, and icons in all sizes made from it', async () => {
    const drawing =
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 60 20" width="60" height="20"><rect width="60" height="20" fill="#d4006a"/></svg>';
    const [logo, other] = ['LogoLogoLogo0001', 'LogoLogoLogo0002'];
    for (const [at, id] of [logo, other].entries()) {
      const content = String(at).repeat(32) as FileContent;
      const row = {
        site: KEY,
        id,
        name: id,
        type: 'image/svg+xml',
        content,
        bytes: drawing.length,
        width: 60,
        height: 20,
        state: 'ready',
        added_at: new Date(),
      };
      await server.database('file').insert(row);
      await server.database('file_content').insert({ site: KEY, content, file: id });
      await server.store.put(content, 'whole', Buffer.from(drawing));
    }
    const addressOf = (html: string) => /<img class="logo" src="([^"]+)"/.exec(html)?.[1];
    const wide = `/${KEY}/~files/${'0'.repeat(32)}/logologologo0001.svg`;
    expect((await server.live(wide)).status).toBe(404);
    await setLook({ ...FIRST_LOOK, logo });
    expect(addressOf(await home())).toBeUndefined();
    await release(['look']);
    await until('visitors see it', async () => addressOf(await home()) === wide);
    const html = await home();
    expect(html).toMatch(/alt=""><span>colours<\/span><\/a>/);
    // No page shows it, and it is there for all; the other one is not.
    expect((await server.live(wide)).headers.get('cache-control')).toContain('immutable');
    expect((await server.live(`/${KEY}/~files/${'1'.repeat(32)}/logologologo0002.svg`)).status).toBe(404);
    const icons = [
      ...html.matchAll(/<link rel="(icon|apple-touch-icon)" type="image\/png" sizes="(\d+)x\2" href="([^"]+)">/g),
    ];
    expect(icons.map(([, rel, size]) => [rel, Number(size)])).toEqual([
      ['icon', 32],
      ['apple-touch-icon', 180],
      ['icon', 192],
      ['icon', 512],
    ]);
    for (const [, rel, size, href] of icons) {
      const icon = await fetch(server.liveOrigin + href!);
      expect(icon.headers.get('content-type')).toBe('image/png');
      const picture = sharp(Buffer.from(await icon.arrayBuffer()));
      const { width, height } = await picture.metadata();
      expect([width, height]).toEqual([Number(size), Number(size)]);
      const { data } = await picture.ensureAlpha().raw().toBuffer({ resolveWithObject: true });
      const middle = (Number(size) / 2) * (Number(size) + 1) * 4;
      expect([...data.subarray(middle, middle + 4)]).toEqual([0xd4, 0, 0x6a, 255]);
      // What is around it is free, but on a telephone.
      expect(data[3]).toBe(rel === 'icon' ? 0 : 255);
    }
    // On dark headers the other one shows; where they are dark on dark screens alone, browsers choose.
    await setLook({ ...FIRST_LOOK, logo, logoOnDark: other, header: 'dark', withName: false });
    const walk = { isDraft: true, who: { audiences: ['everyone'] }, at: null };
    const { pathname } = new URL((await ines.post(`/api/sites/${KEY}/walks`, walk)).json.address);
    const walked = (await server.live(pathname)).text;
    expect(addressOf(walked)).toContain('logologologo0002.svg');
    expect(walked).toContain(`alt="${KEY}"></a>`);
    expect((await server.live(addressOf(walked)!)).status).toBe(200);
    await setLook({ ...FIRST_LOOK, logo, logoOnDark: other });
    expect((await server.live(pathname)).text).toMatch(
      /<picture><source media="\(prefers-color-scheme: dark\)" srcset="[^"]+0002\.svg"><img class="logo" src="[^"]+0001\.svg"/,
    );
    // The desk shows it where the workbench has files.
    const frame = await ines.get(`/api/sites/${KEY}/pages/home/frame`);
    expect(frame.json.html).toContain(`src="/api/sites/${KEY}/files/${logo}/bytes?of=00000000"`);
  });

  it('draws a preview picture of each page that shows none, for where it is linked to', async () => {
    const addressOf = (html: string) => /property="og:image" content="https:\/\/www\.example([^"]+)"/.exec(html)![1]!;
    const html = await home();
    expect(html).toContain('<meta property="og:image:width" content="1200">');
    const first = addressOf(html);
    const answer = await fetch(server.liveOrigin + first);
    expect([answer.status, answer.headers.get('content-type'), answer.headers.get('cache-control')]).toEqual([
      200,
      'image/png',
      'public, max-age=31536000, immutable',
    ]);
    const pixels = async (of: Buffer) => {
      const { data, info } = await sharp(of).removeAlpha().raw().toBuffer({ resolveWithObject: true });
      const at = (x: number, y: number) => [...data.subarray((y * info.width + x) * 3, (y * info.width + x) * 3 + 3)];
      const ground = at(4, 4).join();
      const isDrawn = (top: number, bottom: number) =>
        Array.from({ length: bottom - top }, (_, y) => y + top).some((y) =>
          Array.from({ length: 900 }, (_, x) => at(x + 84, y).join()).some((one) => one !== ground),
        );
      return { size: [info.width, info.height], ground, isDrawn };
    };
    const { size, ground, isDrawn } = await pixels(Buffer.from(await answer.arrayBuffer()));
    expect([size, ground]).toEqual([[1200, 630], '14,100,112']);
    // The logo, the title and the name of the site.
    expect([isDrawn(64, 156), isDrawn(250, 400), isDrawn(520, 570), isDrawn(170, 230)]).toEqual([
      true,
      true,
      true,
      false,
    ]);
    // Other words are another picture; the address of before has that of now.
    await ines.operations(KEY, { name: 'page.set', page: 'home', fields: { title: { en: 'Łódź and the Größe' } } });
    await ines.post(`/api/sites/${KEY}/releases`, { pages: 'all' });
    await until('it has another address', async () => addressOf(await home()) !== first);
    expect((await fetch(server.liveOrigin + first)).headers.get('cache-control')).toBe('no-cache');
    const other = await pixels(
      Buffer.from(await (await fetch(server.liveOrigin + addressOf(await home()))).arrayBuffer()),
    );
    expect(other.isDrawn(250, 400)).toBe(true);
    // Nothing is said of pages that search engines are not offered.
    await ines.operations(KEY, { name: 'page.add', page: 'kept', place: { parent: null }, title: { en: 'Kept back' } });
    await ines.operations(KEY, { name: 'page.set', page: 'kept', fields: { access: { engines: 'page' } } });
    await ines.post(`/api/sites/${KEY}/releases`, { pages: 'all' });
    await until('it is live', async () => (await server.live(`/${KEY}/kept-back`)).status === 200);
    expect((await server.live(`/${KEY}/kept-back`)).text).not.toContain('og:image');
    for (const page of ['kept', 'nothing', '%2e%2e'])
      expect((await server.live(`/${KEY}/~preview/0123456789ab/${page}.png`)).status).toBe(404);
  });

  it('takes CSS of one’s own, as far as it holds, for visitors and in walks', async () => {
    await setLook({
      ...FIRST_LOOK,
      css: 'h1 { colr: red; letter-spacing: 0.5rem }\n.x { color: }\n@import url(https://elsewhere.example/x.css);\n.y {',
    });
    await release(['look']);
    const said = async () => (await server.live(sheetOf(await home()))).text;
    await until(
      'visitors have it',
      async () =>
        (await said()).includes('h1{letter-spacing:.5rem}') || (await said()).includes('h1{letter-spacing:0.5rem}'),
    );
    expect(await said()).not.toMatch(/colr|elsewhere/);
    expect((await ines.get('/api/look')).text).not.toContain('letter-spacing:0.5rem');
    expect((await setLook({ ...FIRST_LOOK, css: 'x'.repeat(20_001) })).status).toBe(422);
  });

  it('goes with the site as files: its stylesheet, and its fonts alone', async () => {
    await setLook({ ...OTHER, logo: 'LogoLogoLogo0001' });
    await release(['look']);
    const zip = await fetch(`${server.origin}/api/sites/${KEY}/static-site?address=https://files.example`, {
      headers: { Cookie: ines.cookie },
    });
    const files = unzipSync(new Uint8Array(await zip.arrayBuffer()));
    const names = Object.keys(files).filter((one) => one.startsWith('assets/'));
    const css = names.find((one) => one.endsWith('.css'))!;
    const said = new TextDecoder().decode(files[css]);
    expect(names.filter((one) => one.endsWith('.woff2')).map((one) => one.replace(/-[0-9a-f]{10}\..*/, ''))).toEqual([
      'assets/crimson-pro-latin',
      'assets/crimson-pro-latin-ext',
      'assets/work-sans-latin',
      'assets/work-sans-latin-ext',
    ]);
    for (const [, url] of said.matchAll(/url\('([^']+)'\)/g)) expect(names).toContain(`assets/${url}`);
    expect(new TextDecoder().decode(files['index.html'])).toContain(css.split('/')[1]!);
    const preview = Object.keys(files).find((one) => /^~preview\/[0-9a-f]{12}\/home\.png$/.test(one))!;
    expect(new TextDecoder().decode(files['index.html'])).toContain(`content="https://files.example/${preview}"`);
    expect(
      Object.keys(files)
        .filter((one) => one.startsWith('~files/'))
        .map((one) => one.split('/')[2])
        .sort(),
    ).toEqual(['icon180.png', 'icon192.png', 'icon32.png', 'icon512.png', 'logologologo0001.svg']);
  });
});
