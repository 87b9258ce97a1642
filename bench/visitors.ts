import type { AccessCheck } from './access-check.ts';
import { Loader } from './load.ts';
import { type Result, median } from './measure.ts';
import { type Running, startServer } from './processes.ts';

const ROUNDS = 5;
const SECONDS = 3;

/**
 * Page requests a second, one process each, of nobody who is known and of somebody who is signed in, beside a bare
 * `node:http` handler with the same compressed bytes; and how long they take while a release goes live.
 * @param release makes a release of the site
 * @param check what finding out who asks and what they get takes, of a request's time
 */
export async function benchVisitors(
  live: Running,
  paths: readonly string[],
  cookie: string,
  release: () => Promise<void>,
  check: AccessCheck,
): Promise<Result[]> {
  const loader = new Loader();
  const [plain, signedIn] = [loader.script('plain', paths), loader.script('signed-in', paths, { Cookie: cookie })];
  const bare = await startServer('bench/bare-server.js', {}, { from: `http://127.0.0.1:${live.port}`, paths });
  const rates = { ours: [] as number[], signedIn: [] as number[], bare: [] as number[] };
  const p99 = { ours: [] as number[], signedIn: [] as number[], bare: [] as number[], released: [] as number[] };
  try {
    for (let round = 0; round <= ROUNDS; round++) {
      for (const [who, port, script] of [
        ['ours', live.port, plain],
        ['signedIn', live.port, signedIn],
        ['bare', bare.port, plain],
      ] as const) {
        const load = await loader.run(`http://127.0.0.1:${port}`, script, SECONDS);
        if (round === 0) continue;
        rates[who].push(load.rate);
        p99[who].push(load.p99);
      }
    }
    // The pages are ready again after each release before the next round begins.
    for (let round = 0; round <= ROUNDS; round++) {
      const loading = loader.run(`http://127.0.0.1:${live.port}`, plain, SECONDS);
      await new Promise((resolve) => setTimeout(resolve, 500));
      await release();
      const load = await loading;
      if (round > 0) p99.released.push(load.p99);
      await loader.run(`http://127.0.0.1:${live.port}`, plain, SECONDS);
    }
  } finally {
    await bare.stop();
    loader.close();
  }
  const ratio = median(rates.ours) / median(rates.bare);
  const signedInRatio = median(rates.signedIn) / median(rates.ours);
  const releaseRatio = median(p99.released) / median(p99.ours);
  const shares = [
    ['of nobody who is known', check.anybody, median(rates.ours)],
    ['of a visitor who is signed in', check.signedIn, median(rates.signedIn)],
  ] as const;
  const figure = (who: keyof typeof rates) => `${median(rates[who]).toLocaleString('en')}/s`;
  return [
    {
      what: `Visitors’ page requests, ${paths.length.toLocaleString('en')} pages (p99 ${median(p99.ours).toFixed(1)} and ${median(p99.bare).toFixed(1)} ms)`,
      ours: figure('ours'),
      limit: `${figure('bare')}, bare node:http`,
      ratio,
      aim: '≥ 0.9',
      isMet: ratio >= 0.9,
    },
    {
      what: `The same of a visitor who is signed in (p99 ${median(p99.signedIn).toFixed(1)} ms)`,
      ours: figure('signedIn'),
      limit: `${figure('ours')}, of nobody who is known`,
      ratio: signedInRatio,
      aim: '≥ 0.8',
      isMet: signedInRatio >= 0.8,
    },
    ...shares.map(([who, took, rate]): Result => ({
      what: `Finding out who asks and what they get, ${who}`,
      ours: `${took.toFixed(2)} µs`,
      limit: `${(1e6 / rate).toFixed(1)} µs, the whole request`,
      ratio: (took * rate) / 1e6,
      aim: '≤ 0.05',
      isMet: (took * rate) / 1e6 <= 0.05,
    })),
    {
      what: `The time in which 99 of 100 are answered, in ${SECONDS} s with a release among them`,
      ours: `${median(p99.released).toFixed(1)} ms`,
      limit: `${median(p99.ours).toFixed(1)} ms, without`,
      ratio: releaseRatio,
      aim: '≤ 2',
      isMet: releaseRatio <= 2,
    },
  ];
}
