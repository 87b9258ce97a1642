import { mkdirSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { dirname, join, sep } from 'node:path';
import type { StaticFile } from './static-site.ts';

/**
 * Writes files into a folder. They are written beside it first: the folder holds all of them or what it held before. Each is written
 * in one go, which takes half of the time: the command that does it has nothing else to do.
 * @throws Error where the folder holds something that is no earlier export
 */
export async function writeFolder(folder: string, files: AsyncIterable<StaticFile>): Promise<number> {
  const held = heldBy(folder);
  if (held.length > 0 && !held.includes('404.html'))
    throw new Error(`The folder ${folder} holds other files. Name an empty one, or one that does not exist yet.`);
  const fresh = `${folder}.new-${process.pid}`;
  rmSync(fresh, { recursive: true, force: true });
  const made = new Set<string>();
  let count = 0;
  try {
    for await (const { path, content } of files) {
      const file = join(fresh, path);
      if (!file.startsWith(fresh + sep))
        throw new Error(`A file of the export would stand outside of its folder: ${path}`);
      const parent = dirname(file);
      if (!made.has(parent)) mkdirSync(parent, { recursive: true });
      made.add(parent);
      if (typeof content === 'string' || content instanceof Uint8Array) writeFileSync(file, content);
      else await writeFile(file, content);
      count++;
    }
  } catch (fault) {
    rmSync(fresh, { recursive: true, force: true });
    throw fault;
  }
  rmSync(folder, { recursive: true, force: true });
  renameSync(fresh, folder);
  return count;
}

function heldBy(folder: string): string[] {
  try {
    return readdirSync(folder);
  } catch {
    return [];
  }
}
