import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type TestServer, startTestServer, until } from '../testing/test-server.ts';
import { makeFirstAccount, offerFirstAccount } from './account-service.ts';
import { MAX_FOR_ONE_ACCOUNT } from '../security/attempts.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.close());

describe('signing in', () => {
  it('gives a new session id, so that one known from before is worth nothing', async () => {
    const person = await server.person('Ines');
    const before = person.cookie;
    await person.signIn();
    const after = person.cookie;
    expect(after).not.toBe(before);
    person.cookie = before;
    expect((await person.get('/api/session')).json.account).toBeNull();
  });

  it('sets a cookie that scripts cannot read and other sites do not send', async () => {
    const person = await server.person('Ines');
    const cookie = (await person.signIn()).headers.getSetCookie()[0];
    expect(cookie).toMatch(/^spur\.workbench=/);
    expect(cookie).toMatch(/HttpOnly/);
    expect(cookie).toMatch(/SameSite=Lax/);
  });

  it('keeps no password, only an argon2id hash', async () => {
    await server.person('Ines');
    const { password_hash: hash } = await server.database('account').first('password_hash');
    expect(hash).toMatch(/^\$argon2id\$/);
  });

  it('says the same of a wrong password and of an unknown address', async () => {
    const person = await server.person('Petra');
    const wrong = await person.signIn('not the password');
    const unknown = await person.post('/api/session', { email: 'nobody@school.example', password: 'x' });
    expect([wrong.status, wrong.json.detail]).toEqual([unknown.status, unknown.json.detail]);
    expect(wrong.status).toBe(401);
  });

  it('is limited: after too many failures even the right password waits', async () => {
    const person = await server.person('Bram');
    for (let n = 0; n < MAX_FOR_ONE_ACCOUNT; n++) expect((await person.signIn('wrong')).status).toBe(401);
    const answer = await person.signIn();
    expect(answer.status).toBe(429);
    expect(answer.json.detail).toMatch(/Wait \d+ seconds/);
    expect((await server.person('Ines')).cookie).not.toBe('');
  });

  it('ends with signing out', async () => {
    const person = await server.person('Ines');
    const before = person.cookie;
    expect((await person.send('DELETE', '/api/session')).json.account).toBeNull();
    person.cookie = before;
    expect((await person.get('/api/sites')).status).toBe(401);
  });
});

describe('a session that ended in one process', () => {
  it('is over in the others too', async () => {
    const here = await server.person('Ines');
    const there = await server.person('Ines', 'manager', server.otherOrigin);
    there.cookie = here.cookie;
    expect((await there.get('/api/sites')).status).toBe(200);
    const { cookie } = here;
    await here.send('DELETE', '/api/session');
    await until('the other process knows', async () => {
      there.cookie = cookie;
      return (await there.get('/api/sites')).status === 401;
    });
  });
});

describe('changes', () => {
  it('are taken from the workbench alone: not from another origin, nor from none', async () => {
    const person = await server.person('Ines');
    const body = { key: 'from-elsewhere', name: 'Elsewhere' };
    for (const origin of ['http://127.0.0.1:9999', 'https://evil.example', server.liveOrigin, 'null', '']) {
      const answer = await person.post('/api/sites', body, { Origin: origin });
      expect([origin, answer.status, answer.json.code]).toEqual([origin, 403, 'wrong-origin']);
    }
    expect((await person.get('/api/sites/from-elsewhere')).status).toBe(404);
  });

  it('are taken as JSON alone, which no form of another site can send', async () => {
    const person = await server.person('Ines');
    const answer = await person.post('/api/sites', 'key=a-form&name=Form', {
      'Content-Type': 'application/x-www-form-urlencoded',
    });
    expect([answer.status, answer.json.code]).toEqual([415, 'body-type']);
  });
});

describe('the first account', () => {
  it('is made once, by the link, and only while there is none', async () => {
    const empty = await startTestServer();
    try {
      const now = new Date('2026-11-25T09:00:00Z');
      const old = await offerFirstAccount(empty.database, now);
      const token = await offerFirstAccount(empty.database, now);
      const given = { name: 'Ada', email: 'ada@school.example', password: 'a-long-password' };
      const make = (by: string, at = now) => makeFirstAccount(empty.database, at, { ...given, token: by });
      await expect(make(old!)).rejects.toMatchObject({ code: 'setup-closed' });
      await expect(make(token!, new Date('2026-11-26T09:00:01Z'))).rejects.toMatchObject({ code: 'setup-closed' });
      await expect(make(token!)).resolves.toMatchObject({ looksAfterAll: true });
      await expect(make(token!)).rejects.toMatchObject({ code: 'setup-closed' });
      expect(await offerFirstAccount(empty.database, now)).toBeNull();
    } finally {
      await empty.close();
    }
  });
});
