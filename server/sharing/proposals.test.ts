import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { toPageId } from '#core/model/ids.ts';
import { nodeAt } from '#core/model/site.ts';
import { readTree } from '#contract/sent-tree.ts';
import { Person, type TestServer, startTestServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
let oona: Person;
let path: string;
let key: string;
let sites = 0;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
});
afterAll(() => server.close());
beforeEach(async () => {
  key = `plan-${(sites += 1)}`;
  await server.site(key);
  await ines.operations(
    key,
    { name: 'page.add', page: 'home', place: { parent: null }, title: { en: 'Home' } },
    { name: 'page.add', page: 'courses', place: { parent: null }, title: { en: 'Courses' } },
    { name: 'page.add', page: 'fees', place: { parent: 'courses' }, title: { en: 'Fees' } },
    { name: 'page.add', page: 'secret', place: { parent: null }, title: { en: 'Closing the school' } },
  );
  await ines.operations(key, { name: 'page.remove', page: 'secret' });
  ({ path } = (await ines.post(`/api/sites/${key}/shares`, { name: 'Governors', days: 14 })).json);
  oona = new Person({ id: '', name: '', email: '', looksAfterAll: false }, server.origin);
  await oona.post(`/api${path}/guest`, { name: 'Oona', email: `${key}@home.example` });
});

const propose = (page: string, proposes: object, text = '') =>
  oona.post(`/api${path}/comments`, { page, kind: 'proposal', text, proposes });
const said = async () => (await ines.get(`/api/sites/${key}/feedback`)).json.comments;
const accept = async (request?: string) => {
  const [{ id }] = await said();
  return ines.post(`/api/sites/${key}/comments/${id}/accepted`, request === undefined ? {} : { request });
};
const fees = async () => {
  const { parent, title } = nodeAt(readTree((await ines.get(`/api/sites/${key}/tree`)).json), toPageId('fees'));
  return { parent, title: title.en };
};
const mails = async () =>
  ((await ines.get('/api/outbox')).json.mails as { to: string; subject: string; text: string }[]).filter(
    ({ to }) => to === `${key}@home.example`,
  );
const latest = async () => (await ines.get(`/api/sites/${key}/history`)).json.entries[0];

describe('a proposal of a guest', () => {
  it('is accepted with one request: the page is so, the guest is told once, and the edit can be undone', async () => {
    expect(
      (await propose('fees', { title: ' Prices ', place: { near: 'home', side: 'after' } }, 'Shorter')).status,
    ).toBe(200);
    expect(await said()).toMatchObject([{ kind: 'proposal', isAccepted: false, proposes: { title: 'Prices' } }]);
    expect((await accept('accept-prices')).status).toBe(200);
    expect((await accept('accept-prices')).status).toBe(200);
    expect(await fees()).toEqual({ parent: null, title: 'Prices' });
    expect(await latest()).toMatchObject({
      by: 'Ines',
      words: 'renamed ‘Fees’ to ‘Prices’ and moved ‘Prices’ to the top level, as Oona proposed',
    });
    expect((await oona.get(`/api${path}`)).json.feedback.comments).toMatchObject([
      { isAccepted: true, settledBy: 'Ines' },
    ]);
    const got = await mails();
    expect(got.map(({ subject }) => subject)).toEqual(['Ines has accepted your proposal for ‘Fees’']);
    expect(got[0]!.text).toContain('> the title ‘Prices’ and a place after ‘Home’\n> Shorter');
    await ines.post(`/api/sites/${key}/undo`, {});
    expect(await fees()).toEqual({ parent: 'courses', title: 'Fees' });
  });

  it('is settled where the page is so already', async () => {
    await propose('fees', { title: 'Prices' });
    await ines.operations(key, { name: 'page.set', page: 'fees', fields: { title: { en: 'Prices' } } });
    const { revision } = await latest();
    expect((await accept()).status).toBe(200);
    expect((await latest()).revision).toBe(revision);
    expect(await said()).toMatchObject([{ isAccepted: true }]);
  });

  it('waits where the tree forbids it by now, and says why', async () => {
    await propose('fees', { place: { near: 'home', side: 'inside' } });
    await ines.operations(key, { name: 'page.remove', page: 'home' });
    const answer = await accept();
    expect([answer.status, answer.json.code]).toEqual([409, 'page-removed']);
    expect(await said()).toMatchObject([{ isAccepted: false, settledBy: null }]);
  });

  it('is refused where nothing would change, or where it cannot be; the titles of removed pages stay unknown', async () => {
    const codes = [];
    for (const [page, proposes] of [
      ['fees', { title: 'Fees' }],
      ['fees', { place: { near: 'courses', side: 'inside' } }],
      ['courses', { place: { near: 'fees', side: 'after' } }],
      ['courses', { place: { near: 'courses', side: 'inside' } }],
      ['fees', { place: { near: 'secret', side: 'inside' } }],
      ['secret', { title: 'Open' }],
      ['fees', {}],
      ['fees', { title: ' ' }],
    ] as const) {
      const answer = await propose(page, proposes);
      codes.push(answer.json.code);
      expect(answer.text).not.toContain('Closing the school');
    }
    expect(codes).toEqual([
      'proposal-changes-nothing',
      'proposal-changes-nothing',
      'moved-inside-itself',
      'moved-inside-itself',
      'page-unknown',
      'page-unknown',
      'body-invalid',
      'body-invalid',
    ]);
    expect(await said()).toEqual([]);
  });

  it('is taken back by whoever made it until it is accepted; what was accepted can be reopened', async () => {
    await propose('fees', { title: 'Prices' });
    const [{ id }] = await said();
    expect((await oona.send('DELETE', `/api${path}/comments/${id}`)).status).toBe(200);
    await propose('fees', { title: 'Costs' });
    await accept();
    const [again] = await said();
    const refused = await oona.send('DELETE', `/api${path}/comments/${again.id}`);
    expect([refused.json.code, refused.json.detail]).toEqual(['comment-answered', expect.stringContaining('Ines')]);
    await ines.send('PUT', `/api/sites/${key}/comments/${again.id}`, { answer: '', isSettled: false });
    expect(await said()).toMatchObject([{ isAccepted: false, settledBy: null }]);
  });

  it('is accepted by those who may edit alone, and nothing else can be accepted', async () => {
    await propose('fees', { title: 'Prices' });
    const [{ id }] = await said();
    const reader = await server.colleague('Rena', key, 'reader');
    for (const [person, status] of [
      [reader, 403],
      [oona, 401],
    ] as const)
      expect((await person.post(`/api/sites/${key}/comments/${id}/accepted`, {})).status).toBe(status);
    expect((await ines.post(`/api/sites/plan-1x/comments/${id}/accepted`, {})).status).toBe(404);
    await oona.post(`/api${path}/comments`, { page: 'fees', kind: 'question', text: 'Why?' });
    const question = (await said()).find(({ kind }: { kind: string }) => kind === 'question');
    const answer = await ines.post(`/api/sites/${key}/comments/${question.id}/accepted`, {});
    expect([answer.status, answer.json.code]).toEqual([409, 'comment-no-proposal']);
  });
});
