import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { contentIdOf } from '#core/model/content.ts';
import { toPageId, toSiteKey } from '#core/model/ids.ts';
import { PERMISSIONS, has } from '#core/model/permission.ts';
import { SHIPPED_ROLES, permissionsOf, roleIdSchema } from '#core/people/role.ts';
import type { Route } from '#contract/route.ts';
import { ROUTES } from '#contract/routes.ts';
import { latestMails } from '../standins/outbox-repository.ts';
import { type Uploaded, upload } from '../testing/upload.ts';
import { Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';

const KEY = 'crew';
let server: TestServer;
let ines: Person;

const add = (page: string, parent: string | null) => ({
  name: 'page.add',
  page,
  place: { parent },
  title: { en: page },
});
const rename = (page: string) => ({ name: 'page.set', page, fields: { title: { en: `${page} again` } } });
const describeIt = (page: string) => ({ name: 'page.set', page, fields: { description: { en: 'x' } } });
const role = (id: string, page: string | null = null) => ({
  page: page === null ? null : toPageId(page),
  role: roleIdSchema.parse(id),
});
const path = (rest: string) => `/api/sites/${KEY}/${rest}`;
const codeOf = async (asked: Promise<{ status: number; json: { code?: string } }>) => {
  const { status, json } = await asked;
  return status === 200 ? 'ok' : json.code;
};

beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site(KEY);
  await server.site('other');
  const made = await ines.operations(
    KEY,
    add('home', null),
    add('courses', null),
    add('long', 'courses'),
    add('boats', 'long'),
    add('visit', null),
  );
  expect(made.status).toBe(200);
});
afterAll(() => server.close());

let names = 0;
const colleague = (roles: string | ReturnType<typeof role>[], origin?: string) =>
  server.colleague(`c${(names += 1)}`, KEY, roles, origin);

describe('a role in a branch', () => {
  it('holds there and below, and nowhere else', async () => {
    const mira = await colleague([role('writer', 'courses')]);
    expect(await codeOf(mira.operations(KEY, describeIt('boats')))).toBe('ok');
    expect(await codeOf(mira.operations(KEY, describeIt('courses')))).toBe('ok');
    const refused = await mira.operations(KEY, describeIt('visit'));
    expect([refused.status, refused.json.code]).toEqual([403, 'not-allowed']);
    expect(refused.json.detail).toBe(
      'This needs the permission ‘Write’. At ‘visit’ you have no role. Somebody who looks after colleagues can change that.',
    );
    expect(await codeOf(mira.operations(KEY, rename('boats')))).toBe('not-allowed');
    expect(await codeOf(mira.operations(KEY, describeIt('boats'), describeIt('visit')))).toBe('not-allowed');
  });

  it('takes the place of the one above it, also where it lets somebody do less', async () => {
    const tom = await colleague([role('editor'), role('reader', 'long')]);
    expect(await codeOf(tom.operations(KEY, rename('courses')))).toBe('ok');
    const refused = await tom.operations(KEY, rename('boats'));
    expect(refused.json.detail).toContain('At ‘boats’ your role is Reader, through the branch ‘long’.');
    expect(await codeOf(tom.operations(KEY, { name: 'page.move', page: 'courses', place: { parent: 'visit' } }))).toBe(
      'not-allowed',
    );
    expect(await codeOf(tom.operations(KEY, { name: 'page.remove', page: 'courses' }))).toBe('not-allowed');
  });

  it('does not let anybody take out the branch that they were given, nor move pages where they have no role', async () => {
    const uma = await colleague([role('editor', 'courses')]);
    expect(await codeOf(uma.operations(KEY, { name: 'page.remove', page: 'courses' }))).toBe('not-allowed');
    expect(await codeOf(uma.operations(KEY, { name: 'page.move', page: 'boats', place: { parent: 'visit' } }))).toBe(
      'not-allowed',
    );
    expect(await codeOf(uma.operations(KEY, { name: 'page.move', page: 'boats', place: { parent: 'courses' } }))).toBe(
      'ok',
    );
    expect(await codeOf(uma.post(path('undo'), {}))).toBe('ok');
  });

  it('keeps texts outside of it from who has no role on the whole site', async () => {
    const document = (text: string) => ({
      type: 'doc',
      content: [{ type: 'paragraph', content: [{ type: 'text', text }] }],
    });
    const texts = ['Keel laid', 'Governors only'].map((text) => ({ document: document(text) }));
    const contents = texts.map(({ document: one }) => ({ id: contentIdOf(one as never), document: one }));
    const done = await ines.post(path('operations'), {
      operations: [
        { name: 'page.set', page: 'boats', fields: { content: contents[0]!.id } },
        { name: 'page.set', page: 'visit', fields: { content: contents[1]!.id } },
      ],
      contents,
    });
    expect(done.status).toBe(200);
    const vera = await colleague([role('writer', 'courses')]);
    expect((await vera.get(path(`contents/${contents[0]!.id}`))).status).toBe(200);
    expect((await vera.get(path(`contents/${contents[1]!.id}`))).json.code).toBe('not-allowed');
    expect((await vera.get(path('find?text=only'))).json.pages).toEqual([]);
    expect((await vera.get(path('find?text=keel'))).json.pages).toEqual(['boats']);
    expect((await vera.get(path('exports/site.json'))).json.code).toBe('not-allowed');
    expect((await vera.get(path('pages/visit/frame'))).json.code).toBe('not-allowed');
    const reader = await colleague('reader');
    expect((await reader.get(path(`contents/${contents[1]!.id}`))).status).toBe(200);
  });

  it('publishes there alone', async () => {
    const pia = await colleague([role('publisher', 'courses')]);
    expect(await codeOf(pia.post(path('releases'), { pages: ['visit'], retire: [], settings: [] }))).toBe(
      'not-allowed',
    );
    await ines.post(path('releases'), { pages: ['home', 'courses'], retire: [] });
    expect(await codeOf(pia.post(path('releases'), { pages: ['long'], retire: [], settings: [] }))).toBe('ok');
    const at = new Date(Date.now() + 3_600_000).toISOString();
    expect(await codeOf(pia.post(path('scheduled-releases'), { pages: ['visit'], retire: [], settings: [], at }))).toBe(
      'not-allowed',
    );
  });
});

