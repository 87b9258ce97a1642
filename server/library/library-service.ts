import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { type FileContent, type FileId, fileTypeOf } from '#core/files/file.ts';
import { nameOfFile } from '#core/files/file-name.ts';
import type { SiteKey } from '#core/model/ids.ts';
import type { ArchivedFile } from '#contract/archive.ts';
import { KIND_WORDS, type LibraryFile, type UploadAnswer } from '#contract/files.ts';
import type { Database } from '../database/connect.ts';
import type { JobQueue } from '../jobs/job-queue.ts';
import { withFile } from '../files/with-file.ts';
import { ProblemError } from '../problem.ts';
import type { FileStore } from './file-store.ts';
import {
  type BroughtFile,
  type NewFile,
  addFile,
  factsOf,
  fileAt,
  fileWithContent,
  listFiles,
  replaceContent,
  setFile,
  setFaulty,
  setPrepared,
  waitingContents,
  waitingType,
} from './file-repository.ts';
import { PREPARED, type Prepared, measurePicture, prepareFile } from './prepare-file.ts';
import { tellType } from './tell-type.ts';

/** The queue of files of which the sizes are to be made. */
export const PREPARE_FILE = 'prepare-file';

/** A file that has come, and waits to be taken into a library. */
export interface Arrival {
  readonly site: SiteKey;
  /** Where its bytes lie; they are left there. */
  readonly path: string;
  /** Its name as it was sent. */
  readonly name: string;
  /** The file in whose place it goes; null for a new one. */
  readonly replaces: FileId | null;
  readonly account: string | null;
}

interface Parts {
  readonly database: Database;
  readonly store: FileStore;
  readonly now: () => Date;
}

/** The libraries of all sites: what comes in, and what is made of it in the background. */
export class LibraryService {
  readonly store: FileStore;
  readonly #database: Database;
  readonly #now: () => Date;
  #queue: JobQueue | null = null;
  /** Contents that this process prepares now. */
  readonly #underWay = new Map<FileContent, Promise<Prepared>>();

  constructor({ database, store, now }: Parts) {
    this.#database = database;
    this.store = store;
    this.#now = now;
  }

  useQueue(queue: JobQueue): void {
    this.#queue = queue;
  }

