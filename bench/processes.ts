import { type ChildProcess, spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { NODE_FLAGS } from '../scripts/node-flags.mjs';

const ROOT = fileURLToPath(new URL('..', import.meta.url)).replace(/dist\/$/, '');

export interface Running {
  readonly pid: number;
  readonly port: number;
  readonly stop: () => Promise<void>;
}

/** Starts one of the built servers, tells it what it waits for, and waits until it is ready. */
export async function startServer(file: string, env: Record<string, string>, told?: object): Promise<Running> {
  const child: ChildProcess = spawn(process.execPath, [...NODE_FLAGS, `${ROOT}dist/${file}`], {
    env: { ...process.env, NODE_ENV: 'production', SPUR_LOG: 'error', ...env },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
  if (told) child.send(told);
  const message = await new Promise<{ port: number }>((resolve, reject) => {
    child.once('message', (said) => resolve(said as { port: number }));
    child.once('exit', (code) => reject(new Error(`${file} ended with ${code} before it was ready.`)));
  });
  return {
    pid: child.pid!,
    port: message.port,
    stop: () =>
      new Promise((resolve) => {
        child.once('exit', () => resolve());
        child.kill('SIGTERM');
      }),
  };
}
