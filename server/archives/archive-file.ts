import { once } from 'node:events';
import { createReadStream, createWriteStream } from 'node:fs';
import { open } from 'node:fs/promises';
import { createInterface } from 'node:readline';
import { type Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip } from 'node:zlib';
import JSONParser from '@streamparser/json/jsonparser.js';
import { faultInJson } from '#core/model/outside-json.ts';
import { type ArchiveHead, LONG_LISTS, archiveHeadSchema } from '#contract/archive.ts';
import type { z } from 'zod';

/** The largest file, and the largest that a packed one may grow to, in bytes. */
export const MAX_ARCHIVE_BYTES = 500_000_000;

/** The largest file with its library, in bytes: what a ZIP file without extensions can be. */
export const MAX_WITH_FILES = 4_000_000_000;

/** A part of it is read as a whole: the site's pages are the largest. */
const MAX_PART_LENGTH = 64_000_000;

/** Why a file is no archive that can be restored, in sentences. */
export class ArchiveFault extends Error {
  readonly reasons: readonly string[];

  constructor(...reasons: string[]) {
    super(reasons[0]);
    this.reasons = reasons;
  }
}

type LongList = keyof typeof LONG_LISTS;
const isLongList = (key: unknown): key is LongList => key === 'contents' || key === 'history';

/** Where the entries of the long lists are while the rest is read: a file for each, with one entry to a line. */
export type Lists = { readonly [List in LongList]: string };

/** Writes what comes to a file. @throws ArchiveFault where it is larger than it may be */
export const saveArchive = (from: Readable, file: string): Promise<void> =>
  pipeline(from, limited(MAX_WITH_FILES), createWriteStream(file));

/**
 * Reads an archive piece by piece: each entry of its long lists is checked by its schema and written to `lists`; the rest is
 * given. A text that is packed by gzip is unpacked. @throws ArchiveFault
 */
export async function readArchiveFile(file: string, lists: Lists): Promise<ArchiveHead> {
  const head: Record<string, unknown> = {};
  const counts = { contents: 0, history: 0 };
  const out = { contents: createWriteStream(lists.contents), history: createWriteStream(lists.history) };
  try {
    for await (const { list, key, value } of valuesIn(await textOf(file))) {
      if (list === null) {
        take(head, key, value);
        continue;
      }
      const entry = checked(LONG_LISTS[list], value, `${list}.${counts[list]++}`);
      if (!out[list].write(`${onOneLine(entry)}\n`)) await once(out[list], 'drain');
    }
  } finally {
    await Promise.all(Object.values(out).map((stream) => new Promise((resolve) => stream.end(resolve))));
  }
  return checked(archiveHeadSchema, head, '');
}

/** A value as JSON without anything that a reader of lines may take for the end of one: U+2028 and U+2029 are escaped. */
const onOneLine = (value: unknown): string =>
  JSON.stringify(value).replaceAll('\u2028', '\\u2028').replaceAll('\u2029', '\\u2029');

function take(head: Record<string, unknown>, key: string, value: unknown): void {
  if (isLongList(key)) {
    if (!Array.isArray(value)) throw new ArchiveFault(`${key}: this has to be a list.`);
    return;
  }
  if (!Object.hasOwn(archiveHeadSchema.shape, key))
    throw new ArchiveFault(`${key.slice(0, 100)}: an archive has no such part; its format is spur-archive.`);
  if (Object.hasOwn(head, key)) throw new ArchiveFault(`${key}: this stands in the file twice.`);
  head[key] = value;
}

/** The entries of a list that was read, one by one. */
export async function* entriesOf<List extends LongList>(
  lists: Lists,
  list: List,
): AsyncGenerator<z.output<(typeof LONG_LISTS)[List]>> {
  for await (const line of createInterface({ input: createReadStream(lists[list]), crlfDelay: Infinity }))
    yield JSON.parse(line) as z.output<(typeof LONG_LISTS)[List]>;
}

interface Value {
  /** The list whose entry it is; null where it stands at the top. */
  readonly list: LongList | null;
  readonly key: string;
  readonly value: unknown;
}

async function* valuesIn(text: AsyncIterable<string>): AsyncGenerator<Value> {
  const ready: Value[] = [];
  const parser = new JSONParser({ paths: ['$.*', '$.contents.*', '$.history.*'], keepStack: false });
  parser.onValue = ({ value, key, stack }) => {
    const above = stack.length > 1 ? stack.at(-1)!.key : null;
    ready.push({ list: isLongList(above) ? above : null, key: String(key), value });
  };
  let isWhole = false;
  parser.onEnd = () => (isWhole = true);
  let [length, lengthOfPart] = [0, 0];
  try {
    for await (const piece of text) {
      length += piece.length;
      lengthOfPart += piece.length;
      if (lengthOfPart > MAX_PART_LENGTH)
        throw new ArchiveFault(`A part of it is longer than ${MAX_PART_LENGTH / 1_000_000} million characters.`);
      parser.write(piece);
      if (ready.length === 0) continue;
      lengthOfPart = 0;
      yield* ready.splice(0);
    }
    if (!isWhole) throw new Error(length === 0 ? 'the file is empty' : 'it ends too early');
  } catch (fault) {
    if (fault instanceof ArchiveFault) throw fault;
    const { code, message } = fault as NodeJS.ErrnoException;
    throw new ArchiveFault(
      code?.startsWith('Z_') ? 'It is packed by gzip and broken.' : `This is not JSON: ${message}`,
    );
  }
}

/** What was brought, in the shape that it has to have. @throws ArchiveFault */
function checked<Schema extends z.ZodType>(schema: Schema, value: unknown, at: string): z.output<Schema> {
  const unsound = faultInJson(value);
  if (unsound) throw new ArchiveFault(`${at + unsound.pointer.replaceAll('/', '.') || 'The file'}: ${unsound.detail}`);
  const parsed = schema.safeParse(value);
  if (parsed.success) return parsed.data;
  const place = (path: readonly PropertyKey[]) => [...(at === '' ? [] : [at]), ...path.map(String)].join('.');
  throw new ArchiveFault(...parsed.error.issues.map(({ path, message }) => `${place(path) || 'The file'}: ${message}`));
}

/** The text of a file, piece by piece, unpacked where it is packed. */
async function textOf(file: string): Promise<AsyncIterable<string>> {
  const start = await firstBytes(file);
  const bytes = createReadStream(file);
  if (start[0] !== 0x1f || start[1] !== 0x8b) return decoded(bytes);
  const whole = limited();
  // What fails comes out of the last stream, where it is read.
  pipeline(bytes, createGunzip(), whole).catch(() => undefined);
  return decoded(whole);
}

async function firstBytes(file: string): Promise<Buffer> {
  const handle = await open(file);
  try {
    return (await handle.read(Buffer.alloc(2), 0, 2, 0)).buffer;
  } finally {
    await handle.close();
  }
}

async function* decoded(bytes: AsyncIterable<Buffer>): AsyncGenerator<string> {
  const decoder = new TextDecoder('utf-8', { fatal: true });
  for await (const piece of bytes) yield decoder.decode(piece, { stream: true });
  yield decoder.decode();
}

/** Lets bytes through as far as an archive may have them. */
export function limited(most = MAX_ARCHIVE_BYTES): Transform {
  let count = 0;
  return new Transform({
    transform(piece: Buffer, _encoding, done) {
      count += piece.length;
      if (count <= most) done(null, piece);
      else done(new ArchiveFault(`It is larger than ${most / 1_000_000} MB, and so is no archive of Spur.`));
    },
  });
}