  /** Takes up what was waiting when a process ended. */
  async takeUp(): Promise<void> {
    for (const content of await waitingContents(this.#database)) await this.#queue?.send(PREPARE_FILE, { content });
  }

  list(site: SiteKey): Promise<LibraryFile[]> {
    return listFiles(this.#database, site);
  }

  /** @throws ProblemError `file-unknown` */
  async show(site: SiteKey, id: FileId): Promise<LibraryFile> {
    const [file] = await listFiles(this.#database, site, id);
    if (!file) throw new ProblemError('file-unknown', { file: id });
    return file;
  }

  /** Whether a file that has come is one that libraries take. */
  async fits(path: string, name: string): Promise<boolean> {
    try {
      await tellFile(path, name);
      return true;
    } catch (fault) {
      if (fault instanceof ProblemError) return false;
      throw fault;
    }
  }

  /** Takes a file that has come into a library, under its name. @throws ProblemError where it is none that libraries take */
  async take(arrival: Arrival): Promise<UploadAnswer> {
    const { site, path, replaces } = arrival;
    const told = await tellFile(path, arrival.name);
    const { content } = told;
    const { name, isReadable } = nameOfFile(arrival.name, KIND_WORDS[fileTypeOf(told.type).kind].one);
    const file: NewFile = { name, ...told, account: arrival.account, at: this.#now() };
    if (replaces !== null) {
      await this.#replace(site, replaces, file, path);
      return { file: await this.show(site, replaces), isKnown: false, isNameProposed: false };
    }
    await this.#keep(content, path);
    const { id, isKnown } = await addFile(this.#database, site, file);
    await this.#queue?.send(PREPARE_FILE, { content });
    return { file: await this.show(site, id), isKnown, isNameProposed: !isReadable };
  }

  /** Takes a file in whose id is known already, and waits until it is ready: for sites that are made with their files. */
  async bring(
    arrival: Arrival,
    known: { readonly id: FileId; readonly name: string; readonly alternative: string },
  ): Promise<void> {
    const { site, path, account } = arrival;
    const type = await tellType(path, arrival.name);
    const content = await contentOf(path);
    await this.#keep(content, path);
    const prepared = await this.#prepared(content, type);
    const { bytes, width, height } = prepared;
    const { id, name, alternative } = known;
    await addFile(this.#database, site, { name, type, content, bytes, width, height, account, at: this.#now() }, id);
    await setFile(this.#database, site, id, { alternative });
    await setPrepared(this.#database, content, prepared);
  }

  /**
   * Keeps the bytes of files that come with an archive, and says what is known of them; `bytesOf` writes those of one to a path, and
   * gives false where the archive has none. What a library of this Spur has is not asked for. @throws ProblemError where one is none that libraries take
   */
  async keepFiles(
    files: readonly ArchivedFile[],
    bytesOf: (file: ArchivedFile, path: string) => Promise<boolean>,
  ): Promise<BroughtFile[]> {
    const kept: BroughtFile[] = [];
    for (const file of files) {
      const known = await fileWithContent(this.#database, file.content);
      if (known) {
        const { type, length, width, height, pages, hasPicture } = factsOf(known);
        const facts = { type: type as ArchivedFile['type'], bytes: length, width, height, pages, hasPicture };
        kept.push({ ...file, ...facts, isReady: true });
        continue;
      }
      await withFile('file', async (path) => {
        if (!(await bytesOf(file, path))) return;
        const told = await tellFile(path, `${file.name}.${fileTypeOf(file.type).ending}`);
        await this.#keep(told.content, path);
        const formerContents = [...new Set([...file.formerContents, file.content])].filter(
          (one) => one !== told.content,
        );
        kept.push({ ...file, ...told, formerContents, pages: null, hasPicture: false, isReady: false });
      });
    }
    return kept;
  }

  /** Has files prepared that came with an archive. */
  async prepareLater(files: readonly BroughtFile[]): Promise<void> {
    for (const { content, isReady } of files) if (!isReady) await this.#queue?.send(PREPARE_FILE, { content });
  }

  /** What the queue does: makes of a file what visitors get. */
  readonly prepare = async ({ content }: { content: FileContent }): Promise<void> => {
    const type = await waitingType(this.#database, content);
    if (type === undefined) return;
    try {
      await setPrepared(this.#database, content, await this.#prepared(content, type));
    } catch (fault) {
      await setFaulty(this.#database, content, (fault as Error).message);
    }
  };

  async #replace(site: SiteKey, id: FileId, file: NewFile, path: string): Promise<void> {
    const before = await fileAt(this.#database, site, id);
    if (!before || before.removed_at !== null) throw new ProblemError('file-unknown', { file: id });
    const [was, is] = [fileTypeOf(before.type).kind, fileTypeOf(file.type).kind];
    if (was !== is)
      throw new ProblemError('file-kind', {
        name: file.name,
        kind: KIND_WORDS[is].one.toLowerCase(),
        wanted: KIND_WORDS[was].one.toLowerCase(),
      });
    // Pages show the one before until the other is ready as a whole.
    await this.#keep(file.content, path);
    const prepared = await this.#prepared(file.content, file.type).catch(async (fault: unknown) => {
      // Another library may be about to prepare the same.
      if ((await waitingType(this.#database, file.content)) === undefined) await this.store.remove(file.content);
      return unreadable(file.name)(fault);
    });
    await replaceContent(this.#database, site, id, file, prepared);
  }

  /** Puts the bytes of a file into the store, where they are not there yet. */
  async #keep(content: FileContent, path: string): Promise<void> {
    if (await this.store.get(content, PREPARED)) return;
    await this.store.put(content, 'original', createReadStream(path));
  }

  /** Prepares a content once, whoever asks for it. */
  #prepared(content: FileContent, type: string): Promise<Prepared> {
    const underWay = this.#underWay.get(content);
    if (underWay) return underWay;
    const work = prepareFile(this.store, content, type).finally(() => this.#underWay.delete(content));
    this.#underWay.set(content, work);
    return work;
  }
}

/** What a file that has come is, by its bytes. @throws ProblemError where it is none that libraries take; `name` is for the words */
async function tellFile(
  path: string,
  name: string,
): Promise<Pick<BroughtFile, 'type' | 'content' | 'bytes' | 'width' | 'height'>> {
  const type = await tellType(path, name);
  const isMeasured = fileTypeOf(type).kind === 'picture' && type !== 'image/svg+xml';
  const measured = isMeasured ? await measurePicture(path).catch(unreadable(name)) : null;
  const { size } = await stat(path);
  const { width = null, height = null } = measured ?? {};
  return { type: type as BroughtFile['type'], content: await contentOf(path), bytes: size, width, height };
}

const unreadable =
  (name: string) =>
  (fault: unknown): never => {
    throw new ProblemError('file-broken', { name, reason: (fault as Error).message });
  };

/** What the bytes of a file are named by. */
async function contentOf(path: string): Promise<FileContent> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return hash.digest('hex').slice(0, 32) as FileContent;
}
