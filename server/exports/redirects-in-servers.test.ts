import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { pathOfOldAddress } from '#core/carryover/old-address.ts';
import { type RedirectRule, writeRedirects } from '#core/formats/redirect-rules.ts';
import { type RunningApache, startApache } from '../testing/apache.ts';
import { askAsItStands } from '../testing/ask-as-it-stands.ts';
import { type RunningNginx, startNginx } from '../testing/nginx.ts';

/** Old addresses as they were asked for, and where each leads. */
const MOVED: readonly [asked: string, to: string][] = [
  ['/courses.php?id=3', '/courses'],
  ['/%C3%BCber', '/about'],
  ['/a%26b', '/a-and-b'],
  ['/a%2Fb%3Fc', '/slashed'],
  ['/100%25', '/all'],
  ['/with%20space', '/spaced'],
  ['/quote%22d;%7D', '/quoted'],
  ['/back%5Cslash', '/slanted'],
  ['/line%0Aserver_name%20x', '/broken'],
  ['/$host', '/dollar'],
  ['/~tilde', '/wave'],
];
const rules: RedirectRule[] = [
  ...MOVED.map(([asked, to]) => ({ address: asked, path: pathOfOldAddress(asked), to: `https://new.example${to}` })),
  { address: '/gone%22', path: pathOfOldAddress('/gone%22'), to: null },
  { address: '/odd', path: '/odd', to: 'https://new.example/a"b\nX-Hostile: yes' },
];

/** Starts a server with the rules as it reads them. */
const SERVERS: readonly [name: string, start: () => Promise<RunningNginx | RunningApache>][] = [
  [
    'nginx',
    () => {
      const [, http = '', server = ''] = writeRedirects('redirects.nginx', rules).split(
        /# In the (?:http|server) block:\n/,
      );
      return startNginx(given('SPUR_TEST_NGINX'), http, server);
    },
  ],
  ['Apache', () => startApache(given('SPUR_TEST_APACHE'), writeRedirects('redirects.apache', rules))],
];

function given(name: string): string {
  const path = process.env[name];
  if (!path) throw new Error('This test needs web servers: run it by `npm test -- server`.');
  return path;
}

// Where Debian's packages cannot be reached there is no Apache.
const THERE = SERVERS.filter(([name]) => name !== 'Apache' || process.env.SPUR_TEST_APACHE);

describe.each(THERE)('redirects as rules for %s, in a real one', (_, start) => {
  let running: RunningNginx | RunningApache;
  beforeAll(async () => {
    running = await start();
  });
  afterAll(() => running?.close());
  const ask = (path: string) => askAsItStands(running.origin, path);

  it.each(MOVED)('lead from %s to %s', async (asked, to) =>
    expect(await ask(asked)).toMatchObject({ status: 301, location: `https://new.example${to}` }),
  );

  it('say what is gone, and lead from no other address', async () => {
    expect((await ask('/gone%22')).status).toBe(410);
    for (const path of ['/server_name', '/host', '/quote', '/courses.php', '/courses.php?id=4', '/line'])
      expect([path, (await ask(path)).status]).toEqual([path, 404]);
  });

  it('put nothing into an answer but where it leads', async () => {
    expect(await ask('/odd')).toEqual({
      status: 301,
      location: 'https://new.example/a%22b%0AX-Hostile:%20yes',
      hostile: undefined,
    });
  });
});
