#!/usr/bin/env node
// Everything that is checked, on a machine that may have nothing but Node: formats, lints, types, layers, then the
// tests of the core, of the API on a real PostgreSQL, and of the interface in a real browser.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './build.mjs';
import { ensureChromium } from './chromium.mjs';
import { ensureNginx } from './nginx.mjs';
import { ensurePackages } from './packages.mjs';
import { startPostgres } from './postgres.mjs';
import { ROOT, Told, run, runBeside } from './run.mjs';

const DATA = join(ROOT, '.spur-test');
/**
 * What needs no server, in two rows beside each other: linting takes as long as all the others together.
 * @type {[string, string[]][][]}
 */
const CHECKS = [
  [['lints', ['eslint', '--max-warnings', '0', '.']]],
  [
    ['formats', ['prettier', '--check', '--log-level', 'warn', '.']],
    ['types', ['tsc', '-p', 'core']],
    ['types', ['tsc', '-p', 'tsconfig.node.json']],
    ['types', ['tsc', '-p', 'web']],
    [
      'layers',
      ['depcruise', 'core', 'contract', 'server', 'web', 'demo', 'e2e', '--config', '.dependency-cruiser.cjs'],
    ],
  ],
];

/** @param {[string, string[]][]} row */
async function check(row) {
  for (const [name, args] of row) {
    const began = Date.now();
    await runBeside('npx', args);
    console.log(`${name}: fine (${((Date.now() - began) / 1000).toFixed(1)} s)`);
  }
}

/** @type {{ stop: () => void } | null} */
let postgres = null;
let code = 0;
try {
  ensurePackages();
  await Promise.all(CHECKS.map(check));
  const server = await startPostgres(DATA, { isForTests: true });
  postgres = server;
  ensureChromium();
  await ensureBuilt();
  const env = {
    ...process.env,
    SPUR_TEST_DATABASE: server.url('postgres'),
    SPUR_TEST_NGINX: ensureNginx(DATA),
    NODE_ENV: 'test',
  };
  run('npx', ['vitest', 'run', ...process.argv.slice(2)], { show: true, env });
} catch (fault) {
  console.error(fault instanceof Told ? fault.message : fault);
  code = 1;
} finally {
  postgres?.stop();
  if (process.env.CI) rmSync(DATA, { recursive: true, force: true });
}
process.exit(code);
