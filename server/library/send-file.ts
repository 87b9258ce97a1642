import { pipeline } from 'node:stream/promises';
import type { Request, Response } from 'express';
import type { StoredBytes } from './file-store.ts';

/** What is sent with the bytes of a file: nothing in them is a page, and nothing in them runs. */
const SAFETY = { 'X-Content-Type-Options': 'nosniff', 'Accept-Ranges': 'bytes' } as const;
/** Drawings can hold programs; those of PDF documents belong to whatever shows them. */
const NOTHING_RUNS = "default-src 'none'; style-src 'unsafe-inline'; sandbox";

export interface Sent {
  readonly bytes: StoredBytes;
  readonly type: string;
  /** As `Cache-Control`. */
  readonly caching: string;
  /** A tag of its own, by which a browser asks whether it has it already. */
  readonly tag: string;
}

/** Answers with the bytes of a file, or with a range of them (RFC 9110, 14). */
export async function sendFile(
  request: Request,
  response: Response,
  { bytes, type, caching, tag }: Sent,
): Promise<void> {
  response.set({
    ...SAFETY,
    'Content-Type': type.startsWith('text/') ? `${type}; charset=utf-8` : type,
    'Cache-Control': caching,
    ETag: `"${tag}"`,
    ...(type !== 'application/pdf' && { 'Content-Security-Policy': NOTHING_RUNS }),
  });
  if (request.get('if-none-match')?.includes(`"${tag}"`)) return void response.status(304).end();
  // A range is of what the browser had the beginning of, or of the whole of what is there now.
  const isSame = request.get('if-range') === undefined || request.get('if-range') === `"${tag}"`;
  const asked = isSame ? request.range(bytes.length, { combine: true }) : undefined;
  if (asked === -1) return void response.status(416).set('Content-Range', `bytes */${bytes.length}`).end();
  const [only] = Array.isArray(asked) && asked.type === 'bytes' && asked.length === 1 ? asked : [];
  const range = only && { first: only.start, last: only.end };
  if (range) response.status(206).set('Content-Range', `bytes ${range.first}-${range.last}/${bytes.length}`);
  response.set('Content-Length', String(range ? range.last - range.first + 1 : bytes.length));
  if (request.method === 'HEAD' || bytes.length === 0) return void response.end();
  await pipeline(bytes.read(range), response).catch((fault: NodeJS.ErrnoException) => {
    // Whoever went away, or sought another place of a film, needs no more of it.
    if (fault.code !== 'ERR_STREAM_PREMATURE_CLOSE') throw fault;
  });
}
