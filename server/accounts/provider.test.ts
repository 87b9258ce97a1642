import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { roleIdSchema } from '#core/people/role.ts';
import { putStandInPerson } from '../standins/directory-repository.ts';
import { Person, type TestServer, startTestServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site('quay');
  await putStandInPerson(server.database, {
    id: 'p1',
    name: 'Petra Vane',
    email: 'petra@school.example',
    is_active: true,
    groups: [],
  });
});
afterAll(() => server.close());

/** A browser that goes where it is sent, with cookies for each origin. Gives the address at which it stays. */
class Browser {
  readonly #cookies = new Map<string, Map<string, string>>();

  async go(address: string, form?: Record<string, string>): Promise<{ address: string; text: string; status: number }> {
    let [at, body] = [new URL(address), form];
    for (let steps = 0; steps < 15; steps++) {
      const jar = this.#cookies.get(at.origin) ?? new Map<string, string>();
      this.#cookies.set(at.origin, jar);
      const response: Response = await fetch(at, {
        redirect: 'manual',
        headers: { Cookie: [...jar].map(([name, value]) => `${name}=${value}`).join('; ') },
        ...(body && { method: 'POST', body: new URLSearchParams(body) }),
      });
      body = undefined;
      for (const line of response.headers.getSetCookie()) {
        const [, name, value] = /^([^=]+)=([^;]*)/.exec(line)!;
        if (value === '') jar.delete(name!);
        else jar.set(name!, value!);
      }
      const next = response.headers.get('location');
      const isThere =
        next === null || new URL(next, at).pathname === '/sites' || new URL(next, at).pathname === '/sign-in';
      if (next === null) return { address: at.href, text: await response.text(), status: response.status };
      at = new URL(next, at);
      if (isThere) return { address: at.pathname + at.search, text: '', status: response.status };
    }
    throw new Error('It goes in circles.');
  }

  cookieAt = (origin: string): string =>
    [...(this.#cookies.get(origin) ?? [])].map(([name, value]) => `${name}=${value}`).join('; ');
}

/** Signs in through the stand-in as somebody. */
async function through(email: string, browser = new Browser()) {
  const choice = await browser.go(`${server.origin}/api/session/provider`);
  expect(choice.text).toContain('Who are you?');
  expect(choice.text).toContain('Petra Vane');
  const ended = await browser.go(choice.address, { email });
  return { browser, ended };
}
const sessionIn = async (browser: Browser) => {
  const person = new Person(ines.account, server.origin);
  person.cookie = browser.cookieAt(server.origin);
  return { person, session: (await person.get('/api/session')).json };
};

describe('signing in through the provider of the organisation', () => {
  it('is offered by its name', async () => {
    expect((await new Person(ines.account, server.origin).get('/api/session')).json.provider).toBe('the school');
  });

  it('takes an invitation up, and knows who it is from then on, whatever their mail address becomes', async () => {
    const email = 'petra@school.example';
    await ines.post('/api/sites/quay/colleagues', {
      name: 'Petra Vane',
      email,
      roles: [{ page: null, role: roleIdSchema.parse('writer') }],
    });
    const { browser, ended } = await through(email);
    expect(ended.address).toBe('/sites');
    const { person, session } = await sessionIn(browser);
    expect(session.account).toMatchObject({ name: 'Petra Vane', email });
    expect((await person.get('/api/sites/quay/tree')).status).toBe(200);
    const { colleagues } = (await ines.get('/api/sites/quay/colleagues')).json;
    expect(colleagues.find((one: { email: string }) => one.email === email).state).toBe('here');
    await server.database('account').where({ email }).update({ email: 'vane@school.example' });
    const again = await sessionIn((await through(email)).browser);
    expect(again.session.account.email).toBe('vane@school.example');
  });

  it('lets nobody in who was not invited', async () => {
    const { browser, ended } = await through('somebody@elsewhere.example');
    expect(ended.address).toBe('/sign-in?refused=provider-unknown-person');
    expect((await sessionIn(browser)).session.account).toBeNull();
  });

  it('takes no answer that was not asked for in this session, and none twice', async () => {
    const victim = new Browser();
    const attacker = new Browser();
    const choice = await attacker.go(`${server.origin}/api/session/provider`);
    let answer = '';
    // The attacker's own browser stops before it comes back; the address is given to somebody else.
    const kept = attacker.go.bind(attacker);
    const follow = globalThis.fetch;
    globalThis.fetch = ((address: URL, init: RequestInit) => {
      if (String(address).includes('/provider/answer')) {
        answer = String(address);
        return Promise.resolve(new Response('', { status: 200 }));
      }
      return follow(address, init);
    }) as never;
    try {
      await kept(choice.address, { email: 'ines@school.example' });
    } finally {
      globalThis.fetch = follow;
    }
    expect(answer).toContain('code=');
    expect((await victim.go(answer)).address).toBe('/sign-in?refused=provider-refused');
    expect((await attacker.go(answer)).address).toBe('/sites');
    expect((await attacker.go(answer)).address).toBe('/sign-in?refused=provider-refused');
    expect((await victim.go(`${server.origin}/api/session/provider/answer?code=x&state=y`)).address).toBe(
      '/sign-in?refused=provider-refused',
    );
  });
});