describe('files', () => {
  const picture = (background: string) =>
    sharp({ create: { width: 40, height: 30, channels: 3, background } })
      .png()
      .toBuffer();

  it('are seen by whose pages show them, and changed by whose pages alone do', async () => {
    const bring = (by: Person, bytes: Buffer, replaces?: string) =>
      upload(by, server.origin, KEY, 'keel.png', bytes, replaces);
    const idOf = (uploaded: Uploaded) => ('answer' in uploaded ? uploaded.answer.file.id : '') as string;
    const inside = idOf(await bring(ines, await picture('navy')));
    const both = idOf(await bring(ines, await picture('white')));
    const show = (...files: string[]) => {
      const document = {
        type: 'doc',
        content: files.map((file) => ({ type: 'picture', attrs: { file } })),
      };
      return { id: contentIdOf(document as never), document };
    };
    const [ofBoats, ofVisit] = [show(inside, both), show(both)];
    const shown = await ines.post(path('operations'), {
      operations: [
        { name: 'page.set', page: 'boats', fields: { content: ofBoats.id } },
        { name: 'page.set', page: 'visit', fields: { content: ofVisit.id } },
      ],
      contents: [ofBoats, ofVisit],
    });
    expect(shown.json).toMatchObject({ revision: expect.any(Number) });
    const wim = await colleague([role('writer', 'courses')]);
    const away = await colleague([role('writer', 'home')]);
    const ids = async (who: Person) =>
      (await who.get(path('files'))).json.files.map(({ id }: { id: string }) => id).sort();
    expect(await ids(wim)).toEqual([inside, both].sort());
    expect(await ids(away)).toEqual([]);
    expect((await away.get(path(`files/${inside}/bytes`))).json.code).toBe('not-allowed');
    expect((await wim.get(path(`files/${inside}/bytes`))).status).toBe(200);
    const describeFile = (who: Person, file: string) =>
      codeOf(who.send('PUT', path(`files/${file}`), { alternative: 'A keel' }));
    expect(await describeFile(wim, inside)).toBe('ok');
    expect(await describeFile(wim, both)).toBe('not-allowed');
    expect(await describeFile(away, inside)).toBe('not-allowed');
    expect(await bring(wim, await picture('red'), both)).toMatchObject({ problem: { code: 'not-allowed' } });
    expect((await bring(wim, await picture('red'), inside)).status).toBe(200);
    const brought = idOf(await bring(away, await picture('teal')));
    expect(await describeFile(away, brought)).toBe('ok');
    expect(await ids(away)).toEqual([brought]);
    expect(await codeOf(wim.send('DELETE', path(`files/${inside}`)))).toBe('not-allowed');
  });
});

