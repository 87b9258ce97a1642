import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { printOf } from '#core/approval/print.ts';
import { type PageId, toPageId } from '#core/model/ids.ts';
import type { RoleId } from '#core/people/role.ts';
import { readTree } from '#contract/sent-tree.ts';
import type { ApprovalAnswer, Proposal } from '#contract/approval.ts';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
let mira: Person;
let teo: Person;
let oona: Person;
const at = (page: string | null, role: string) => ({
  page: page === null ? null : toPageId(page),
  role: role as RoleId,
});
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines Farrow');
  await server.site('pq');
  await ines.operations(
    'pq',
    { name: 'page.add', page: 'home', place: { parent: null }, title: { en: 'Home' } },
    { name: 'page.add', page: 'courses', place: { parent: null }, title: { en: 'Courses' } },
    { name: 'page.add', page: 'fees', place: { parent: 'courses' }, title: { en: 'Fees' } },
    { name: 'page.add', page: 'news', place: { parent: null }, title: { en: 'News' } },
  );
  await ines.post('/api/sites/pq/releases', { pages: 'all' });
  mira = await server.colleague('Mira Sand', 'pq', [at(null, 'reader'), at('courses', 'writer')]);
  teo = await server.colleague('Teo Brandt', 'pq', 'publisher');
  oona = await server.colleague('Oona Bell', 'pq', 'editor');
});
afterAll(() => server.close());

const approval = async (who: Person): Promise<ApprovalAnswer> => (await who.get('/api/sites/pq/approval')).json;
const latest = async (who: Person): Promise<Proposal> => (await approval(who)).proposals[0]!;
const site = async () => readTree((await ines.get('/api/sites/pq/tree')).json);
const rule = (page: string | null, by: object, count = 1) =>
  ines.send('PUT', '/api/sites/pq/approval/rules', { page, by, count });
const propose = (who: Person, ...pages: string[]) =>
  who.post('/api/sites/pq/proposals', { id: randomUUID(), pages, note: 'For the open day' });
async function decide(who: Person, kind: 'approved' | 'returned', words: string, { id, pages }: Proposal) {
  const now = await site();
  const prints = Object.fromEntries(pages.map((page) => [page, printOf(now, page)]));
  return who.post(`/api/sites/pq/proposals/${id}/decisions`, { id: randomUUID(), kind, words, prints });
}
const describeAs = (who: Person, page: string, words: string) =>
  who.operations('pq', { name: 'page.set', page, fields: { description: { en: words } } });
const release = (who: Person, body: object) => who.post('/api/sites/pq/releases', { settings: [], ...body });
const readiness = async (page: string) => (await site()).nodes.get(page as PageId)?.plan?.readiness;

