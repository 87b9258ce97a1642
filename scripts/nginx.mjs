import { existsSync, mkdirSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { isRoot, run } from './run.mjs';

const SYSTEM = '/usr/sbin/nginx';

/**
 * A program of nginx: that of the machine, or one unpacked into a folder from Debian's package. It is not installed, since that would
 * start a web server for the whole machine.
 * @param {string} folder @returns {string} the program's path
 */
export function ensureNginx(folder) {
  if (existsSync(SYSTEM)) return SYSTEM;
  const unpacked = join(folder, 'nginx');
  const program = join(unpacked, SYSTEM);
  if (existsSync(program)) return program;
  console.log("Unpacking nginx from Debian's packages …");
  mkdirSync(unpacked, { recursive: true });
  if (isRoot()) run('apt-get', ['update']);
  run('apt-get', ['download', 'nginx'], { cwd: unpacked });
  const file = readdirSync(unpacked).find((name) => name.endsWith('.deb')) ?? '';
  run('dpkg', ['-x', join(unpacked, file), unpacked]);
  return program;
}
