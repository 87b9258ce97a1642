#!/usr/bin/env node
// The pictures in docs/screenshots, made from fresh demo data in the real interface.
import { mkdirSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './build.mjs';
import { ensureChromium } from './chromium.mjs';
import { ensurePackages } from './packages.mjs';
import { startPostgres } from './postgres.mjs';
import { ROOT, installDebianPackages, run, runShown, works } from './run.mjs';

const DATA = join(ROOT, '.spur-test', 'screenshots');
ensurePackages();
ensureChromium();
if (!works('pngquant', ['--version'])) installDebianPackages(['pngquant'], 'pngquant, which makes pictures small');
await ensureBuilt();
mkdirSync(join(ROOT, 'docs/screenshots'), { recursive: true });
const server = await startPostgres(DATA, { isForTests: true });
try {
  await runShown('npx', ['tsx', 'e2e/support/take-screenshots.ts'], {
    ...process.env,
    SPUR_TEST_DATABASE: server.url('postgres'),
  });
  // 256 colours are enough for screens, in less than half of the bytes.
  const folder = join(ROOT, 'docs/screenshots');
  const pictures = readdirSync(folder).map((name) => join(folder, name));
  run('pngquant', ['--force', '--strip', '--ext', '.png', '--speed', '1', ...pictures]);
} finally {
  server.stop();
  rmSync(DATA, { recursive: true, force: true });
}
