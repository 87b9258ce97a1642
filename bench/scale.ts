import { pino } from 'pino';
import { derivedOf } from '#core/derive/derived.ts';
import { liveSiteOf } from '#core/derive/live-site.ts';
import type { Site } from '#core/model/site.ts';
import { connect } from '#server/database/connect.ts';
import { Assets } from '#server/live/assets.ts';
import { LiveReading } from '#server/live/live-reading.ts';
import { LiveSites } from '#server/live/live-sites.ts';
import { ReadyAnswer } from '#server/live/ready-answer.ts';
import { Visits } from '#server/live/visits.ts';
import { SiteCache } from '#server/sites/site-cache.ts';
import { insertSite } from '#server/sites/site-repository.ts';
import { startNginx } from '#server/testing/nginx.ts';
import { generateSite } from './generate-site.ts';
import { Loader } from './load.ts';
import { type Result, median, ms } from './measure.ts';
import { type Running, startServer } from './processes.ts';
import { searchTexts } from './search.ts';

const ROUNDS = 5;
const SECONDS = 3;
const SITES = 10;
const PAGES = 2000;

interface Asked {
  readonly url: string;
  readonly env: Record<string, string>;
  readonly cookie: string;
  readonly account: string;
}

/**
 * What more processes give: requests and edits a second of two workbench and two visitors' processes behind nginx on one database,
 * beside one of each; what a site takes of a process's memory; and what the first visitor waits for of a site that has left it.
 */
export async function benchScale({ url, env, cookie, account }: Asked): Promise<Result[]> {
  const database = connect(url);
  const sites = Array.from({ length: SITES }, (_, at) => generateSite(PAGES, `scaled-${at}`, at + 1));
  for (const site of sites) await insertSite(database, site, account, searchTexts(site));
  await database.destroy();
  const workbenches = await startTwo('workbench/main.js', 'SPUR_PORT', 4495, env);
  const lives = await startTwo('live/main.js', 'SPUR_LIVE_PORT', 4497, env);
  const loader = new Loader();
  const ends: (() => unknown)[] = [...workbenches, ...lives].map(({ stop }) => stop);
  try {
    const paths = pathsOf(sites[0]!);
    const pages = loader.script('pages', paths);
    const edits = loader.edits('edits', sites, { Cookie: cookie });
    const visitors = await beside(lives, (origin) => loader.run(origin, pages, SECONDS), ends);
    const editors = await beside(workbenches, (origin) => loader.run(origin, edits, SECONDS), ends);
    const { memory, asleep } = await inMemory(url, sites);
    const limit = 200;
    return [
      rowOf(`Visitors’ page requests, two processes behind nginx, ${PAGES.toLocaleString('en')} pages`, visitors),
      rowOf(`Edits of ${SITES} sites by 32 at once, two processes behind nginx`, editors),
      {
        what: `The first page of a site of ${PAGES.toLocaleString('en')} pages that had left memory, the slowest of ${asleep.length} (median ${ms(median(asleep))})`,
        ours: ms(Math.max(...asleep)),
        limit: `${limit} ms`,
        ratio: Math.max(...asleep) / limit,
        aim: '≤ 1',
        isMet: Math.max(...asleep) <= limit,
      },
      ...memory.map(({ what, bytes }): Result => ({
        what: `Memory that a site of ${PAGES.toLocaleString('en')} pages takes of ${what}, mean of ${SITES}`,
        ours: `${(bytes / 1e6).toFixed(1)} MB`,
        limit: `${(bytes / PAGES / 1e3).toFixed(1)} kB a page`,
        ratio: Number.NaN,
        aim: 'told',
        isMet: true,
      })),
    ];
  } finally {
    loader.close();
    for (const end of ends.toReversed()) await end();
  }
}

/** Two processes on one database, who believe what nginx says of whom it asks for. */
async function startTwo(
  file: string,
  setting: string,
  port: number,
  env: Record<string, string>,
): Promise<[Running, Running]> {
  const start = (at: number) => startServer(file, { ...env, [setting]: String(at), SPUR_PROXIES: 'loopback' });
  return [await start(port), await start(port + 1)];
}

/** The paths of the pages that everybody may open. */
function pathsOf(site: Site): string[] {
  const { addresses, hiddenBy } = derivedOf(liveSiteOf(site));
  return addresses.flatMap((address, row) =>
    address !== null && hiddenBy[row] === -1 ? [`/${site.key}${address}`] : [],
  );
}

