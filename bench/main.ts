import { randomUUID } from 'node:crypto';
import { parseArgs } from 'node:util';
import { derivedOf } from '#core/derive/derived.ts';
import { liveSiteOf } from '#core/derive/live-site.ts';
import { makeAccount } from '#server/accounts/account-service.ts';
import { connect } from '#server/database/connect.ts';
import { migrate } from '#server/database/migrate.ts';
import { hashOfPassword } from '#server/security/passwords.ts';
import { insertVisitor } from '#server/visitors/visitor-repository.ts';
import { insertSite } from '#server/sites/site-repository.ts';
import { benchAccess } from './access.ts';
import { benchAccessCheck } from './access-check.ts';
import { type BrowserAims, benchBrowser } from './browser.ts';
import { benchCarryOver } from './carry-over.ts';
import { benchDerive } from './derive.ts';
import { benchEdit } from './edit.ts';
import { benchFaults } from './faults.ts';
import { benchFuzz } from './fuzz.ts';
import { benchFiles } from './files.ts';
import { generateSite } from './generate-site.ts';
import type { Result } from './measure.ts';
import { benchHistories } from './histories.ts';
import { benchMenus } from './menus.ts';
import { benchOpen } from './open.ts';
import { startServer } from './processes.ts';
import { benchPublicFiles } from './public-files.ts';
import { benchPublish } from './publish.ts';
import { benchScale } from './scale.ts';
import { benchSearch, searchTexts } from './search.ts';
import { benchVisitors } from './visitors.ts';
import { putColleague } from '#server/people/people-repository.ts';
import { SHIPPED_ROLES } from '#core/people/role.ts';
import { benchPeople, rolesInBranches } from './people.ts';
import { benchTogether } from './together.ts';
import { benchLists } from './lists.ts';
import { benchWriting } from './writing.ts';

const EMAIL = 'bench@spur.example';
const PASSWORD = 'a-benchmark-password';
const SIZE = 10_000;
const LARGE = 100_000;
const AIMS: BrowserAims = { firstRows: 1000, filter: 100, map: 1000 };
const LARGE_AIMS: BrowserAims = { firstRows: 3000, filter: 200, map: 1500 };

const { values } = parseArgs({ options: { only: { type: 'string' }, markdown: { type: 'boolean' } } });
const wants = (name: string) => values.only === undefined || values.only === name;
const results: Result[] = [];

