import type { ChildProcess } from 'node:child_process';
import { type AddressInfo, createServer } from 'node:net';

/** A free port of this machine. */
export const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => resolve(port));
    });
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
