import { spawn } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort, untilItAnswers } from './web-server.ts';

export interface RunningApache {
  readonly origin: string;
  readonly close: () => Promise<void>;
}

/**
 * Starts Apache on a port of its own with rules in the folder's own file, as a host that gives no other access has them, and waits until
 * it answers. @param folder where Apache is unpacked
 */
export async function startApache(folder: string, rules: string): Promise<RunningApache> {
  const top = mkdtempSync(join(tmpdir(), 'spur-apache-'));
  chmodSync(top, 0o755);
  mkdirSync(join(top, 'www'));
  writeFileSync(join(top, 'www', '.htaccess'), rules);
  const port = await freePort();
  const modules = join(folder, 'usr/lib/apache2/modules');
  const isRoot = process.getuid?.() === 0;
  writeFileSync(
    join(top, 'apache.conf'),
    `ServerRoot "${top}"
ServerName localhost
Listen 127.0.0.1:${port}
PidFile "${top}/apache.pid"
ErrorLog "${top}/error.log"
${['mpm_event', 'authz_core', 'rewrite'].map((name) => `LoadModule ${name}_module "${modules}/mod_${name}.so"`).join('\n')}
${isRoot ? 'User nobody\nGroup nogroup\n' : ''}AllowEncodedSlashes On
DocumentRoot "${top}/www"
<Directory "${top}/www">
AllowOverride All
Require all granted
</Directory>
`,
  );
  const libraries = join(folder, 'usr/lib');
  const LD_LIBRARY_PATH = readdirSync(libraries)
    .map((name) => join(libraries, name))
    .filter((path) => existsSync(path) && readdirSync(path).some((name) => name.startsWith('libapr')))
    .join(':');
  const child = spawn(join(folder, 'usr/sbin/apache2'), ['-f', join(top, 'apache.conf'), '-DFOREGROUND'], {
    env: { ...process.env, LD_LIBRARY_PATH },
    stdio: 'inherit',
  });
  const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  const origin = `http://127.0.0.1:${port}`;
  await untilItAnswers('Apache', origin, child);
  return {
    origin,
    close: async () => {
      child.kill('SIGTERM');
      await ended;
      rmSync(top, { recursive: true, force: true });
    },
  };
}
