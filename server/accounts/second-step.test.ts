import { Secret, TOTP } from 'otpauth';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { latestMails } from '../standins/outbox-repository.ts';
import { Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';

const PASSWORD = 'a-long-test-password';
let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

const at = (person: Person) => new Person(person.account, server.origin);
const codeOf = async (asked: Promise<{ status: number; json: { code?: string } }>) => {
  const { status, json } = await asked;
  return status === 200 ? 'ok' : json.code;
};
/** Somebody with one-time codes: what they sign in with. */
async function withCodes(name: string) {
  const person = await server.person(name);
  const begun = await person.post('/api/account/codes', { password: PASSWORD });
  const totp = new TOTP({ secret: Secret.fromBase32(begun.json.secret) });
  const first = totp.generate();
  const confirmed = await person.send('PUT', '/api/account/codes', { code: first });
  expect(confirmed.status).toBe(200);
  return { person, totp, first, recoveryCodes: confirmed.json.recoveryCodes as string[] };
}

describe('one-time codes', () => {
  it('are asked for after the password, and each opens once', async () => {
    const { person, first, totp, recoveryCodes } = await withCodes('Cora');
    expect(recoveryCodes).toHaveLength(10);
    const there = at(person);
    expect((await there.signIn()).json).toMatchObject({ account: null, wantsCode: true });
    expect((await there.get('/api/sites')).json.code).toBe('not-signed-in');
    expect((await there.get('/api/session')).json).toMatchObject({ account: null, wantsCode: true });
    expect(await codeOf(there.send('PUT', '/api/session/code', { code: first }))).toBe('code-wrong');
    const next = totp.generate({ timestamp: Date.now() + 30_000 });
    expect((await there.send('PUT', '/api/session/code', { code: next })).json.account).toMatchObject({
      email: person.account.email,
      hasSecondStep: true,
    });
    const again = at(person);
    await again.signIn();
    expect(await codeOf(again.send('PUT', '/api/session/code', { code: next }))).toBe('code-wrong');
    expect(await codeOf(again.send('PUT', '/api/session/code', { code: recoveryCodes[0]!.toUpperCase() }))).toBe('ok');
    const third = at(person);
    await third.signIn();
    expect(await codeOf(third.send('PUT', '/api/session/code', { code: recoveryCodes[0] }))).toBe('code-wrong');
  });

  it('are not begun without the password, nor confirmed without having begun', async () => {
    const dora = await server.person('Dora');
    expect(await codeOf(dora.post('/api/account/codes', { password: 'wrong' }))).toBe('password-wrong');
    expect(await codeOf(dora.send('PUT', '/api/account/codes', { code: '123456' }))).toBe('codes-not-begun');
    await dora.post('/api/account/passkey-request', { password: PASSWORD });
    expect(await codeOf(dora.send('PUT', '/api/account/codes', { code: '123456' }))).toBe('codes-not-begun');
    await dora.post('/api/account/codes', { password: PASSWORD });
    expect(await codeOf(dora.send('PUT', '/api/account/codes', { code: '000000' }))).toBe('code-wrong');
    expect((await dora.signIn()).json.wantsCode).toBe(false);
  });

  it('cannot be guessed: after too many wrong ones even the right one waits', async () => {
    const { person, recoveryCodes } = await withCodes('Edda');
    const there = at(person);
    await there.signIn();
    let status = 0;
    for (let n = 0; n < 60 && status !== 429; n++)
      ({ status } = await there.send('PUT', '/api/session/code', { code: String(100_000 + n) }));
    expect(status).toBe(429);
    expect((await there.send('PUT', '/api/session/code', { code: recoveryCodes[0] })).status).toBe(429);
  });

  it('are still asked for after a new password by mail; whoever signs in otherwise is out', async () => {
    const { person, recoveryCodes } = await withCodes('Fern');
    const { email } = person.account;
    expect(await codeOf(at(person).post('/api/password-letters', { email }))).toBe('ok');
    expect(await codeOf(at(person).post('/api/password-letters', { email: 'nobody@school.example' }))).toBe('ok');
    const mails = await latestMails(server.database);
    expect(mails.some(({ to }) => to === 'nobody@school.example')).toBe(false);
    const token = /#([\w-]+)/.exec(
      mails.find(({ to, subject }) => to === email && /new password/.test(subject))!.text,
    )![1];
    const there = at(person);
    const used = await there.send('PUT', '/api/account-link', { token, password: 'a-quite-new-passphrase' });
    expect(used.json).toMatchObject({ account: null, wantsCode: true });
    await until('the former session is over', async () => (await person.get('/api/sites')).status === 401);
    expect(await codeOf(there.send('PUT', '/api/session/code', { code: recoveryCodes[3] }))).toBe('ok');
    expect(await codeOf(at(person).signIn(PASSWORD) as never)).toBe('sign-in-failed');
  });

  it('are told of by mail, which holds no secret', async () => {
    const { person, recoveryCodes } = await withCodes('Gwen');
    const mail = (await latestMails(server.database)).find(({ to }) => to === person.account.email)!;
    expect(mail.text).toContain('set up one-time codes for your account');
    for (const code of recoveryCodes) expect(mail.text).not.toContain(code);
    expect(await codeOf(person.post('/api/account/codes/end', { password: 'wrong' }))).toBe('password-wrong');
    expect((await person.post('/api/account/codes/end', { password: PASSWORD })).json.codesSince).toBeNull();
    expect((await at(person).signIn()).json.wantsCode).toBe(false);
  });
});