describe('what was set for later', () => {
  it('is called off by who set it, or by who publishes on the whole site', async () => {
    const pia = await colleague([role('publisher', 'courses')]);
    const pol = await colleague([role('publisher', 'visit')]);
    const at = new Date(Date.now() + 3_600_000).toISOString();
    const set = await pia.post(path('scheduled-releases'), { pages: ['long'], retire: [], settings: [], at });
    expect(set.status).toBe(200);
    const { id } = set.json.scheduled.at(-1);
    expect(await codeOf(pol.send('DELETE', path(`scheduled-releases/${id}`)))).toBe('not-allowed');
    expect(await codeOf(pia.send('DELETE', path(`scheduled-releases/${id}`)))).toBe('ok');
  });
});

describe('every route × role × branch', () => {
  // A stream has no end, and which texts somebody reads depends on the text: both have tests of their own.
  const routes = (Object.entries(ROUTES) as [string, Route][]).filter(
    ([name, { permission }]) =>
      name !== 'streamEvents' && name !== 'showContent' && PERMISSIONS.some((one) => one === permission),
  );
  const pathTo = (route: Route, page: string) =>
    route.path.replace(':site', KEY).replace(':page', page).replace(/:\w+/g, 'p1');

  it.each(SHIPPED_ROLES.map((one) => [one.name, one] as const))(
    'is answered as the role %s says',
    async (_, shipped) => {
      const held = permissionsOf(shipped);
      const everywhere = await colleague([role(shipped.id)]);
      const inBranch = await colleague([role(shipped.id, 'courses')]);
      const wrong: unknown[] = [];
      for (const [name, route] of routes) {
        const permission = route.permission as (typeof PERMISSIONS)[number];
        for (const [who, page] of [
          [everywhere, 'boats'],
          [everywhere, 'visit'],
          [inBranch, 'boats'],
          [inBranch, 'visit'],
        ] as const) {
          const isHeld = has(held, permission);
          const isThere =
            who === everywhere || route.where === 'somewhere' || (route.where === 'page' && page === 'boats');
          // The body is none that anything takes: whoever is let in is told so, and nothing is done.
          const answer = await who.send(
            route.method.toUpperCase(),
            pathTo(route, page),
            route.body ? { surprise: 1 } : undefined,
          );
          const isRefused = answer.json?.code === 'not-allowed';
          if (isRefused === (isHeld && isThere)) wrong.push([name, page, who === everywhere, answer.status]);
        }
      }
      expect(wrong).toEqual([]);
    },
    60_000,
  );
});

