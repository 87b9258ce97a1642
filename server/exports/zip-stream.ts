import { once } from 'node:events';
import type { Writable } from 'node:stream';
import { Zip, ZipDeflate } from 'fflate';
import type { StaticFile } from './static-site.ts';

/** Sends files as one ZIP while they are made. Where the receiver is slow, making them waits. */
export async function sendZip(files: AsyncIterable<StaticFile>, to: Writable): Promise<void> {
  let isFull = false;
  let fault: Error | null = null;
  const zip = new Zip((failed, chunk, isLast) => {
    if (failed) fault = failed;
    else if (!to.write(chunk)) isFull = true;
    if (isLast) to.end();
  });
  const encoder = new TextEncoder();
  for await (const { path, content } of files) {
    if (to.destroyed) return zip.terminate();
    const file = new ZipDeflate(path, { level: 6 });
    zip.add(file);
    file.push(typeof content === 'string' ? encoder.encode(content) : content, true);
    if (fault) throw fault as Error;
    if (!isFull) continue;
    isFull = false;
    await Promise.race([once(to, 'drain'), once(to, 'close')]);
  }
  zip.end();
}
