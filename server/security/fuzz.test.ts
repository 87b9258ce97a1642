import { connect } from 'node:net';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { escapedPart, someRequests } from '../testing/fuzz-requests.ts';
import { runFuzz } from '../testing/run-fuzz.ts';
import { type Person, type TestServer, startTestServer } from '../testing/test-server.ts';

const SEED = Number(process.env.SPUR_FUZZ_SEED ?? 20261129);
const REQUESTS = Number(process.env.SPUR_FUZZ_REQUESTS ?? 2000);

let server: TestServer;
let ines: Person;
const page = (id: string, parent: string | null = null) => ({
  name: 'page.add',
  page: id,
  place: { parent },
  title: { en: id },
});

beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  await server.site('quay');
  await ines.operations('quay', page('home'), page('visit', 'home'), page('news', 'home'), page('boats', 'news'));
  await ines.post('/api/sites/quay/releases', { pages: 'all', retire: [] });
});
afterAll(() => server.close());

/** The server answers somebody else as if nothing had been. */
const isWell = async () => {
  expect((await ines.get('/api/sites/quay/tree')).status).toBe(200);
  // What was sent may have closed the site for works, or taken its home page down: both are allowed.
  expect((await ines.send('PUT', '/api/sites/quay/works', { works: null })).status).toBe(200);
  expect((await server.live('/quay/')).status).toBeLessThan(500);
};

describe('whatever is sent', () => {
  it('is answered or refused, at once, and a refusal writes nothing', { timeout: 600_000 }, async () => {
    const known = {
      sites: ['quay', 'quay', 'quay', 'nowhere'],
      pages: ['home', 'visit', 'news', 'boats', 'p5'],
      others: { release: ['1', '2'], revision: ['0', '1'] },
    };
    const requests = someRequests(known, REQUESTS, SEED);
    const target = { origin: server.origin, database: server.database, headers: { Cookie: ines.cookie } };
    const { statuses, faults } = await runFuzz(requests, target);
    expect(faults).toEqual([]);
    // It is no test of the door alone: many get through.
    expect(statuses.get(200) ?? 0).toBeGreaterThan(REQUESTS / 10);
    await isWell();
  });

  it('on the visitors’ side too', async () => {
    const text = fc.oneof(
      fc.string({ unit: 'binary' }),
      fc.constantFrom(
        '..',
        '.',
        '~join',
        '~letter',
        '~walk',
        '~page',
        '%00',
        '%2e%2e',
        '%ff',
        '//',
        'feed.xml',
        'sitemap-9.xml',
        'search',
      ),
    );
    const paths = fc.sample(
      fc.tuple(fc.constantFrom('quay', 'not-there', '~', '%71uay'), fc.array(text, { maxLength: 4 })),
      { numRuns: 300, seed: SEED },
    );
    const field = fc.oneof(
      fc.string({ unit: 'binary' }),
      fc.constantFrom('ada@home.example', 'a'.repeat(4000), '/visit', '//evil.example', '\0'),
    );
    const forms = fc.sample(fc.record({ email: field, password: field, to: field, passphrase: field, name: field }), {
      numRuns: 100,
      seed: SEED,
    });
    const statuses = new Set<number>();
    const ask = async (path: string, init?: RequestInit) => {
      const response = await fetch(server.liveOrigin + path, { redirect: 'manual', ...init });
      await response.text();
      statuses.add(response.status);
      expect([path.slice(0, 200), response.status]).toEqual([
        path.slice(0, 200),
        expect.toSatisfy((status) => Number(status) < 500),
      ]);
    };
    for (const [key, parts] of paths) await ask(`/${key}/${parts.map((part) => escapedPart(part)).join('/')}`);
    for (const [at, form] of forms.entries()) {
      const way = ['sign-in', '~passphrase', '~password', '~join/none', '~letter/none'][at % 5]!;
      const body = new URLSearchParams(Object.entries(form).map(([name, value]): [string, string] => [name, value]));
      await ask(`/quay/${way}`, { method: 'POST', body, headers: { Origin: server.liveOrigin } });
    }
    expect(statuses.size).toBeGreaterThan(3);
    await isWell();
  });

  it('as bytes that are no sound HTTP', { timeout: 60_000 }, async () => {
    const lines = fc.constantFrom(
      'GET /quay/ HTTP/1.1',
      'POST /api/sites/quay/operations HTTP/1.1',
      'GET  HTTP/1.1',
      'GET /quay/ HTTP/9.9',
      'FOO /quay/ HTTP/1.1',
      'GET http://other.example/quay/ HTTP/1.1',
      'GET /%zz/%00 HTTP/1.1',
      'OPTIONS * HTTP/1.1',
      'CONNECT quay:443 HTTP/1.1',
      '',
    );
    const headers = fc.subarray([
      'Host: quay',
      'Host:',
      'Content-Length: -1',
      'Content-Length: 99999999999',
      'Content-Length: 3',
      'Transfer-Encoding: chunked',
      'Transfer-Encoding: chunked, identity',
      'Expect: 100-continue',
      'Connection: upgrade',
      'Upgrade: websocket',
      `Cookie: ${'a=b; '.repeat(900)}`,
      'Cookie: spur.workbench=s%3Aforged.forged',
      'Accept-Encoding: br;q=nonsense',
      'If-None-Match: "',
      'Range: bytes=9-1',
      'X: \u0001',
      ' folded: yes',
    ]);
    const bodies = fc.constantFrom(
      '',
      'abc',
      '{"operations":[',
      'zz\r\n',
      '0\r\n\r\nGET /quay/ HTTP/1.1\r\n\r\n',
      '\0\0\0\xff',
    );
    const sent = fc.sample(fc.tuple(lines, headers, bodies, fc.constantFrom('\r\n', '\n', '\r')), {
      numRuns: 300,
      seed: SEED,
    });
    for (const [at, [line, some, body, end]] of sent.entries()) {
      const { port } = new URL(at % 2 === 0 ? server.origin : server.liveOrigin);
      const answer = await raw(Number(port), [line, ...some, '', body].join(end));
      expect([line, some, answer.slice(0, 60)]).toEqual([line, some, expect.not.stringMatching(/^HTTP\/1\.1 5(?!05)/)]);
    }
    await isWell();
  });
});

/** Sends bytes and reads what comes back until the other side is done, or for a moment. */
const raw = (port: number, text: string): Promise<string> =>
  new Promise((resolve) => {
    const socket = connect(port, '127.0.0.1');
    let answer = '';
    const end = () => {
      socket.destroy();
      resolve(answer);
    };
    socket.setTimeout(60, end);
    socket.on('data', (bytes: Buffer) => (answer += bytes.toString('latin1')));
    socket.on('end', end);
    socket.on('error', end);
    socket.write(text, 'latin1');
  });
