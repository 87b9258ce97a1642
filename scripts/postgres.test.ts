import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { startPostgres } from './postgres.mjs';

it('a private cluster comes back at the port that it had', { timeout: 60_000 }, async () => {
  const folder = mkdtempSync(join(tmpdir(), 'spur-port-'));
  try {
    const urls: string[] = [];
    for (let starts = 0; starts < 2; starts += 1) {
      const server = await startPostgres(folder, { isForTests: true });
      urls.push(server.url('postgres'));
      server.stop();
    }
    expect(urls[1]).toBe(urls[0]);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
