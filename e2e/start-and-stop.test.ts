import { type ChildProcess, spawn } from 'node:child_process';
import { chmodSync, existsSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { freePort } from '#server/testing/web-server.ts';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
let folder: string;
let ports: Record<'SPUR_PORT' | 'SPUR_LIVE_PORT' | 'SPUR_OLD_SITE_PORT' | 'SPUR_DIRECTORY_PORT', string>;
const running: ChildProcess[] = [];

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'spur-start-'));
  chmodSync(folder, 0o755);
  ports = {
    SPUR_PORT: String(await freePort()),
    SPUR_LIVE_PORT: String(await freePort()),
    SPUR_OLD_SITE_PORT: String(await freePort()),
    SPUR_DIRECTORY_PORT: String(await freePort()),
  };
});
afterAll(async () => {
  for (const child of running) if (child.exitCode === null && child.signalCode === null) await stop(child);
  rmSync(folder, { recursive: true, force: true });
});

/** `npm start -- --empty`, until it says that it is ready or ends; with all that it has said. */
async function start(): Promise<{ child: ChildProcess; said: () => string }> {
  const env = { ...process.env, ...ports, SPUR_DATA: folder, DATABASE_URL: '' };
  const child = spawn(process.execPath, ['scripts/start.mjs', '--empty'], {
    cwd: ROOT,
    env,
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  running.push(child);
  let text = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (part: Buffer) => (text += part.toString()));
  for (const end = Date.now() + 60_000; Date.now() < end && child.exitCode === null && !text.includes('Ctrl+C');)
    await pause(100);
  return { child, said: () => text };
}

function stop(child: ChildProcess, signal: NodeJS.Signals = 'SIGTERM'): Promise<number | null> {
  return new Promise((resolve) => {
    child.once('exit', (code) => resolve(code));
    child.kill(signal);
  });
}

const postmaster = (): number =>
  Number(readFileSync(join(folder, 'postgres', 'postmaster.pid'), 'utf8').split('\n')[0]);
/** Whether a process runs; one that has ended and was not yet collected has no command line. */
const isRunning = (pid: number): boolean =>
  existsSync(`/proc/${pid}`) && readFileSync(`/proc/${pid}/cmdline`, 'utf8') !== '';
const answers = async (port: string): Promise<boolean> =>
  fetch(`http://127.0.0.1:${port}/api/health`, { signal: AbortSignal.timeout(3000) }).then(
    (answer) => answer.ok,
    () => false,
  );
/** The servers are found by their data: both carry the ports in their environment. */
const serverProcesses = (): number[] =>
  readdirSync('/proc')
    .filter((pid) => /^\d+$/.test(pid))
    .map(Number)
    .filter((pid) => {
      try {
        return (
          readFileSync(`/proc/${pid}/environ`, 'utf8').includes(`SPUR_DATA=${folder}`) &&
          readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('/dist/')
        );
      } catch {
        return false;
      }
    });

describe('npm start', () => {
  it('starts everything on an empty disk, prints a one-time link, and SIGTERM and SIGINT stop all of it', async () => {
    for (const signal of ['SIGTERM', 'SIGINT'] as const) {
      const { child, said } = await start();
      expect(said()).toMatch(new RegExp(`Workbench +http://127.0.0.1:${ports.SPUR_PORT}`));
      expect(said()).toMatch(/\/welcome#[\w-]{30,}/);
      expect(said()).not.toMatch(/slipway/);
      expect(await answers(ports.SPUR_PORT)).toBe(true);
      const database = postmaster();
      expect(await stop(child, signal)).toBe(0);
      expect(serverProcesses()).toEqual([]);
      expect(isRunning(database)).toBe(false);
    }
  });

  it('says that it is running already, and leaves what runs alone', async () => {
    const first = await start();
    const second = await start();
    expect(second.said()).toMatch(/It is running already, from the same folder, as process \d+\. Stop that one first/);
    expect(await answers(ports.SPUR_PORT)).toBe(true);
    await stop(first.child);
  });

  it('brings PostgreSQL back when it was killed', async () => {
    const { child, said } = await start();
    process.kill(postmaster(), 'SIGKILL');
    await until(() => Promise.resolve(said().includes('PostgreSQL had ended and was started again.')));
    await until(() => answers(ports.SPUR_PORT));
    await stop(child);
  });

  it('recovers by itself after any of its processes was killed', async () => {
    const { child } = await start();
    process.kill(serverProcesses()[0]!, 'SIGKILL');
    await until(() => Promise.resolve(child.exitCode !== null));
    expect(serverProcesses()).toEqual([]);

    const next = await start();
    expect(await answers(ports.SPUR_PORT)).toBe(true);
    await stop(next.child, 'SIGKILL');
    await until(() => Promise.resolve(serverProcesses().length === 0));

    const last = await start();
    expect(await answers(ports.SPUR_PORT)).toBe(true);
    expect(await stop(last.child)).toBe(0);
  });
});

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** Waits until something holds. @throws after twenty seconds. */
async function until(holds: () => Promise<boolean>): Promise<void> {
  for (const end = Date.now() + 20_000; Date.now() < end; await pause(100)) if (await holds()) return;
  throw new Error('Waited twenty seconds in vain.');
}
