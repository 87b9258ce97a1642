import type { ChildProcess } from 'node:child_process';
import { randomInt } from 'node:crypto';
import { createServer } from 'node:net';

/** Linux gives the ports from 32768 on to outgoing connections: one of those could be taken between asking for it and using it. */
const PORTS = { from: 12_000, to: 32_000 };

/** A free port of this machine. */
export async function freePort(): Promise<number> {
  for (;;) {
    const port = randomInt(PORTS.from, PORTS.to);
    if (await isFree(port)) return port;
  }
}
const isFree = (port: number): Promise<boolean> =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
  });

const TRIES = 200;
const TRY_EVERY_MS = 25;

/** Waits until a web server that was started answers. @throws where it ends before */
export async function untilItAnswers(name: string, origin: string, child: ChildProcess): Promise<void> {
  for (let tries = 0; tries < TRIES && child.exitCode === null; tries++) {
    const isThere = await fetch(origin).then(
      () => true,
      () => false,
    );
    if (isThere) return;
    await new Promise((resolve) => setTimeout(resolve, TRY_EVERY_MS));
  }
  throw new Error(`${name} did not answer; what it says is above.`);
}
