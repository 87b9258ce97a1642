import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { toPageId } from '#core/model/ids.ts';
import type { RoleId } from '#core/people/role.ts';
import type { ConcernsAnswer, Thread } from '#contract/talk.ts';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
let mira: Person;
let kofi: Person;
let reader: Person;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines Farrow');
  await server.site('pq');
  await server.site('other');
  await ines.operations(
    'pq',
    { name: 'page.add', page: 'courses', place: { parent: null }, title: { en: 'Courses' } },
    { name: 'page.add', page: 'fees', place: { parent: 'courses' }, title: { en: 'Fees' } },
    { name: 'page.add', page: 'staff', place: { parent: null }, title: { en: 'Staff only' } },
    { name: 'page.set', page: 'courses', fields: { plan: { owner: 'mira sand' } } },
  );
  mira = await server.colleague('Mira Sand', 'pq', 'writer');
  kofi = await server.colleague('Kofi Reed', 'pq', [{ page: toPageId('courses'), role: 'editor' as RoleId }]);
  reader = await server.colleague('Oona Bell', 'pq', 'reader');
});
afterAll(() => server.close());

const start = (who: Person, page: string, text: string, about: object | null = null, id: string = randomUUID()) =>
  who.post(`/api/sites/pq/pages/${page}/threads`, { id, text, about });
const threads = async (who: Person, page?: string): Promise<Thread[]> =>
  (await who.get(`/api/sites/pq/threads${page ? `?page=${page}` : ''}`)).json.threads;
const concerns = async (who: Person): Promise<ConcernsAnswer> => (await who.get('/api/sites/pq/concerns')).json;
const mailsTo = async (who: Person) =>
  ((await ines.get('/api/outbox')).json.mails as { to: string; subject: string; text: string }[]).filter(
    ({ to }) => to === who.account.email,
  );

describe('comments of colleagues', () => {
  it('are read by who reads the page, answered, settled and reopened', async () => {
    const about = { exact: 'at noon', prefix: 'leaves ', suffix: '.' };
    const made = await start(mira, 'fees', 'Is this still right?', about);
    expect(made.status).toBe(200);
    const { id } = made.json.thread as Thread;
    expect((await threads(kofi)).find((one) => one.id === id)).toMatchObject({ page: 'fees', about, settledBy: null });
    const answer = { id: randomUUID(), text: 'It is.' };
    expect((await kofi.post(`/api/sites/pq/threads/${id}/comments`, answer)).status).toBe(200);
    // Sent again, it says nothing twice.
    await kofi.post(`/api/sites/pq/threads/${id}/comments`, answer);
    await kofi.send('PUT', `/api/sites/pq/threads/${id}/settled`, { isSettled: true });
    expect((await threads(mira)).some((one) => one.id === id)).toBe(false);
    const [settled] = await threads(mira, 'fees');
    expect(settled).toMatchObject({ settledBy: 'Kofi Reed' });
    expect(settled!.comments.map(({ by, isOwn, text }) => [by, isOwn, text])).toEqual([
      ['Mira Sand', true, 'Is this still right?'],
      ['Kofi Reed', false, 'It is.'],
    ]);
    expect((await mira.get('/api/sites/pq/threads')).json.settled).toContainEqual({ page: 'fees', count: 1 });
    // An answer reopens it.
    await mira.post(`/api/sites/pq/threads/${id}/comments`, { id: randomUUID(), text: 'Since when?' });
    expect((await threads(kofi)).find((one) => one.id === id)!.comments).toHaveLength(3);
  });

  it('stay with those who may read the page', async () => {
    const made = await start(mira, 'staff', 'Not for everybody.');
    const { id } = made.json.thread as Thread;
    expect((await threads(kofi)).some((one) => one.id === id)).toBe(false);
    expect(await threads(kofi, 'staff')).toEqual([]);
    const words = { id: randomUUID(), text: 'Me too' };
    for (const [method, path, body] of [
      ['POST', 'comments', words],
      ['PUT', 'settled', { isSettled: true }],
      ['PUT', `comments/${id}`, { text: 'x' }],
      ['DELETE', `comments/${id}`, undefined],
    ] as const)
      expect((await kofi.send(method, `/api/sites/pq/threads/${id}/${path}`, body)).json.code).toBe('thread-unknown');
    // Whoever knows the id learns nothing by beginning with it once more.
    expect((await start(kofi, 'fees', 'Guess', null, id)).json.code).toBe('thread-unknown');
    expect((await start(reader, 'fees', 'May I?')).json.code).toBe('not-allowed');
    expect((await ines.send('PUT', `/api/sites/other/threads/${id}/settled`, { isSettled: true })).json.code).toBe(
      'thread-unknown',
    );
  });

  it('are changed and deleted by who made them, until somebody has answered', async () => {
    const { id } = (await start(mira, 'courses', 'Frist')).json.thread as Thread;
    const path = `/api/sites/pq/threads/${id}/comments/${id}`;
    expect((await kofi.send('PUT', path, { text: 'No' })).json.code).toBe('comment-of-another');
    const changed = await mira.send('PUT', path, { text: 'First' });
    expect(changed.json.thread.comments[0]).toMatchObject({ text: 'First', editedAt: expect.any(String) as string });
    await kofi.post(`/api/sites/pq/threads/${id}/comments`, { id: randomUUID(), text: 'Second' });
    expect((await mira.send('DELETE', path)).json).toMatchObject({ code: 'comment-answered' });
    const last = (await threads(kofi)).find((one) => one.id === id)!.comments.at(-1)!;
    expect((await kofi.send('DELETE', `/api/sites/pq/threads/${id}/comments/${last.id}`)).status).toBe(200);
    expect((await mira.send('DELETE', path)).status).toBe(200);
    expect((await threads(mira)).some((one) => one.id === id)).toBe(false);
  });
});

