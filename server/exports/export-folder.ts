import { mkdir, readdir, rename, rm, writeFile } from 'node:fs/promises';
import { dirname, join, sep } from 'node:path';
import type { StaticFile } from './static-site.ts';

/** So many files are written while the next ones are made. */
const AT_ONCE = 4;

/**
 * Writes files into a folder. They are written beside it first: the folder holds all of them or what it held before.
 * @throws Error where the folder holds something that is no earlier export
 */
export async function writeFolder(folder: string, files: AsyncIterable<StaticFile>): Promise<number> {
  const held = await readdir(folder).catch(() => [] as string[]);
  if (held.length > 0 && !held.includes('404.html'))
    throw new Error(`The folder ${folder} holds other files. Name an empty one, or one that does not exist yet.`);
  const fresh = `${folder}.new-${process.pid}`;
  await rm(fresh, { recursive: true, force: true });
  const made = new Map<string, Promise<unknown>>();
  const writing = new Set<Promise<void>>();
  let count = 0;
  const write = async (file: string, content: StaticFile['content']) => {
    const parent = dirname(file);
    if (!made.has(parent)) made.set(parent, mkdir(parent, { recursive: true }));
    await made.get(parent);
    await writeFile(file, content);
  };
  try {
    for await (const { path, content } of files) {
      const file = join(fresh, path);
      if (!file.startsWith(fresh + sep))
        throw new Error(`A file of the export would stand outside of its folder: ${path}`);
      const one = write(file, content).finally(() => writing.delete(one));
      writing.add(one);
      if (writing.size >= AT_ONCE) await Promise.race(writing);
      count++;
    }
    await Promise.all(writing);
  } catch (fault) {
    await Promise.allSettled(writing);
    await rm(fresh, { recursive: true, force: true });
    throw fault;
  }
  await rm(folder, { recursive: true, force: true });
  await rename(fresh, folder);
  return count;
}