if (wants('derive')) results.push(...benchDerive());
if (wants('access')) results.push(...benchAccess());
if (wants('people')) results.push(...benchPeople());
if (wants('lists')) results.push(...benchLists());
if (wants('menus')) results.push(...benchMenus());
if (wants('histories')) results.push(...benchHistories());
// Ten minutes of killing: only where it is asked for.
if (values.only === 'faults') results.push(...(await benchFaults()));
if (wants('carry-over')) results.push(...benchCarryOver());
if (
  [
    'edit',
    'publish',
    'visitors',
    'nginx',
    'search',
    'open',
    'browser',
    'writing',
    'large',
    'files',
    'fuzz',
    'together',
    'scale',
  ].some(wants)
) {
  const url = process.env.DATABASE_URL!;
  const database = connect(url);
  await migrate(database);
  const account = await makeAccount(
    database,
    { name: 'Bench', email: EMAIL, password: PASSWORD, looksAfterAll: true },
    false,
  );
  const site = generateSite(SIZE);
  await insertSite(database, site, account.id);
  await insertVisitor(database, {
    id: randomUUID(),
    site: site.key,
    name: 'Bench',
    email: EMAIL,
    password_hash: await hashOfPassword(PASSWORD),
    audiences: [],
    is_suspended: false,
    made_at: new Date(),
  });
  const editor = await makeAccount(
    database,
    { name: 'Editor', email: `editor-${EMAIL}`, password: PASSWORD, looksAfterAll: false },
    false,
  );
  const shaping = SHIPPED_ROLES.slice(2);
  await putColleague(database, site.key, editor.id, rolesInBranches(site, 50, shaping));
  await database.destroy();
  const env = { DATABASE_URL: url, SPUR_PORT: '4490', SPUR_LIVE_PORT: '4491', SPUR_OLD_SITE_PORT: '4492' };
  const workbench = await startServer('workbench/main.js', env);
  const live = await startServer('live/main.js', env);
  try {
    const origin = `http://127.0.0.1:${workbench.port}`;
    const cookieOf = async (email: string) => {
      const signedIn = await fetch(`${origin}/api/session`, {
        method: 'POST',
        headers: { Origin: origin, 'Content-Type': 'application/json' },
        body: JSON.stringify({ email, password: PASSWORD }),
      });
      return signedIn.headers.getSetCookie()[0]!.split(';')[0]!;
    };
    const cookie = await cookieOf(EMAIL);
    const post = async (path: string, body: object) => {
      const answer = await fetch(origin + path, {
        method: 'POST',
        headers: { Origin: origin, Cookie: cookie, 'Content-Type': 'application/json' },
        body: JSON.stringify(body),
      });
      if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`);
    };
    if (wants('open')) results.push(...(await benchOpen(workbench.port, cookie, site.key, SIZE)));
    if (wants('edit'))
      results.push(...(await benchEdit(url, workbench.port, cookie, site, await cookieOf(`editor-${EMAIL}`))));
    if (wants('together')) {
      const other = await startServer('workbench/main.js', { ...env, SPUR_PORT: '4494' });
      const origins = [origin, `http://127.0.0.1:${other.port}`] as const;
      results.push(...(await benchTogether({ url, origins, cookie, site })));
      await other.stop();
    }
    if (wants('scale')) results.push(...(await benchScale({ url, env, cookie, account: account.id })));
    if (wants('publish')) {
      const again = connect(url);
      results.push(...(await benchPublish(again, account.id, post)));
      await again.destroy();
    }
    const { addresses, hiddenBy } = derivedOf(liveSiteOf(site));
    const paths = addresses
      .flatMap((address, row) => (address !== null && hiddenBy[row] === -1 ? [`/${site.key}${address}`] : []))
      .slice(0, 2000);
    if (wants('nginx')) results.push(...(await benchPublicFiles({ ...env, SPUR_LIVE_PORT: '4493' }, site.key, paths)));
    if (wants('visitors')) {
      const at = `http://127.0.0.1:${live.port}`;
      const entered = await fetch(`${at}/${site.key}/sign-in`, {
        method: 'POST',
        headers: { Origin: at, 'Content-Type': 'application/x-www-form-urlencoded' },
        body: new URLSearchParams({ email: EMAIL, password: PASSWORD }),
        redirect: 'manual',
      });
      const token = entered.headers.getSetCookie()[0]!.split(';')[0]!;
      let round = 0;
      const release = async () => {
        const page = [...site.nodes.keys()].at(-1)!;
        const fields = { description: { en: `Release ${++round}` } };
        await post(`/api/sites/${site.key}/operations`, { operations: [{ name: 'page.set', page, fields }] });
        await post(`/api/sites/${site.key}/releases`, { pages: [page], settings: [] });
      };
      const check = await benchAccessCheck(url, paths, token);
      results.push(...(await benchVisitors(live, paths, token, release, check)));
    }
    if (wants('search')) {
      const searched = generateSite(SIZE, 'searched');
      const again = connect(url);
      await insertSite(again, searched, account.id, searchTexts(searched));
      results.push(...(await benchSearch(again, live.port, searched)));
      await again.destroy();
    }
    // Minutes of it: only where it is asked for.
    if (values.only === 'fuzz') results.push(...(await benchFuzz(url, origin, cookie)));
    const asked = { origin, email: EMAIL, password: PASSWORD };
    if (wants('browser')) results.push(...(await benchBrowser({ ...asked, site: site.key, size: SIZE, aims: AIMS })));
    if (wants('writing')) {
      const liveOrigin = `http://127.0.0.1:${live.port}`;
      results.push(...(await benchWriting({ ...asked, liveOrigin, site: site.key, cookie, post })));
    }
    // Minutes of making sizes: only where it is asked for.
    if (values.only === 'files')
      results.push(...(await benchFiles({ origin, site: site.key, cookie, pid: workbench.pid })));
    if (wants('large')) {
      const large = generateSite(LARGE);
      const again = connect(url);
      await insertSite(again, large, account.id);
      await again.destroy();
      results.push(...(await benchBrowser({ ...asked, site: large.key, size: LARGE, aims: LARGE_AIMS })));
    }
  } finally {
    await Promise.all([workbench.stop(), live.stop()]);
  }
}

const rows = [
  ['What', 'Spur', 'Beside', 'Ratio', 'Aim', ''],
  ...results.map((one) => [
    one.what,
    one.ours,
    one.limit,
    Number.isNaN(one.ratio) ? '–' : one.ratio.toFixed(2),
    one.aim,
    one.isMet ? '' : 'missed',
  ]),
];
if (values.markdown) {
  const line = (row: readonly string[]) => `| ${row.join(' | ')} |`;
  console.log([line(rows[0]!), line(rows[0]!.map(() => '---')), ...rows.slice(1).map(line)].join('\n'));
  process.exit();
}
const widths = rows[0]!.map((_, column) => Math.max(...rows.map((row) => row[column]!.length)));
for (const [index, row] of rows.entries()) {
  console.log(
    row
      .map((cell, column) => cell.padEnd(widths[column]!))
      .join('  ')
      .trimEnd(),
  );
  if (index === 0) console.log(widths.map((width) => '─'.repeat(width)).join('  '));
}