describe('a branch that needs approval', () => {
  it('goes live when enough have approved what it is now', async () => {
    expect((await rule('courses', { role: 'editor' }, 2)).status).toBe(200);
    await describeAs(mira, 'fees', 'What it costs');
    const refused = await release(teo, { pages: ['fees'] });
    expect([refused.status, refused.json.code]).toEqual([409, 'approval-missing']);
    expect(refused.json.detail).toContain('‘Fees’ needs approval');

    expect((await propose(mira, 'fees')).status).toBe(200);
    expect(await readiness('fees')).toBe('in-review');
    const proposal = await latest(oona);
    expect(proposal).toMatchObject({ by: 'Mira Sand', pages: ['fees'], state: 'open', toDecide: ['fees'] });
    expect((await latest(mira)).toDecide).toEqual([]);
    const told = (await oona.get('/api/sites/pq/concerns')).json.said[0];
    expect(told).toMatchObject({ kind: 'review', proposal: proposal.id, words: 'For the open day' });

    expect((await decide(mira, 'approved', '', proposal)).json.code).toBe('proposal-not-yours');
    expect((await decide(oona, 'approved', '', proposal)).status).toBe(200);
    // Twice by one person is once.
    await decide(oona, 'approved', '', proposal);
    expect((await release(teo, { pages: ['fees'] })).json.code).toBe('approval-missing');
    expect((await decide(teo, 'approved', 'Good.', proposal)).status).toBe(200);
    expect(await readiness('fees')).toBe('ready');
    // What follows in the plan is no step of theirs: their own last change is what they would undo.
    expect((await teo.get('/api/sites/pq/turns')).json).toMatchObject({ undo: null });

    // What is changed after it asks again, and only what is new is shown.
    await describeAs(mira, 'fees', 'What it costs, and how to pay');
    expect((await release(teo, { pages: ['fees'] })).json.code).toBe('approval-missing');
    const changes = (await oona.get(`/api/sites/pq/proposals/${proposal.id}/changes`)).json.pages;
    expect(changes).toMatchObject([{ page: 'fees', differs: ['description'], approvedBy: 'Teo Brandt' }]);
    await decide(oona, 'approved', '', proposal);
    await decide(teo, 'approved', '', proposal);
    expect((await release(teo, { pages: ['fees'] })).status).toBe(200);
    expect(await latest(oona)).toMatchObject({ id: proposal.id, state: 'live' });
  });

  it('is returned with reasons, and then has to be proposed again', async () => {
    await describeAs(mira, 'fees', 'Prices');
    await propose(mira, 'fees');
    const proposal = await latest(oona);
    expect((await decide(oona, 'returned', '', proposal)).json.code).toBe('body-invalid');
    expect((await decide(oona, 'returned', 'Say for whom.', proposal)).status).toBe(200);
    expect(await readiness('fees')).toBe('drafting');
    expect((await mira.get('/api/sites/pq/concerns')).json.said[0]).toMatchObject({
      kind: 'returned',
      by: 'Oona Bell',
      words: 'Say for whom.',
    });
    expect((await decide(teo, 'approved', '', proposal)).json.code).toBe('proposal-closed');
    expect((await release(teo, { pages: ['fees'] })).json.code).toBe('approval-missing');
  });

  it('is made live without it by a manager alone, with a reason that is kept', async () => {
    await describeAs(mira, 'fees', 'Prices for 2027');
    expect((await release(teo, { pages: ['fees'], override: 'In a hurry' })).json.code).toBe('not-allowed');
    expect((await release(ines, { pages: ['fees'] })).json.code).toBe('approval-missing');
    expect((await release(ines, { pages: ['fees'], override: 'The old prices were wrong' })).status).toBe(200);
    expect((await ines.get('/api/sites/pq/releases')).json.releases[0]).toMatchObject({
      override: 'The old prices were wrong',
    });
    await describeAs(ines, 'news', 'No approval here');
    expect((await release(teo, { pages: ['news'] })).status).toBe(200);
  });

  it('is approved only as it was seen', async () => {
    await describeAs(mira, 'fees', 'Seen');
    await propose(mira, 'fees');
    const proposal = await latest(oona);
    const seen = printOf(await site(), toPageId('fees'));
    await describeAs(mira, 'fees', 'Not seen');
    const answer = await oona.post(`/api/sites/pq/proposals/${proposal.id}/decisions`, {
      id: randomUUID(),
      kind: 'approved',
      prints: { fees: seen },
    });
    expect([answer.status, answer.json.code]).toEqual([409, 'proposal-changed']);
  });

  it('is needed for what comes along and for what is taken down, and at its moment', async () => {
    expect((await release(teo, { pages: [], retire: ['fees'] })).json.code).toBe('approval-missing');
    // An approval of what a page says does not cover that it is taken down; its removal can be proposed.
    const seen = await latest(oona);
    await decide(oona, 'approved', '', seen);
    await decide(teo, 'approved', '', seen);
    expect((await release(teo, { pages: [], retire: ['fees'] })).json.code).toBe('approval-missing');
    await ines.operations('pq', { name: 'page.remove', page: 'fees' });
    expect((await release(teo, { pages: ['fees'] })).json.code).toBe('approval-missing');
    await ines.operations('pq', { name: 'page.putBack', page: 'fees' });
    await ines.operations('pq', {
      name: 'page.add',
      page: 'dates',
      place: { parent: 'courses' },
      title: { en: 'Dates' },
    });
    await ines.operations('pq', { name: 'page.move', page: 'dates', place: { parent: 'news' } });
    expect((await release(teo, { pages: ['dates'] })).status).toBe(200);
    // A page that visitors have in the branch does not get around it by being moved.
    await ines.operations('pq', { name: 'page.move', page: 'fees', place: { parent: 'news' } });
    expect((await release(teo, { pages: ['fees'] })).json.code).toBe('approval-missing');
    await ines.operations('pq', { name: 'page.move', page: 'fees', place: { parent: 'courses' } });
    await describeAs(mira, 'fees', 'Seen by nobody yet');
    const later = { at: new Date(Date.now() + 3600_000).toISOString(), pages: ['fees'], settings: [] };
    expect((await teo.post('/api/sites/pq/scheduled-releases', later)).json.code).toBe('approval-missing');
  });

  it('is proposed by who writes there, and withdrawn by who proposed it', async () => {
    expect((await propose(mira, 'news')).json.code).toBe('not-allowed');
    expect((await propose(mira, 'courses')).json.code).toBe('proposal-nothing');
    const proposal = await latest(oona);
    expect((await oona.send('DELETE', `/api/sites/pq/proposals/${proposal.id}`)).json.code).toBe('not-allowed');
    expect((await mira.send('DELETE', `/api/sites/pq/proposals/${proposal.id}`)).status).toBe(200);
    expect(await latest(oona)).toMatchObject({ state: 'withdrawn' });
  });

  it('is decided by persons where they are named, and by nobody whose role was taken since', async () => {
    expect((await rule('courses', { people: [oona.account.id] })).status).toBe(200);
    expect((await rule('courses', { people: [randomUUID()] })).json.code).toBe('approval-unknown-person');
    expect(
      (await teo.send('PUT', '/api/sites/pq/approval/rules', { page: null, by: { role: 'reader' }, count: 1 })).json
        .code,
    ).toBe('not-allowed');
    const kofi = await server.colleague('Kofi Reed', 'pq', [at('news', 'editor')]);
    await describeAs(mira, 'fees', 'By persons');
    await propose(mira, 'fees');
    const proposal = await latest(oona);
    // Whoever may read none of its pages does not hear of it.
    expect((await approval(kofi)).proposals).toEqual([]);
    expect((await kofi.get(`/api/sites/pq/proposals/${proposal.id}/changes`)).json.code).toBe('proposal-unknown');
    expect((await decide(teo, 'approved', '', proposal)).json.code).toBe('proposal-not-yours');
    await decide(oona, 'approved', '', proposal);
    await ines.send('PUT', `/api/sites/pq/colleagues/${oona.account.id}`, { isSuspended: true });
    expect((await release(teo, { pages: ['fees'] })).json.code).toBe('approval-missing');
    await ines.send('PUT', `/api/sites/pq/colleagues/${oona.account.id}`, { isSuspended: false });
    expect((await release(teo, { pages: ['fees'] })).status).toBe(200);
    await ines.post('/api/sites/pq/approval/rules/removed', { page: 'courses' });
    await describeAs(mira, 'fees', 'Free again');
    expect((await release(teo, { pages: ['fees'] })).status).toBe(200);
  });
});
