import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Lends the path of a file that is there for the work alone. @param name what it is for: a short word */
export async function withFile<Result>(name: string, work: (file: string) => Promise<Result>): Promise<Result> {
  const folder = await mkdtemp(join(tmpdir(), `spur-${name}-`));
  try {
    return await work(join(folder, name));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