describe('a site that asks for a second step', () => {
  it('opens to who has used one this time, and not to who merely has one', async () => {
    await server.site('strict');
    const { person, recoveryCodes } = await withCodes('Kaja');
    expect(await codeOf(person.send('PUT', '/api/sites/strict/security', { needsSecondStep: true }))).toBe('ok');
    expect((await person.get('/api/sites/strict/tree')).status).toBe(200);
    await server.database('passkey').insert({
      id: 'a-key',
      account: (await server.person('Lars')).account.id,
      name: 'Key',
      public_key: Buffer.from('x'),
      counter: 0,
      added_at: new Date(),
    });
    const lars = await server.person('Lars');
    expect((await lars.get('/api/session')).json.account.hasSecondStep).toBe(false);
    expect((await lars.get('/api/sites/strict/tree')).json.code).toBe('second-step-needed');
    const there = at(person);
    await there.signIn();
    await there.send('PUT', '/api/session/code', { code: recoveryCodes[5] });
    expect((await there.get('/api/sites/strict/tree')).status).toBe(200);
    await there.post('/api/account/codes/end', { password: PASSWORD });
    expect((await there.get('/api/sites/strict/tree')).json.code).toBe('second-step-needed');
  });
});

describe('sessions', () => {
  it('are listed by names that open nothing, and ended one by one or all but this', async () => {
    const hal = await server.person('Hal');
    const [second, third] = [at(hal), at(hal)];
    await second.signIn();
    await third.signIn();
    const { sessions } = (await hal.get('/api/account/sessions')).json as {
      sessions: { id: string; isThis: boolean }[];
    };
    expect(sessions).toHaveLength(3);
    expect(sessions.filter(({ isThis }) => isThis)).toHaveLength(1);
    for (const { id } of sessions) for (const one of [hal, second, third]) expect(one.cookie).not.toContain(id);
    const own = sessions.find(({ isThis }) => isThis)!.id;
    expect(await codeOf(hal.send('DELETE', `/api/account/sessions/${own}`))).toBe('session-unknown');
    const other = sessions.find(({ isThis }) => !isThis)!.id;
    expect((await hal.send('DELETE', `/api/account/sessions/${other}`)).json.sessions).toHaveLength(2);
    expect((await hal.send('DELETE', '/api/account/sessions/others')).json.sessions).toHaveLength(1);
    for (const one of [second, third])
      await until('it is over', async () => (await one.get('/api/sites')).status === 401);
    expect((await hal.get('/api/sites')).status).toBe(200);
  });

  it('of others end when the password is changed', async () => {
    const ivy = await server.person('Ivy');
    const there = at(ivy);
    await there.signIn();
    const change = (current: string, password: string) =>
      codeOf(ivy.send('PUT', '/api/account/password', { current, password }));
    expect(await change('wrong', 'a-quite-new-passphrase')).toBe('password-wrong');
    expect(await change(PASSWORD, 'ivy@school.example')).toBe('password-known');
    expect(await change(PASSWORD, 'a-quite-new-passphrase')).toBe('ok');
    await until('it is over', async () => (await there.get('/api/sites')).status === 401);
    expect((await ivy.get('/api/sites')).status).toBe(200);
  });
});

describe('a passkey', () => {
  it('is taken from nobody who does not answer what was asked', async () => {
    const jon = await server.person('Jon');
    const text = (bytes: string) => Buffer.from(bytes).toString('base64url');
    const response = {
      id: text('none'),
      rawId: text('none'),
      type: 'public-key',
      response: {
        clientDataJSON: text('{}'),
        attestationObject: text('x'),
        authenticatorData: text('x'),
        signature: text('x'),
      },
      clientExtensionResults: {},
    };
    expect(await codeOf(jon.post('/api/account/passkeys', { name: 'Key', response }))).toBe('passkey-refused');
    await jon.post('/api/account/passkey-request', { password: PASSWORD });
    expect(await codeOf(jon.post('/api/account/passkeys', { name: 'Key', response }))).toBe('passkey-refused');
    const nobody = at(jon);
    expect(await codeOf(nobody.post('/api/session/passkey', { response }))).toBe('passkey-refused');
    await nobody.post('/api/session/passkey-request', undefined);
    expect(await codeOf(nobody.post('/api/session/passkey', { response }))).toBe('passkey-refused');
    expect((await nobody.get('/api/session')).json.account).toBeNull();
  });
});
