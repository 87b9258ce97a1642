import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, run } from './run.mjs';

/** Installs the packages of the lock file where they are missing or older than it. */
export function ensurePackages() {
  const stamp = join(ROOT, 'node_modules', '.spur-installed');
  const wanted = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  console.log('Installing the packages (about a minute) …');
  run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
  writeFileSync(stamp, wanted);
}
