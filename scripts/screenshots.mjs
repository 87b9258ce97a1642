#!/usr/bin/env node
// The pictures in docs/screenshots, made from fresh demo data in the real interface.
import { mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './build.mjs';
import { ensureChromium } from './chromium.mjs';
import { ensurePackages } from './packages.mjs';
import { startPostgres } from './postgres.mjs';
import { ROOT, runShown } from './run.mjs';

const DATA = join(ROOT, '.spur-test', 'screenshots');
ensurePackages();
ensureChromium();
await ensureBuilt();
mkdirSync(join(ROOT, 'docs/screenshots'), { recursive: true });
const server = await startPostgres(DATA, { isForTests: true });
try {
  await runShown('npx', ['tsx', 'e2e/support/take-screenshots.ts'], {
    ...process.env,
    SPUR_TEST_DATABASE: server.url('postgres'),
  });
} finally {
  server.stop();
  rmSync(DATA, { recursive: true, force: true });
}
