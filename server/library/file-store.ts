import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, open, readdir, rename, rm, stat } from 'node:fs/promises';
import { randomUUID } from 'node:crypto';
import { dirname, join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { FileContent } from '#core/files/file.ts';

/** Some of the bytes of a file, from the first to the last one, both among them. */
export interface ByteRange {
  readonly first: number;
  readonly last: number;
}

export interface StoredBytes {
  /** The length of the whole, in bytes. */
  readonly length: number;
  /** Gives the bytes; what is not read has to be destroyed. */
  readonly read: (range?: ByteRange) => Readable;
}

/**
 * Where the bytes of files lie. What belongs to one file bears names below its content: the file as it came (`original`), as it is given
 * out (`whole`), and its sizes (`640.avif`).
 */
export interface FileStore {
  /** Keeps bytes under a name: all of them or none. What is there already is the same, and is written over. */
  put(content: FileContent, name: string, bytes: Readable | Uint8Array): Promise<void>;
  /** Undefined where nothing is kept under the name. */
  get(content: FileContent, name: string): Promise<StoredBytes | undefined>;
  /** Takes one name of a content away, or all. */
  remove(content: FileContent, name?: string): Promise<void>;
}

/** @throws where nothing can be kept under such a name: a fault of the program */
export function checkStoredName(content: string, name: string): void {
  if (!/^[0-9a-f]{32}$/.test(content) || !/^[a-z0-9]+(?:\.[a-z0-9]+)?$/.test(name))
    throw new Error(`Nothing can be kept under '${content}/${name}'.`);
}

/** Half-written files are named so, and are taken away by the next process that starts a day later. */
const HALF = '.half-';
const DAY_MS = 86_400_000;

/** The store as a folder: `ab/abcd…/640.avif`. A file comes there by one step of the file system, once it is on the disk. */
export class FolderStore implements FileStore {
  readonly #folder: string;

  constructor(folder: string) {
    this.#folder = folder;
  }

  async put(content: FileContent, name: string, bytes: Readable | Uint8Array): Promise<void> {
    const file = this.#fileOf(content, name);
    await mkdir(dirname(file), { recursive: true });
    const half = join(dirname(file), HALF + randomUUID());
    try {
      await pipeline(bytes instanceof Readable ? bytes : Readable.from([bytes]), createWriteStream(half));
      await toDisk(half);
      await rename(half, file);
      await toDisk(dirname(file));
    } catch (fault) {
      await rm(half, { force: true });
      throw fault;
    }
  }

  async get(content: FileContent, name: string): Promise<StoredBytes | undefined> {
    const file = this.#fileOf(content, name);
    const found = await stat(file).catch(() => undefined);
    if (!found?.isFile()) return undefined;
    return {
      length: found.size,
      read: (range) => createReadStream(file, range && { start: range.first, end: range.last }),
    };
  }

  async remove(content: FileContent, name?: string): Promise<void> {
    const file = name === undefined ? dirname(this.#fileOf(content, 'whole')) : this.#fileOf(content, name);
    await rm(file, { recursive: true, force: true });
  }

  /** Takes away what a process that ended had half written. */
  async clear(now: number): Promise<void> {
    const names = await readdir(this.#folder, { recursive: true }).catch(() => []);
    for (const name of names) {
      if (!name.includes(HALF)) continue;
      const file = join(this.#folder, name);
      const found = await stat(file).catch(() => undefined);
      if (found && now - found.mtimeMs > DAY_MS) await rm(file, { force: true });
    }
  }

  /** @throws where a name leads out of its folder: a fault of the program */
  #fileOf(content: FileContent, name: string): string {
    checkStoredName(content, name);
    return join(this.#folder, content.slice(0, 2), content, name);
  }
}

/** Waits until what was written to a file or folder is on the disk. */
async function toDisk(path: string): Promise<void> {
  const handle = await open(path, 'r');
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}
