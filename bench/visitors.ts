import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Result, median } from './measure.ts';
import { type Running, startServer } from './processes.ts';

const ROUNDS = 5;

/**
 * Page requests a second, one process each, of nobody who is known and of somebody who is signed in, beside a bare
 * `node:http` handler with the same compressed bytes.
 */
export async function benchVisitors(live: Running, paths: readonly string[], cookie: string): Promise<Result[]> {
  const folder = mkdtempSync(join(tmpdir(), 'spur-bench-'));
  const scriptWith = (name: string, headers: string) => {
    const file = join(folder, name);
    writeFileSync(
      file,
      `local paths = { ${paths.map((path) => JSON.stringify(path)).join(', ')} }
local at = 0
request = function() at = at % #paths + 1; return wrk.format("GET", paths[at], { ["Accept-Encoding"] = "gzip"${headers} }) end
done = function(summary, latency) io.write(string.format("RESULT %d %d %d\\n", summary.requests / summary.duration * 1e6, summary.errors.status, latency:percentile(99))) end`,
    );
    return file;
  };
  const plain = scriptWith('paths.lua', '');
  const signedIn = scriptWith('signed-in.lua', `, ["Cookie"] = ${JSON.stringify(cookie)}`);
  const bare = await startServer('bench/bare-server.js', {}, { from: `http://127.0.0.1:${live.port}`, paths });
  const rates = { ours: [] as number[], signedIn: [] as number[], bare: [] as number[] };
  const p99 = { ours: [] as number[], signedIn: [] as number[], bare: [] as number[] };
  try {
    for (let round = 0; round <= ROUNDS; round++) {
      for (const [who, port, script] of [
        ['ours', live.port, plain],
        ['signedIn', live.port, signedIn],
        ['bare', bare.port, plain],
      ] as const) {
        const said = execFileSync(
          'wrk',
          ['-t1', '-c32', round === 0 ? '-d2s' : '-d3s', '-s', script, `http://127.0.0.1:${port}`],
          { encoding: 'utf8' },
        );
        const [, rate, errors, latency] = /RESULT (\d+) (\d+) (\d+)/.exec(said)!;
        if (Number(errors) > 0) throw new Error(`${errors} of the answers were not 200.`);
        if (round === 0) continue;
        rates[who].push(Number(rate));
        p99[who].push(Number(latency) / 1000);
      }
    }
  } finally {
    await bare.stop();
    rmSync(folder, { recursive: true });
  }
  const ratio = median(rates.ours) / median(rates.bare);
  const signedInRatio = median(rates.signedIn) / median(rates.ours);
  const figure = (who: keyof typeof rates) => `${median(rates[who]).toLocaleString('en')}/s`;
  return [
    {
      what: `Visitors’ page requests, ${paths.length.toLocaleString('en')} pages (p99 ${median(p99.ours).toFixed(1)} and ${median(p99.bare).toFixed(1)} ms)`,
      ours: figure('ours'),
      limit: `${figure('bare')}, bare node:http`,
      ratio,
      aim: '≥ 0.8',
      isMet: ratio >= 0.8,
    },
    {
      what: `The same of a visitor who is signed in (p99 ${median(p99.signedIn).toFixed(1)} ms)`,
      ours: figure('signedIn'),
      limit: `${figure('ours')}, of nobody who is known`,
      ratio: signedInRatio,
      aim: '≥ 0.5',
      isMet: signedInRatio >= 0.5,
    },
  ];
}
