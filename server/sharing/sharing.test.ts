import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { MAX_FOR_ONE_ACCOUNT } from '../security/attempts.ts';
import { Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site('pq');
  await server.site('other');
  await ines.operations(
    'pq',
    { name: 'page.add', page: 'courses', place: { parent: null }, title: { en: 'Courses' } },
    { name: 'page.add', page: 'fees', place: { parent: 'courses' }, title: { en: 'Fees' } },
    { name: 'page.add', page: 'secret', place: { parent: null }, title: { en: 'Closing the school' } },
    {
      name: 'page.set',
      page: 'fees',
      fields: {
        plan: {
          origin: 'new',
          questions: {
            q1: { text: 'Do we dare?', by: 'Ines', at: '2026-11-01T09:00:00Z', answer: '', settledBy: null },
          },
        },
      },
    },
  );
  await ines.operations('pq', { name: 'page.remove', page: 'secret' });
});
afterAll(() => server.close());

const share = async (given: object = {}) =>
  (await ines.post('/api/sites/pq/shares', { name: 'Governors', days: 14, ...given })).json;
/** Somebody with a browser of their own and no account. */
const visitor = (origin = server.origin) => new Person({ id: '', name: '', email: '', looksAfterAll: false }, origin);
const at = ({ path }: { path: string }, rest = '') => `/api${path}${rest}`;
const feedback = async () => (await ines.get('/api/sites/pq/feedback')).json;
const mails = async () => (await ines.get('/api/outbox')).json.mails as { to: string; subject: string; text: string }[];

async function guest(link: { path: string }, name: string, email = ''): Promise<Person> {
  const person = visitor();
  expect((await person.post(at(link, '/guest'), { name, email })).status).toBe(200);
  return person;
}

describe('a shared plan', () => {
  it('shows the tree without an account, and keeps to itself what is for its makers', async () => {
    const link = await share();
    const somebody = visitor();
    const plan = await somebody.get(at(link));
    expect(plan.json).toMatchObject({ site: 'pq', name: 'Governors', madeBy: 'Ines', guest: null });
    const tree = await somebody.get(at(link, '/tree'));
    expect(tree.json.nodes.id).toBe('courses fees');
    expect(tree.text).toContain('"origin":"new"');
    expect(tree.text).not.toMatch(/Closing the school|Do we dare/);
    expect(tree.headers.get('cache-control')).toMatch(/private|no-store/);
    expect((await somebody.get('/api/sites/pq/tree')).json.code).toBe('not-signed-in');
  });

  it('is withdrawn at once, in every process, and what was said stays', async () => {
    const link = await share();
    const oona = await guest(link, 'Oona');
    await oona.send('PUT', at(link, '/verdicts/fees'), { verdict: 'unsure' });
    expect((await ines.send('DELETE', `/api/sites/pq/shares/${link.id}`)).status).toBe(200);
    for (const [method, rest, body] of [
      ['GET', ''],
      ['GET', '/tree'],
      ['PUT', '/verdicts/fees', { verdict: 'agreed' }],
      ['POST', '/comments', { page: 'fees', kind: 'comment', text: 'Still here?' }],
    ] as const) {
      const answer = await oona.send(method, at(link, rest), body);
      expect([answer.status, answer.json.code]).toEqual([410, 'share-withdrawn']);
    }
    expect((await visitor(server.otherOrigin).get(at(link))).json.code).toBe('share-withdrawn');
    expect((await feedback()).verdicts).toContainEqual(
      expect.objectContaining({ share: link.id, by: 'Oona', verdict: 'unsure' }),
    );
    const again = await ines.post(`/api/sites/pq/shares/${link.id}/invitations`, { invite: ['a@b.example'] });
    expect(again.json.code).toBe('share-not-open');
  });

  it('runs out', async () => {
    const link = await share();
    await server
      .database('share')
      .where({ id: link.id })
      .update({ expires_at: new Date(Date.now() - 1000) });
    const answer = await visitor().get(at(link, '/tree'));
    expect([answer.status, answer.json.code]).toEqual([410, 'share-over']);
    const { shares } = (await ines.get('/api/sites/pq/shares')).json;
    expect(shares.find(({ id }: { id: string }) => id === link.id).state).toBe('over');
  });

  it('asks for its passphrase, once for each browser, and lets nobody guess it', async () => {
    const link = await share({ passphrase: 'copper rivet' });
    const somebody = visitor();
    for (const rest of ['', '/tree']) expect((await somebody.get(at(link, rest))).json.code).toBe('share-locked');
    expect((await somebody.post(at(link, '/guest'), { name: 'Oona' })).json.code).toBe('share-locked');
    expect((await somebody.post(at(link, '/passphrase'), { passphrase: 'Copper rivet' })).json.code).toBe(
      'passphrase-wrong',
    );
    const before = somebody.cookie;
    expect((await somebody.post(at(link, '/passphrase'), { passphrase: 'copper rivet' })).status).toBe(200);
    expect(somebody.cookie).not.toBe(before);
    expect((await somebody.get(at(link, '/tree'))).status).toBe(200);
    const other = await share({ passphrase: 'another one' });
    expect((await somebody.get(at(other))).json.code).toBe('share-locked');
    const guesser = visitor();
    const codes = [];
    for (let n = 0; n <= MAX_FOR_ONE_ACCOUNT; n++)
      codes.push((await guesser.post(at(other, '/passphrase'), { passphrase: `guess ${n}` })).json.code);
    expect(codes.at(-1)).toBe('too-many-attempts');
  });

  it('keeps whoever is signed in signed in', async () => {
    const link = await share({ passphrase: 'copper rivet' });
    const marek = await server.person('Marek');
    await marek.post(at(link, '/passphrase'), { passphrase: 'copper rivet' });
    await marek.post(at(link, '/guest'), { name: 'Marek' });
    expect((await marek.get('/api/session')).json.account.name).toBe('Marek');
    expect((await marek.get(at(link))).json.guest.name).toBe('Marek');
  });
});

