#!/usr/bin/env node
// Everything that is checked, on a machine that may have nothing but Node: formats, lints, types, layers, then the
// tests of the core, of the API on a real PostgreSQL, and of the interface in a real browser.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './build.mjs';
import { ensureChromium } from './chromium.mjs';
import { ensurePackages } from './packages.mjs';
import { startPostgres } from './postgres.mjs';
import { ROOT, Told, run } from './run.mjs';

const DATA = join(ROOT, '.spur-test');
/** @type {[string, string, string[]][]} */
const CHECKS = [
  ['formats', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']],
  ['lints', 'npx', ['eslint', '--max-warnings', '0', '.']],
  ['types', 'npx', ['tsc', '-p', 'core']],
  ['types', 'npx', ['tsc', '-p', 'tsconfig.node.json']],
  ['types', 'npx', ['tsc', '-p', 'web']],
  [
    'layers',
    'npx',
    ['depcruise', 'core', 'contract', 'server', 'web', 'demo', 'e2e', '--config', '.dependency-cruiser.cjs'],
  ],
];

/** @type {{ stop: () => void } | null} */
let postgres = null;
let code = 0;
try {
  ensurePackages();
  for (const [name, command, args] of CHECKS) {
    const began = Date.now();
    run(command, args, { show: true });
    console.log(`${name}: fine (${((Date.now() - began) / 1000).toFixed(1)} s)`);
  }
  const server = await startPostgres(DATA, { isForTests: true });
  postgres = server;
  ensureChromium();
  await ensureBuilt();
  const env = { ...process.env, SPUR_TEST_DATABASE: server.url('postgres'), NODE_ENV: 'test' };
  run('npx', ['vitest', 'run', ...process.argv.slice(2)], { show: true, env });
} catch (fault) {
  console.error(fault instanceof Told ? fault.message : fault);
  code = 1;
} finally {
  postgres?.stop();
  if (process.env.CI) rmSync(DATA, { recursive: true, force: true });
}
process.exit(code);
