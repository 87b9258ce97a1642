import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startNginx } from '#server/testing/nginx.ts';
import { Loader } from './load.ts';
import { type Result, median } from './measure.ts';
import { startServer } from './processes.ts';

const ROUNDS = 5;
const SECONDS = 3;

/**
 * Page requests a second to nginx in front of Spur, which answers them from files, beside nginx with the same settings, headers
 * and bytes that is asked for the files by their names, so that it has nothing to find out: one worker each.
 * @param env with which the visitors' side starts @param paths of pages that everyone may see
 */
export async function benchPublicFiles(
  env: Record<string, string>,
  site: string,
  paths: readonly string[],
): Promise<Result[]> {
  const program = process.env.SPUR_TEST_NGINX!;
  const folder = mkdtempSync(join(tmpdir(), 'spur-public-'));
  const live = await startServer('live/main.js', { ...env, SPUR_PUBLIC_FILES: folder });
  const began = performance.now();
  while (!existsSync(join(folder, site))) await new Promise((resolve) => setTimeout(resolve, 50));
  const laid = (performance.now() - began) / 1000;
  const config = (name: string) => readFileSync(join(folder, name), 'utf8');
  const ours = await startNginx(program, config('nginx-http.conf'), config('nginx-server.conf'));
  const plain = await startNginx(
    program,
    config('nginx-http.conf'),
    // The same configuration, without the line that finds the file of an address.
    config('nginx-server.conf').replace(/^ *rewrite .*\n/m, ''),
  );
  const loader = new Loader();
  const fileOf = (path: string) => `${path}~.html.gz`;
  const [byAddress, byFile] = [loader.script('pages', paths), loader.script('files', paths.map(fileOf))];
  const rates = { ours: [] as number[], plain: [] as number[] };
  const p99 = { ours: [] as number[], plain: [] as number[] };
  const both = [
    ['ours', ours.origin, byAddress],
    ['plain', plain.origin, byFile],
  ] as const;
  try {
    await expectSameAnswer(ours.origin + paths[0]!, plain.origin + fileOf(paths[0]!));
    for (let round = 0; round <= ROUNDS; round++) {
      // Whoever comes second finds the machine as the first has left it.
      for (const [who, origin, script] of round % 2 === 0 ? both : both.toReversed()) {
        const load = await loader.run(origin, script, SECONDS);
        if (round === 0) continue;
        rates[who].push(load.rate);
        p99[who].push(load.p99);
      }
    }
  } finally {
    loader.close();
    await Promise.all([ours.close(), plain.close(), live.stop()]);
    rmSync(folder, { recursive: true, force: true });
  }
  const ratio = median(rates.ours) / median(rates.plain);
  return [
    {
      what: `Visitors’ page requests to nginx in front, ${paths.length.toLocaleString('en')} pages (p99 ${median(p99.ours).toFixed(1)} and ${median(p99.plain).toFixed(1)} ms; the files of the whole site were there after ${laid.toFixed(0)} s)`,
      ours: `${median(rates.ours).toLocaleString('en')}/s`,
      limit: `${median(rates.plain).toLocaleString('en')}/s, nginx with the same settings on the files by name`,
      ratio,
      aim: '≥ 0.9',
      isMet: ratio >= 0.9,
    },
  ];
}

/** @throws Error where the two do not answer with the same bytes and the same headers: then they cannot be compared. */
async function expectSameAnswer(one: string, other: string): Promise<void> {
  const [a, b] = await Promise.all([one, other].map(answerAt));
  if (a !== b) throw new Error(`nginx does not answer ${one} as ${other}:\n${a!.slice(0, 600)}\n${b!.slice(0, 600)}`);
}

async function answerAt(address: string): Promise<string> {
  const answer = await fetch(address, { headers: { 'Accept-Encoding': 'gzip' } });
  const headers = [...answer.headers].filter(([name]) => name !== 'date').map((pair) => pair.join(': '));
  return [answer.status, ...headers, '', await answer.text()].join('\n');
}
