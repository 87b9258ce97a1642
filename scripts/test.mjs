#!/usr/bin/env node
// Everything that is checked, on a machine that may have nothing but Node: formats, lints, types, layers, then the tests of
// the core, of the API on a real PostgreSQL, and of the interface in a real browser. `npm test -- core` runs one part of them.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './build.mjs';
import { ensureChromium } from './chromium.mjs';
import { ensureApache, ensureNginx } from './unpacked.mjs';
import { ensurePackages } from './packages.mjs';
import { startPostgres } from './postgres.mjs';
import { ROOT, StatedError, runBeside, runShown } from './run.mjs';

const DATA = join(ROOT, '.spur-test');
/** The parts of the tests, and whether they need PostgreSQL, the build and the browser. */
const PARTS = { core: false, web: false, server: true, browser: true };
/** Several times as quick as the release before it, which stays because the lints need its interface. */
const TYPESCRIPT = join(ROOT, 'node_modules/typescript-7/bin/tsc');
/**
 * What needs no server, the longest first: two at a time, as there are two cores at least.
 * @type {[string, [string, ...string[]]][]}
 */
const CHECKS = [
  ['lints', ['npx', 'eslint', '--max-warnings', '0', '.']],
  ['formats', ['npx', 'prettier', '--check', '--log-level', 'warn', '.']],
  [
    'layers',
    ['npx', 'depcruise', 'core', 'contract', 'server', 'web', 'demo', 'e2e', '--config', '.dependency-cruiser.cjs'],
  ],
  ['types', ['node', TYPESCRIPT, '-p', 'tsconfig.node.json']],
  ['types', ['node', TYPESCRIPT, '-p', 'web']],
  ['types', ['node', TYPESCRIPT, '-p', 'core']],
];

async function check() {
  const waiting = [...CHECKS];
  const work = async () => {
    for (let next = waiting.shift(); next; next = waiting.shift()) {
      const [name, [command, ...args]] = next;
      const began = Date.now();
      await runBeside(command, args);
      console.log(`${name}: fine (${((Date.now() - began) / 1000).toFixed(1)} s)`);
    }
  };
  await Promise.all([work(), work()]);
}

const [first = '', ...others] = process.argv.slice(2);
const part = first === 'checks' || first in PARTS ? first : '';
const rest = part ? others : process.argv.slice(2);
/** @type {{ stop: () => void } | null} */
let postgres = null;
let code = 0;
try {
  ensurePackages();
  if (part === '' || part === 'checks') await check();
  if (part !== 'checks') {
    /** @type {NodeJS.ProcessEnv} */
    const env = { ...process.env, NODE_ENV: 'test' };
    if (part === '' || PARTS[/** @type {keyof typeof PARTS} */ (part)]) {
      const server = await startPostgres(DATA, { isForTests: true });
      postgres = server;
      ensureChromium();
      await ensureBuilt();
      env.SPUR_TEST_DATABASE = server.url('postgres');
      env.SPUR_TEST_NGINX = ensureNginx(DATA);
      try {
        env.SPUR_TEST_APACHE = ensureApache(DATA);
      } catch (fault) {
        // One test file needs it, for half of its cases: they are passed over, and say so.
        console.error(fault instanceof StatedError ? fault.message : fault);
      }
    }
    await runShown('npx', ['vitest', 'run', ...(part ? ['--project', part] : []), ...rest], env);
  }
} catch (fault) {
  console.error(fault instanceof StatedError ? fault.message : fault);
  code = 1;
} finally {
  postgres?.stop();
  if (process.env.CI) rmSync(DATA, { recursive: true, force: true });
}
process.exit(code);
