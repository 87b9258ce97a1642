import { execFile } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';

const run = promisify(execFile);

export interface Load {
  /** Requests a second. */
  readonly rate: number;
  /** The time within which 99 of 100 were answered, in milliseconds. */
  readonly p99: number;
}

/** Makes load by wrk, from one thread over 32 connections: the paths in turn, with these headers besides. */
export class Loader {
  readonly #folder = mkdtempSync(join(tmpdir(), 'spur-bench-'));

  /** A script of requests, to be run with `run`. */
  script(name: string, paths: readonly string[], headers: Readonly<Record<string, string>> = {}): string {
    const file = join(this.#folder, `${name}.lua`);
    const said = Object.entries(headers).map(
      ([header, value]) => `[${JSON.stringify(header)}] = ${JSON.stringify(value)}`,
    );
    writeFileSync(
      file,
      `local paths = { ${paths.map((path) => JSON.stringify(path)).join(', ')} }
local at = 0
request = function() at = at % #paths + 1; return wrk.format("GET", paths[at], { ["Accept-Encoding"] = "gzip", ${said.join(', ')} }) end
done = function(summary, latency) io.write(string.format("RESULT %d %d %d\\n", summary.requests / summary.duration * 1e6, summary.errors.status, latency:percentile(99))) end`,
    );
    return file;
  }

  /** @throws Error where one of the answers tells of a fault */
  async run(origin: string, script: string, seconds: number): Promise<Load> {
    const { stdout } = await run('wrk', ['-t1', '-c32', `-d${seconds}s`, '-s', script, origin]);
    const [, rate, errors, latency] = /RESULT (\d+) (\d+) (\d+)/.exec(stdout)!;
    if (Number(errors) > 0) throw new Error(`${errors} of the answers were not 200.`);
    return { rate: Number(rate), p99: Number(latency) / 1000 };
  }

  close(): void {
    rmSync(this.#folder, { recursive: true });
  }
}