describe('what concerns somebody', () => {
  it('has mentions, answers and comments on their pages, each once, and mails for who wants them at once', async () => {
    const before = await mailsTo(mira);
    const made = await start(kofi, 'courses', 'Is this yours, or @Ines Farrow’s?\nSubject: no');
    const { id } = made.json.thread as Thread;
    const [said] = (await concerns(mira)).said;
    expect(said).toMatchObject({ kind: 'comment', page: 'courses', thread: id, by: 'Kofi Reed', isRead: false });
    expect((await concerns(ines)).said[0]).toMatchObject({ kind: 'mention' });
    const mails = await mailsTo(mira);
    expect(mails).toHaveLength(before.length + 1);
    expect(mails[0]!.subject).toBe('Kofi Reed commented on ‘Courses’');
    expect(mails[0]!.text).toMatch(/\/sites\/pq\?page=courses&beside=for-you/);
    await mira.send('PUT', '/api/account/mails', { mails: 'never' });
    await ines.post(`/api/sites/pq/threads/${id}/comments`, { id: randomUUID(), text: 'Hers. @kofi @mira sand' });
    expect(await mailsTo(mira)).toHaveLength(mails.length);
    expect((await concerns(mira)).said[0]).toMatchObject({ kind: 'mention', by: 'Ines Farrow' });
    expect((await concerns(kofi)).said[0]).toMatchObject({ kind: 'mention', by: 'Ines Farrow' });
  });

  it('never has what is said where they may not read', async () => {
    const count = (await concerns(kofi)).said.length;
    await start(mira, 'staff', '@Kofi Reed, can you see this?');
    expect((await concerns(kofi)).said).toHaveLength(count);
  });

  it('has edits by others to what they own and follow, until these are read', async () => {
    expect((await reader.send('PUT', '/api/sites/pq/pages/courses/follow', { isFollowing: true })).status).toBe(200);
    await ines.operations('pq', { name: 'page.set', page: 'fees', fields: { title: { en: 'What it costs' } } });
    await ines.operations('pq', { name: 'page.set', page: 'staff', fields: { title: { en: 'Staff' } } });
    const first = await concerns(reader);
    expect(first.follows).toEqual(['courses']);
    // What was changed before they followed is no news.
    expect(first.edits).toMatchObject([{ page: 'fees', by: ['Ines Farrow'], count: 1, isRead: false }]);
    const read = { asOf: first.asOf, isRead: true, edits: ['fees'], others: ['due fees 2026-12-01'] };
    expect((await reader.send('PUT', '/api/sites/pq/concerns/read', read)).status).toBe(200);
    expect((await concerns(reader)).edits[0]).toMatchObject({ isRead: true });
    expect((await concerns(reader)).read).toEqual(['due fees 2026-12-01']);
    await kofi.operations('pq', { name: 'page.set', page: 'fees', fields: { title: { en: 'Fees' } } });
    expect((await concerns(reader)).edits[0]).toMatchObject({ count: 2, isRead: false });
    // Own edits are none.
    expect((await concerns(kofi)).edits).toEqual([]);
    expect((await concerns(mira)).edits).toEqual([expect.objectContaining({ page: 'courses' })]);
  });

  it('is each person’s own', async () => {
    const [said] = (await concerns(mira)).said;
    const read = { asOf: new Date().toISOString(), isRead: true, said: [said!.id] };
    await kofi.send('PUT', '/api/sites/pq/concerns/read', read);
    expect((await concerns(mira)).said[0]).toMatchObject({ isRead: false });
    await mira.send('PUT', '/api/sites/pq/concerns/read', read);
    expect((await concerns(mira)).said[0]).toMatchObject({ isRead: true });
  });
});