interface Beside {
  readonly one: number;
  readonly two: number;
  /** In milliseconds. */
  readonly p99: { readonly one: number; readonly two: number };
}

/** The rate of one process and of two, each behind nginx with the same settings, by turns. */
async function beside(
  processes: readonly [Running, Running],
  load: (origin: string) => Promise<{ rate: number; p99: number }>,
  ends: (() => unknown)[],
): Promise<Beside> {
  const inFrontOf = async (...behind: Running[]) => {
    const servers = behind.map(({ port }) => `server 127.0.0.1:${port};`).join(' ');
    const nginx = await startNginx(
      process.env.SPUR_TEST_NGINX!,
      `upstream spur { ${servers} keepalive 64; }`,
      `location / { proxy_pass http://spur; proxy_http_version 1.1; proxy_set_header Connection ""; proxy_set_header Host $http_host;
       proxy_set_header X-Forwarded-For $remote_addr; }`,
    );
    ends.push(nginx.close);
    return nginx.origin;
  };
  const origins = { one: await inFrontOf(processes[0]), two: await inFrontOf(...processes) };
  const rates = { one: [] as number[], two: [] as number[] };
  const p99 = { one: [] as number[], two: [] as number[] };
  for (let round = 0; round <= ROUNDS; round++) {
    // Whoever comes second finds the machine as the first has left it.
    for (const who of round % 2 === 0 ? (['one', 'two'] as const) : (['two', 'one'] as const)) {
      const measured = await load(origins[who]);
      if (round === 0) continue;
      rates[who].push(measured.rate);
      p99[who].push(measured.p99);
    }
  }
  return {
    one: median(rates.one),
    two: median(rates.two),
    p99: { one: median(p99.one), two: median(p99.two) },
  };
}

const rowOf = (what: string, { one, two, p99 }: Beside): Result => ({
  what: `${what} (p99 ${p99.two.toFixed(1)} and ${p99.one.toFixed(1)} ms)`,
  ours: `${two.toLocaleString('en')}/s`,
  limit: `${one.toLocaleString('en')}/s, one process behind the same`,
  ratio: two / one,
  aim: 'told',
  isMet: true,
});

/** What each of some sites takes of a process's memory, in bytes; and what its first page takes once it has left it, in milliseconds. */
async function inMemory(
  url: string,
  sites: readonly Site[],
): Promise<{ memory: { what: string; bytes: number }[]; asleep: number[] }> {
  const database = connect(url);
  const visits = new Visits(database, pino({ level: 'silent' }), () => new Date());
  const live = new LiveSites(new LiveReading(database), 'http://bench.example', await Assets.load(), visits);
  const cache = new SiteCache(database);
  const ask = async (path: string) => {
    const [, key = '', rest = ''] = /^\/([^/]*)(.*)$/.exec(path)!;
    const answer = await live.answer(key, rest);
    if (!(answer instanceof ReadyAnswer) || answer.status !== 200) throw new Error(`${path} is no page.`);
    await answer.prepare(['gzip']);
  };
  const forget = () => {
    live.forgetUnasked();
    live.forgetUnasked();
  };
  const paths = sites.map(pathsOf);
  const [first = []] = paths;
  // What all sites need is there before anything is measured.
  for (const path of first) await ask(path);
  await cache.current(sites[0]!.key);
  forget();
  if (live.ready(first[0]!)) throw new Error('The sites have not left memory.');
  const begin = memoryTaken();
  for (const [path] of paths) await ask(path!);
  const withFirst = memoryTaken();
  for (const path of paths.flat()) await ask(path);
  const withAll = memoryTaken();
  const asleep: number[] = [];
  for (let round = 0; round < 3; round++) {
    forget();
    for (const [path] of paths) {
      const began = performance.now();
      await ask(path!);
      asleep.push(performance.now() - began);
    }
  }
  forget();
  const before = memoryTaken();
  for (const { key } of sites.slice(1)) await cache.current(key);
  const ofWorkbench = memoryTaken() - before;
  await database.destroy();
  return {
    memory: [
      { what: 'a visitors’ process, when one page was asked for', bytes: (withFirst - begin) / sites.length },
      { what: 'a visitors’ process, when every page was asked for', bytes: (withAll - begin) / sites.length },
      { what: 'a workbench process', bytes: ofWorkbench / (sites.length - 1) },
    ],
    asleep,
  };
}

/** What is in use, in bytes, once nothing is left that could be thrown away. */
function memoryTaken(): number {
  global.gc!();
  global.gc!();
  const { heapUsed, external } = process.memoryUsage();
  return heapUsed + external;
}
