#!/usr/bin/env node
// Benchmarks: each figure of Spur beside a limit that is measured in the same run, in one table of ratios.
import { cpSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './build.mjs';
import { ensureChromium } from './chromium.mjs';
import { ensureNginx } from './unpacked.mjs';
import { ensurePackages } from './packages.mjs';
import { ensureDatabase, startPostgres } from './postgres.mjs';
import { ROOT, StatedError, installDebianPackages, runShown, works } from './run.mjs';

const DATA = join(ROOT, '.spur-test', 'bench');
/** @type {{ stop: () => void } | null} */
let postgres = null;
let code = 0;
try {
  ensurePackages();
  ensureChromium();
  if (!works('sh', ['-c', 'command -v wrk'])) installDebianPackages(['wrk'], 'wrk, which makes the load');
  await ensureBuilt();
  const { build } = await import('esbuild');
  await build({
    absWorkingDir: ROOT,
    entryPoints: { 'bench/main': 'bench/main.ts', 'bench/bare-server': 'bench/bare-server.ts' },
    outdir: 'dist',
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    packages: 'external',
    logLevel: 'warning',
  });
  cpSync(join(ROOT, 'server/live/assets'), join(ROOT, 'dist/bench/assets'), { recursive: true });
  // With fsync, as in earnest: an edit counts when it is durable.
  const server = await startPostgres(DATA);
  postgres = server;
  const url = await ensureDatabase(server, 'spur_bench', true);
  await runShown('node', ['--expose-gc', 'dist/bench/main.js', ...process.argv.slice(2)], {
    ...process.env,
    DATABASE_URL: url,
    SPUR_TEST_NGINX: ensureNginx(DATA),
    SPUR_FILES: join(DATA, 'files'),
  });
} catch (fault) {
  console.error(fault instanceof StatedError ? fault.message : fault);
  code = 1;
} finally {
  postgres?.stop();
  rmSync(DATA, { recursive: true, force: true });
}
process.exit(code);
