import { Readable, type Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import type { StaticFile } from './static-site.ts';

/** Sends files as one ZIP while they are made. Where the receiver is slow, making them waits; where they leave, it ends. */
export async function sendZip(files: AsyncIterable<StaticFile>, to: Writable): Promise<void> {
  try {
    await pipeline(Readable.from(zipped(files)), to);
  } catch (fault) {
    if ((fault as NodeJS.ErrnoException).code !== 'ERR_STREAM_PREMATURE_CLOSE') throw fault;
  }
}

const NOTHING = new Uint8Array();

async function* zipped(files: AsyncIterable<StaticFile>): AsyncGenerator<Uint8Array> {
  const ready: Uint8Array[] = [];
  let fault: Error | null = null;
  const zip = new Zip((failed, chunk) => {
    if (failed) fault = failed;
    else ready.push(chunk);
  });
  const encoder = new TextEncoder();
  for await (const { path, content } of files) {
    const isStream = typeof content === 'object' && Symbol.asyncIterator in content;
    // Pictures, films and documents are packed in their own way; text is not.
    const isPacked = isStream && !path.endsWith('.json');
    const file = isPacked ? new ZipPassThrough(path) : new ZipDeflate(path, { level: 6 });
    zip.add(file);
    for await (const piece of isStream ? content : [typeof content === 'string' ? encoder.encode(content) : content]) {
      file.push(piece);
      if (fault) throw fault as Error;
      yield* ready.splice(0);
    }
    file.push(NOTHING, true);
    if (fault) throw fault as Error;
    yield* ready.splice(0);
  }
  zip.end();
  yield* ready.splice(0);
}