describe('the mails of the morning', () => {
  it('tell once what is new, and what is due today', async () => {
    await mira.send('PUT', '/api/account/mails', { mails: 'daily' });
    await start(kofi, 'fees', '@Mira Sand, once a day');
    await ines.operations('pq', { name: 'page.set', page: 'courses', fields: { title: { en: 'All courses' } } });
    const day = new Date().toISOString().slice(0, 10);
    await ines.operations('pq', {
      name: 'page.set',
      page: 'staff',
      fields: { plan: { owner: 'Oona Bell', due: day } },
    });
    const count = (await mailsTo(mira)).length;
    await server.dailyMails.send();
    const mails = await mailsTo(mira);
    expect(mails).toHaveLength(count + 1);
    expect(mails[0]!.text).toContain('Kofi Reed mentioned you on ‘Fees’: @Mira Sand, once a day');
    expect(mails[0]!.text).toContain('‘All courses’, by Ines Farrow');
    expect((await mailsTo(reader))[0]!.text).toContain(`‘Staff’, due on ${day}`);
    // What her page lacks stands in it once, as long as it lacks it.
    expect(mails[0]!.text).toMatch(/What your pages lack:\n(- .*\n)*- ‘All courses’: No description\./);
    expect(mails[0]!.text).not.toContain('‘Staff only’:');
    await server.dailyMails.send();
    expect(await mailsTo(mira)).toHaveLength(count + 1);
    const describe = (description: object) =>
      ines.operations('pq', { name: 'page.set', page: 'courses', fields: { description } });
    await describe({ en: 'All of them' });
    await server.dailyMails.send();
    await describe({ en: '' });
    await server.dailyMails.send();
    expect((await mailsTo(mira))[0]!.text).toContain('‘All courses’: No description.');
  });
});

describe('conversations that are handed over', () => {
  const handOver = (from: Person, to: Person, by = ines) =>
    by.post(`/api/sites/pq/colleagues/${from.account.id}/handed-over`, { to: to.account.id });

  it('are those that one began or is mentioned in; the other hears of them from then on', async () => {
    const tess = await server.colleague('Tess Orme', 'pq', 'writer');
    const ulf = await server.colleague('Ulf Berg', 'pq', [{ page: toPageId('courses'), role: 'writer' as RoleId }]);
    const begin = async (who: Person, page: string, text: string) =>
      ((await start(who, page, text)).json.thread as Thread).id;
    const asked = await begin(tess, 'fees', 'Who knows the fees?');
    const mentioned = await begin(kofi, 'courses', 'Can @Tess Orme look?');
    const elsewhere = await begin(tess, 'staff', 'For the staff?');
    const settled = await begin(tess, 'fees', 'Done?');
    await tess.send('PUT', `/api/sites/pq/threads/${settled}/settled`, { isSettled: true });
    await begin(kofi, 'fees', 'None of theirs.');
    expect((await handOver(tess, ulf)).json).toEqual({ handedOver: 2, left: 1 });
    const told = async () =>
      (await concerns(ulf)).said.filter(({ kind }) => kind === 'handed over').map(({ thread, by }) => [thread, by]);
    expect((await told()).sort()).toEqual([asked, mentioned].map((id) => [id, 'Tess Orme']).sort());
    const [mail] = await mailsTo(ulf);
    expect(mail!.subject).toMatch(/^Tess Orme hands over to you 2 conversations on /);
    expect(mail!.text).toContain('‘Fees’');
    await kofi.post(`/api/sites/pq/threads/${asked}/comments`, { id: randomUUID(), text: 'I do.' });
    expect((await concerns(ulf)).said[0]).toMatchObject({ kind: 'answer', thread: asked, words: 'I do.' });
    // Once more, there is nothing left; what was handed over goes on from hand to hand, and back.
    expect((await handOver(tess, ulf)).json).toEqual({ handedOver: 0, left: 1 });
    expect(await told()).toHaveLength(2);
    expect((await handOver(ulf, mira)).json).toEqual({ handedOver: 2, left: 0 });
    const handed = async (thread: string) => (await threads(mira)).find(({ id }) => id === thread)!.handed;
    expect(await handed(asked)).toEqual(
      expect.arrayContaining(['Tess Orme', 'Ulf Berg'].map((by) => ({ to: 'Mira Sand', by }))),
    );
    expect((await handOver(tess, mira)).json).toEqual({ handedOver: 1, left: 0 });
    expect(await handed(elsewhere)).toEqual([{ to: 'Mira Sand', by: 'Tess Orme' }]);
    await handOver(mira, tess);
    expect(await handed(elsewhere)).toEqual([{ to: 'Tess Orme', by: 'Mira Sand' }]);
    expect((await handOver(tess, mira)).json.handedOver).toBeGreaterThanOrEqual(3);
  });

  it('go to colleagues of the site alone, by who looks after them', async () => {
    const stranger = await server.colleague('Sol Vane', 'other', 'writer');
    for (const [from, to] of [
      [kofi, stranger],
      [stranger, kofi],
      [kofi, kofi],
    ] as const)
      expect((await handOver(from, to)).json.code).toBe('colleague-unknown');
    expect((await handOver(kofi, mira, mira)).status).toBe(403);
  });
});