describe('guests', () => {
  it('say what they think under a name, change it, and take it back', async () => {
    const link = await share();
    const somebody = visitor();
    expect((await somebody.send('PUT', at(link, '/verdicts/fees'), { verdict: 'agreed' })).json.code).toBe(
      'guest-unnamed',
    );
    const oona = await guest(link, 'Oona Trask');
    const give = (verdict: string | null) => oona.send('PUT', at(link, '/verdicts/fees'), { verdict });
    const given = async () => (await oona.get(at(link))).json.feedback.verdicts;
    await give('unsure');
    await give('change');
    expect(await given()).toMatchObject([{ page: 'fees', verdict: 'change', by: 'Oona Trask', settledBy: null }]);
    await give(null);
    expect(await given()).toEqual([]);
    expect((await oona.send('PUT', at(link, '/verdicts/secret'), { verdict: 'agreed' })).json.code).toBe(
      'page-unknown',
    );
  });

  it('do not take each other’s names, nor each other’s comments back', async () => {
    const link = await share();
    const oona = await guest(link, 'Oona');
    expect((await visitor().post(at(link, '/guest'), { name: 'oona' })).json.code).toBe('guest-name-taken');
    const jory = await guest(link, 'Jory');
    await oona.post(at(link, '/comments'), { page: 'fees', kind: 'question', text: 'Is the deposit on it?' });
    const [comment] = (await jory.get(at(link))).json.feedback.comments;
    expect(comment).toMatchObject({ text: 'Is the deposit on it?', by: 'Oona', kind: 'question' });
    expect((await jory.send('DELETE', at(link, `/comments/${comment.id}`))).json.code).toBe('comment-unknown');
    expect((await oona.send('DELETE', at(link, `/comments/${comment.id}`))).status).toBe(200);
  });

  it('see only what was said by their own link', async () => {
    const [link, other] = [await share({ name: 'Staff' }), await share({ name: 'Parents' })];
    const oona = await guest(link, 'Oona');
    await oona.post(at(link, '/comments'), { page: 'courses', kind: 'comment', text: 'Not for parents' });
    expect((await visitor().get(at(other))).text).not.toContain('Not for parents');
    const byOther = await oona.send('PUT', at(other, '/verdicts/fees'), { verdict: 'agreed' });
    expect(byOther.json.code).toBe('guest-unnamed');
  });
});