describe('an invitation', () => {
  const invite = (by: Person, email: string, roles: unknown[], name = 'Mira Sand') =>
    by.post(path('colleagues'), { name, email, roles });
  const linkTo = async (email: string) =>
    /#([\w-]+)/.exec((await latestMails(server.database)).find(({ to }) => to === email)!.text)![1]!;
  const nobody = () => new Person({ id: '', name: '', email: '', looksAfterAll: false }, server.origin);

  it('comes by mail, works once, and opens the site with the roles that it gives', async () => {
    const email = 'mira@school.example';
    const made = await invite(ines, email, [role('writer', 'courses')]);
    expect(made.status).toBe(200);
    expect(made.json.colleagues.find((one: { email: string }) => one.email === email)).toMatchObject({
      state: 'invited',
      roles: [{ page: 'courses', role: 'writer' }],
    });
    const token = await linkTo(email);
    const mira = nobody();
    expect((await mira.post('/api/account-link', { token })).json).toMatchObject({ purpose: 'invitation', email });
    expect(await codeOf(mira.send('PUT', '/api/account-link', { token, password: 'password123' }))).toBe(
      'password-known',
    );
    const used = await mira.send('PUT', '/api/account-link', {
      token,
      name: 'Mira Sand-Lowe',
      password: 'four-planks-and-a-keel',
    });
    expect(used.json.account).toMatchObject({ name: 'Mira Sand-Lowe', email, looksAfterAll: false });
    expect((await mira.get('/api/sites')).json.sites.map(({ key }: { key: string }) => key)).toEqual([KEY]);
    expect((await mira.get('/api/sites/other/tree')).json.code).toBe('site-unknown');
    expect(await codeOf(mira.operations(KEY, describeIt('boats')))).toBe('ok');
    expect(await codeOf(nobody().send('PUT', '/api/account-link', { token, password: 'four-planks-and-a-keel' }))).toBe(
      'account-link-ended',
    );
  });

  it('ends after a week, and when another one is sent', async () => {
    const email = 'noor@school.example';
    const made = await invite(ines, email, [role('reader')]);
    const { id } = made.json.colleagues.find((one: { email: string }) => one.email === email);
    const first = await linkTo(email);
    expect((await ines.post(path(`colleagues/${id}/invitations`), undefined)).status).toBe(200);
    expect(await codeOf(nobody().post('/api/account-link', { token: first }))).toBe('account-link-ended');
    await server.database('account_link').update({ expires_at: new Date(Date.now() - 1000) });
    const second = (await latestMails(server.database))
      .filter(({ to }) => to === email)
      .map(({ text }) => /#([\w-]+)/.exec(text)![1]!);
    for (const token of second)
      expect(await codeOf(nobody().post('/api/account-link', { token }))).toBe('account-link-ended');
  });

  it('gives nobody more than who invites has there, and changes nobody who has more', async () => {
    await ines.send('PUT', path('roles/keeper'), { name: 'Keeper', permissions: ['people', 'write'] });
    const kit = await colleague([role('keeper', 'courses')]);
    expect(await codeOf(invite(kit, 'a@school.example', [role('editor', 'courses')]))).toBe('role-beyond-own');
    expect(await codeOf(invite(kit, 'a@school.example', [role('reader')]))).toBe('role-beyond-own');
    expect(await codeOf(invite(kit, 'a@school.example', [role('reader', 'visit')]))).toBe('role-beyond-own');
    expect(await codeOf(invite(kit, 'a@school.example', [role('reader', 'boats')]))).toBe('ok');
    const boss = await colleague('manager');
    for (const change of [{ isSuspended: true }, { roles: [role('reader', 'courses')] }])
      expect(await codeOf(kit.send('PUT', path(`colleagues/${boss.account.id}`), change))).toBe('role-beyond-own');
    expect(await codeOf(kit.send('DELETE', path(`colleagues/${boss.account.id}`)))).toBe('role-beyond-own');
    expect(await codeOf(kit.send('PUT', path(`colleagues/${kit.account.id}`), { isSuspended: true }))).toBe(
      'colleague-self',
    );
    expect(await codeOf(kit.send('PUT', path('roles/mine'), { name: 'Mine', permissions: ['everything'] }))).toBe(
      'not-allowed',
    );
  });

  it('is for a site’s pages and roles alone, and for nobody twice', async () => {
    expect(await codeOf(invite(ines, 'b@school.example', [role('nobody')]))).toBe('role-unknown');
    expect(await codeOf(invite(ines, 'b@school.example', [role('reader', 'nowhere')]))).toBe('page-unknown');
    expect(await codeOf(invite(ines, 'b@school.example', [role('reader'), role('writer')]))).toBe('body-invalid');
    expect(await codeOf(invite(ines, 'b@school.example', []))).toBe('body-invalid');
    expect(await codeOf(invite(ines, 'mira@school.example', [role('reader')]))).toBe('colleague-there');
    expect(await codeOf(invite(ines, 'INES@school.example', [role('reader')]))).toBe('colleague-looks-after-all');
  });
});

describe('roles that a site makes', () => {
  it('are given, changed for all who have them at once, and removed when nobody has them', async () => {
    await ines.send('PUT', path('roles/namer'), { name: 'Namer', permissions: ['shape'] });
    const ned = await colleague([role('namer')]);
    expect(await codeOf(ned.operations(KEY, rename('visit')))).toBe('ok');
    await ines.send('PUT', path('roles/namer'), { name: 'Namer', permissions: ['write'] });
    expect(await codeOf(ned.operations(KEY, rename('visit')))).toBe('not-allowed');
    expect(await codeOf(ines.send('DELETE', path('roles/namer')))).toBe('role-in-use');
    await ines.send('DELETE', path(`colleagues/${ned.account.id}`));
    expect(await codeOf(ines.send('DELETE', path('roles/namer')))).toBe('ok');
    expect(await codeOf(ines.send('PUT', path('roles/writer'), { name: 'x', permissions: [] }))).toBe('role-shipped');
  });

  it('put no page in menus where they do not let', async () => {
    await ines.send('PUT', path('roles/shaper'), { name: 'Shaper', permissions: ['shape'] });
    const sam = await colleague([role('shaper')]);
    expect(await codeOf(sam.operations(KEY, add('shown', 'visit')))).toBe('not-allowed');
    expect(await codeOf(sam.operations(KEY, { ...add('unshown', 'visit'), inMenus: false }))).toBe('ok');
    expect(await codeOf(sam.operations(KEY, { name: 'page.set', page: 'unshown', fields: { inMenus: true } }))).toBe(
      'not-allowed',
    );
  });
});

describe('whoever is shut out', () => {
  it('is out in all processes at once, and hears no more; what they did stays under their name', async () => {
    const there = await colleague('editor', server.otherOrigin);
    expect(await codeOf(there.operations(KEY, rename('home')))).toBe('ok');
    const stream = await fetch(`${server.otherOrigin}${path('events')}`, { headers: { Cookie: there.cookie } });
    const reading = stream.body!.getReader();
    await reading.read();
    await ines.send('PUT', path(`colleagues/${there.account.id}`), { isSuspended: true });
    await until('the other process knows', async () => (await there.get(path('tree'))).status === 404);
    for (let read = await reading.read(); !read.done;) read = await reading.read();
    expect(await codeOf(there.operations(KEY, rename('home')))).toBe('site-unknown');
    await ines.send('PUT', path(`colleagues/${there.account.id}`), { isSuspended: false });
    await until('they are back', async () => (await there.get(path('tree'))).status === 200);
    await ines.send('DELETE', path(`colleagues/${there.account.id}`));
    await until('they are out', async () => (await there.get(path('tree'))).status === 404);
    const { entries } = (await ines.get(path('history'))).json;
    expect(entries.some(({ by }: { by: string }) => by === there.account.name)).toBe(true);
  });
});

describe('a site that asks for a second step', () => {
  it('opens only to those who have one, whatever their role, and cannot be closed to oneself', async () => {
    await server.site('strict');
    const wes = await server.colleague('Wes', 'strict', 'manager');
    expect(await codeOf(ines.send('PUT', '/api/sites/strict/security', { needsSecondStep: true }))).toBe(
      'second-step-own',
    );
    await server.database('site').where({ key: 'strict' }).update({ needs_second_step: true });
    const { tellPeople } = await import('./people-repository.ts');
    await tellPeople(server.database, toSiteKey('strict'));
    await until(
      'it is asked for',
      async () => (await wes.get('/api/sites/strict/tree')).json.code === 'second-step-needed',
    );
    expect((await ines.get('/api/sites/strict/tree')).json.code).toBe('second-step-needed');
    expect((await ines.operations('strict', add('a', null))).json.code).toBe('second-step-needed');
    expect((await ines.get(path('tree'))).status).toBe(200);
  });
});

describe('the log of security', () => {
  it('tells what was done, by whom, and holds no secret', async () => {
    const { entries } = (await ines.get(path('security-log'))).json;
    const events = new Set(entries.map(({ event }: { event: string }) => event));
    for (const event of [
      'invited',
      'invitation-taken-up',
      'role-made',
      'role-changed',
      'role-removed',
      'colleague-suspended',
      'colleague-back',
      'colleague-removed',
    ])
      expect(events).toContain(event);
    const all = JSON.stringify(await server.database('security_log').select());
    for (const { text } of await latestMails(server.database))
      for (const [, token] of text.matchAll(/#([\w-]{20,})/g)) expect(all).not.toContain(token);
    expect(all).not.toContain('four-planks-and-a-keel');
    const archive = await ines.get(path('archive'));
    await until('the export is noted', async () =>
      (await ines.get(path('security-log'))).json.entries.some(
        ({ about }: { about: string }) => about === 'the site as an archive',
      ),
    );
    expect(archive.text).not.toMatch(/argon2|four-planks/);
  });
});
