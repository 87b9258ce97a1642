import { execFile } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type { Site } from '#core/model/site.ts';

const run = promisify(execFile);

export interface Load {
  /** Requests a second. */
  readonly rate: number;
  /** The time within which 99 of 100 were answered, in milliseconds. */
  readonly p99: number;
}

/** So many pages of each site are edited. */
const PAGES_EDITED = 200;

const inLua = (headers: Readonly<Record<string, string>>): string =>
  Object.entries(headers)
    .map(([header, value]) => `[${JSON.stringify(header)}] = ${JSON.stringify(value)}`)
    .join(', ');

/** Makes load by wrk, from one thread over 32 connections: the paths in turn, with these headers besides. */
export class Loader {
  readonly #folder = mkdtempSync(join(tmpdir(), 'spur-bench-'));

  /** A script of requests, to be run with `run`. */
  script(name: string, paths: readonly string[], headers: Readonly<Record<string, string>> = {}): string {
    return this.#written(
      name,
      `local paths = { ${paths.map((path) => JSON.stringify(path)).join(', ')} }
local at = 0
request = function() at = at % #paths + 1; return wrk.format("GET", paths[at], { ["Accept-Encoding"] = "gzip", ${inLua(headers)} }) end`,
    );
  }

  /** A script of edits: pages of the sites in turn get another title. */
  edits(name: string, sites: readonly Site[], headers: Readonly<Record<string, string>>): string {
    const pages = sites.map(({ nodes }) => [...nodes.keys()].slice(0, PAGES_EDITED));
    const targets = Array.from({ length: PAGES_EDITED }, (_, at) => at).flatMap((at) =>
      sites.map(({ key }, which) => `{ ${JSON.stringify(key)}, ${JSON.stringify(pages[which]![at])} }`),
    );
    return this.#written(
      name,
      `local targets = { ${targets.join(', ')} }
local at = 0
request = function()
  at = at + 1
  local target = targets[at % #targets + 1]
  local body = string.format('{"operations":[{"name":"page.set","page":"%s","fields":{"title":{"en":"Title %d"}}}]}', target[2], at)
  local origin = wrk.scheme .. "://" .. wrk.host .. ":" .. wrk.port
  return wrk.format("POST", "/api/sites/" .. target[1] .. "/operations", { ["Content-Type"] = "application/json", ["Origin"] = origin, ${inLua(headers)} }, body)
end`,
    );
  }

  #written(name: string, requests: string): string {
    const file = join(this.#folder, `${name}.lua`);
    writeFileSync(
      file,
      `${requests}
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