describe('the manager', () => {
  it('invites by mail, with the link and without the passphrase', async () => {
    const link = await share({
      passphrase: 'copper rivet',
      invite: ['oona@pellow-quay.example', 'jory@pellow-quay.example', 'jory@pellow-quay.example'],
      letter: 'Please look before Monday.',
    });
    const sent = (await mails()).filter(({ text }) => text.includes(link.path));
    expect(sent.map(({ to }) => to).sort()).toEqual(['jory@pellow-quay.example', 'oona@pellow-quay.example']);
    expect(sent[0]!.text).toContain(`http://spur.example${link.path}`);
    expect(sent[0]!.text).toContain('Please look before Monday.');
    expect(sent[0]!.text).not.toContain('copper rivet');
    const wrong = await ines.post('/api/sites/pq/shares', { name: 'x', days: 3, invite: ['nobody'] });
    expect([wrong.status, wrong.json.errors[0].pointer]).toEqual([422, '/invite/0']);
  });

  it('answers a comment: whoever made it reads it, and gets it by mail once', async () => {
    const link = await share();
    const oona = await guest(link, 'Oona', 'oona@home.example');
    await oona.post(at(link, '/comments'), { page: 'fees', kind: 'question', text: 'Is the deposit on it?' });
    const [comment] = (await oona.get(at(link))).json.feedback.comments;
    const answer = (text: string, isSettled: boolean) =>
      ines.send('PUT', `/api/sites/pq/comments/${comment.id}`, { answer: text, isSettled });
    await answer('Yes, in the first line.', true);
    await answer('Yes, in the first line.', false);
    expect((await oona.get(at(link))).json.feedback.comments[0]).toMatchObject({
      answer: 'Yes, in the first line.',
      answeredBy: 'Ines',
      settledBy: null,
    });
    const got = (await mails()).filter(({ to }) => to === 'oona@home.example');
    expect(got).toHaveLength(1);
    expect(got[0]!.text).toMatch(/> Is the deposit on it\?[^]*Yes, in the first line\./);
    expect((await oona.send('DELETE', at(link, `/comments/${comment.id}`))).json.code).toBe('comment-answered');
    expect(
      (await ines.send('PUT', `/api/sites/other/comments/${comment.id}`, { answer: 'x', isSettled: true })).json.code,
    ).toBe('comment-unknown');
  });

  it('settles what waits on pages; a verdict that says something else then waits again', async () => {
    const link = await share({ name: 'Settling' });
    const oona = await guest(link, 'Oona');
    const give = (verdict: string) => oona.send('PUT', at(link, '/verdicts/courses'), { verdict });
    const mine = async () =>
      (await feedback()).verdicts.find((one: { share: string }) => one.share === link.id).settledBy as string | null;
    await give('change');
    await ines.post('/api/sites/pq/feedback/settled', { pages: ['courses'], isSettled: true });
    expect(await mine()).toBe('Ines');
    await give('change');
    expect(await mine()).toBe('Ines');
    await give('unsure');
    expect(await mine()).toBeNull();
    await ines.post('/api/sites/other/feedback/settled', { pages: ['courses'], isSettled: true });
    expect(await mine()).toBeNull();
  });

  it('is told, in every process, when something is said', async () => {
    const link = await share();
    const oona = await guest(link, 'Oona');
    const marek = await server.person('Marek', 'manager', server.otherOrigin);
    const heard = new AbortController();
    const stream = await fetch(`${server.otherOrigin}/api/sites/pq/events`, {
      headers: { Cookie: marek.cookie },
      signal: heard.signal,
    });
    let text = '';
    void (async () => {
      for await (const chunk of stream.body!.pipeThrough(new TextDecoderStream())) text += chunk;
    })().catch(() => undefined);
    await until('the stream stands', () => text.includes('retry'));
    await oona.send('PUT', at(link, '/verdicts/fees'), { verdict: 'agreed' });
    await until('the news has come', () => text.includes('event: feedback'));
    heard.abort();
  });
});
