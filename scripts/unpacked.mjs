import { existsSync, mkdirSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { isRoot, run } from './run.mjs';

/**
 * Unpacks packages of Debian's into a folder. They are not installed: a web server that is installed starts for the whole machine.
 * @param {string} folder @param {string} wanted a package @param {RegExp} [besides] which packages that it depends on come along
 */
function unpack(folder, wanted, besides) {
  console.log(`Unpacking ${wanted} from Debian's packages …`);
  mkdirSync(folder, { recursive: true });
  if (isRoot()) run('apt-get', ['update']);
  const needed = besides ? (run('apt-cache', ['depends', wanted]).match(besides) ?? []) : [];
  run('apt-get', ['download', wanted, ...new Set(needed)], { cwd: folder });
  for (const file of readdirSync(folder)) if (file.endsWith('.deb')) run('dpkg', ['-x', join(folder, file), folder]);
}

/**
 * A program of nginx: that of the machine, or one that is unpacked.
 * @param {string} folder @returns {string} the program's path
 */
export function ensureNginx(folder) {
  const system = '/usr/sbin/nginx';
  if (existsSync(system)) return system;
  const unpacked = join(folder, 'nginx');
  const program = join(unpacked, system);
  if (!existsSync(program)) unpack(unpacked, 'nginx');
  return program;
}

/**
 * Where Apache is unpacked, with the libraries that it needs besides the machine's own.
 * @param {string} folder @returns {string} the folder, which has `usr/sbin/apache2`
 */
export function ensureApache(folder) {
  const unpacked = join(folder, 'apache');
  if (existsSync(join(unpacked, 'usr/sbin/apache2'))) return unpacked;
  // Its libraries have other names in later versions of Debian.
  unpack(unpacked, 'apache2-bin', /\blibapr(?:util)?1(?:t64)?\b(?!-)/g);
  return unpacked;
}
