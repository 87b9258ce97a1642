import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { mkdtemp, open, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { Upload } from 'tus-js-client';
import { type LibraryFile, uploadsOf } from '#contract/files.ts';
import type { Result } from './measure.ts';

/** So many pictures are sent, unless `SPUR_BENCH_PICTURES` says otherwise. */
const PICTURES = Number(process.env.SPUR_BENCH_PICTURES ?? 60);
/** The server stays below that, in bytes. */
const MOST_MEMORY = 400_000_000;

interface FilesBench {
  readonly origin: string;
  readonly site: string;
  readonly cookie: string;
  /** The workbench's process. */
  readonly pid: number;
}

/** Many pictures of 4 MB sent at once: how long they take beside writing as much to the disk, and what memory the server takes meanwhile. */
export async function benchFiles({ origin, site, cookie, pid }: FilesBench): Promise<Result[]> {
  const headers = { Origin: origin, Cookie: cookie };
  const noise = { type: 'gaussian', mean: 128, sigma: 50 } as const;
  const picture = await sharp({ create: { width: 3000, height: 2000, channels: 3, background: '#446688', noise } })
    .jpeg({ quality: 80 })
    .toBuffer();
  const sending = performance.now();
  await Promise.all(
    Array.from({ length: PICTURES }, (_, n) => {
      // Each is another file: what stands behind the end of a picture is passed over.
      const bytes = Buffer.concat([picture, randomBytes(16)]);
      return new Promise<void>((resolve, reject) =>
        new Upload(bytes, {
          endpoint: origin + uploadsOf(site),
          headers,
          metadata: { name: `Picture ${n}.jpg` },
          chunkSize: 5_000_000,
          storeFingerprintForResuming: false,
          onSuccess: () => resolve(),
          onError: reject,
        }).start(),
      );
    }),
  );
  const sent = performance.now() - sending;
  const written = await writeAsMuch(picture);
  let waiting = PICTURES;
  for (const end = Date.now() + PICTURES * 30_000; waiting > 0 && Date.now() < end;) {
    await new Promise((resolve) => setTimeout(resolve, 500));
    const answer = await fetch(`${origin}/api/sites/${site}/files`, { headers });
    const { files } = (await answer.json()) as { files: LibraryFile[] };
    waiting = files.filter(({ state }) => state === 'waiting').length;
    if (files.some(({ state }) => state === 'faulty')) throw new Error('A picture could not be prepared.');
  }
  const prepared = performance.now() - sending;
  const memory = peakOf(pid);
  const of = `${PICTURES} pictures of ${(picture.length / 1e6).toFixed(1)} MB at once`;
  return [
    {
      what: `${of}, until all are acknowledged, beside writing as much to the disk`,
      ours: `${(sent / 1000).toFixed(1)} s`,
      limit: `${(written / 1000).toFixed(1)} s`,
      ratio: sent / written,
      aim: 'none set',
      isMet: true,
    },
    {
      what: `Their sizes, one after another, each`,
      ours: `${(prepared / PICTURES / 1000).toFixed(1)} s`,
      limit: '–',
      ratio: Number.NaN,
      aim: 'none set',
      isMet: true,
    },
    {
      what: `The workbench’s most memory meanwhile`,
      ours: `${Math.round(memory / 1e6)} MB`,
      limit: `${MOST_MEMORY / 1e6} MB`,
      ratio: memory / MOST_MEMORY,
      aim: '≤ 1',
      isMet: memory <= MOST_MEMORY,
    },
  ];
}

/** The most memory that a process has taken, in bytes. */
const peakOf = (pid: number): number =>
  Number(/VmHWM:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) * 1024;

/** Writes the same bytes to the disk, file by file, each until it is there; gives the milliseconds. */
async function writeAsMuch(bytes: Buffer): Promise<number> {
  const folder = await mkdtemp(join(tmpdir(), 'spur-bench-files-'));
  const began = performance.now();
  for (let n = 0; n < PICTURES; n++) {
    const handle = await open(join(folder, String(n)), 'w');
    await handle.writeFile(bytes);
    await handle.sync();
    await handle.close();
  }
  const took = performance.now() - began;
  await rm(folder, { recursive: true, force: true });
  return took;
}
