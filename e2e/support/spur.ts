import { type ChildProcess, spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { copyOfTemplate } from '#server/testing/template-database.ts';
import { freePort } from '#server/testing/web-server.ts';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));

export interface Spur {
  readonly workbench: string;
  readonly live: string;
  /** The stand-in for the school's former website, where there is demo data. */
  readonly formerSite: string;
  /** The stand-in for a directory, where there is demo data. */
  readonly directory: string;
  /** For the first account, where Spur was started without demo data. */
  readonly firstAccountToken: string | null;
  readonly stop: () => Promise<void>;
}

/**
 * Spur as it is built, in processes of its own, on a database of its own. @param isAnew makes the demo data for it, rather than
 * copying it: the addresses of the former website are those of this one then
 */
export async function startSpur({ withDemo, isAnew = false }: { withDemo: boolean; isAnew?: boolean }): Promise<Spur> {
  const base = process.env.SPUR_TEST_DATABASE;
  if (!base) throw new Error('The browser tests need PostgreSQL: run them by `npm test -- --project e2e`.');
  const name = `spur_e2e_${randomBytes(6).toString('hex')}`;
  const [port, livePort, formerPort, directoryPort] = (await Promise.all([1, 2, 3, 4].map(freePort))) as [
    number,
    number,
    number,
    number,
  ];
  const settings = {
    ...process.env,
    SPUR_PORT: String(port),
    SPUR_LIVE_PORT: String(livePort),
    SPUR_OLD_SITE_PORT: String(formerPort),
    SPUR_DIRECTORY_PORT: String(directoryPort),
    SPUR_DEMO: withDemo ? 'yes' : 'no',
    // Files are named by what is in them, so that all share one folder.
    SPUR_FILES: `${ROOT}.spur-test/files`,
    NODE_ENV: 'production',
  };
  const built = readFileSync(`${ROOT}dist/.built-from`, 'utf8');
  const { url, drop } = await copyOfTemplate(
    base,
    name,
    isAnew ? 'nothing' : `${built} ${settings.SPUR_DEMO}`,
    async (template) => {
      if (isAnew) return;
      const filling = await start('dist/workbench/main.js', { ...settings, DATABASE_URL: template });
      await end(filling.child);
    },
  );
  const env = { ...settings, DATABASE_URL: url };
  const workbench = start('dist/workbench/main.js', env);
  // Where the data is made anew, the tables have to be there first.
  if (isAnew) await workbench;
  const live = await start('dist/live/main.js', env);
  const { child, message } = await workbench;
  return {
    workbench: `http://127.0.0.1:${port}`,
    live: `http://127.0.0.1:${livePort}`,
    formerSite: `http://127.0.0.1:${formerPort}`,
    directory: `http://127.0.0.1:${directoryPort}`,
    firstAccountToken: (message.firstAccountToken as string | null) ?? null,
    stop: async () => {
      await Promise.all([end(child), end(live.child)]);
      await drop();
    },
  };
}

function start(
  file: string,
  env: NodeJS.ProcessEnv,
): Promise<{ child: ChildProcess; message: Record<string, unknown> }> {
  const child = spawn(process.execPath, [ROOT + file], { env, stdio: ['ignore', 'inherit', 'inherit', 'ipc'] });
  return new Promise((resolve, reject) => {
    child.once('message', (message) => resolve({ child, message: message as Record<string, unknown> }));
    child.once('exit', (code) => reject(new Error(`${file} ended with ${code} before it was ready.`)));
  });
}

const end = (child: ChildProcess): Promise<void> =>
  new Promise((resolve) => {
    child.once('exit', () => resolve());
    child.kill('SIGTERM');
  });
