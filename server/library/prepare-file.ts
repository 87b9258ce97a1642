import { createReadStream, createWriteStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import sharp, { type Sharp } from 'sharp';
import { type FileContent, MAX_PIXELS, fileTypeOf } from '#core/files/file.ts';
import { widthsOf } from '#core/files/picture-sizes.ts';
import { withFile } from '../files/with-file.ts';
import { MAX_DRAWING_LENGTH, cleanSvg, sizeOfSvg } from './clean-svg.ts';
import type { FileStore, StoredBytes } from './file-store.ts';
import { readPdf } from './read-pdf.ts';

// A picture at a time and nothing kept of it: what is left of the machine is for those who wait for an answer.
sharp.cache(false);
sharp.concurrency(1);

/** Under this name the store says what a file was prepared to: it stands beside the bytes once all of them are there. */
export const PREPARED = 'prepared.json';

/** What is known of a file once it was prepared. */
export interface Prepared {
  /** The length of the file that is given out, in bytes. */
  readonly bytes: number;
  readonly width: number | null;
  readonly height: number | null;
  readonly pages: number | null;
  /** Whether a picture of its first page stands beside it. */
  readonly hasPicture: boolean;
  /** What a document says, as far as that is looked for; left out where it is none, or was prepared before that was read. */
  readonly words?: string;
}

/** The longer side of the largest form of a picture, in pixels. */
const LARGEST_SIDE = 4000;
/** A PDF document beyond so many bytes is not read: it is kept as it is. */
const LARGEST_READ = 60_000_000;

/** How sizes are written; AVIF first, since it is the smallest. An effort of 2 takes a fifth of the usual time for a tenth more bytes. */
const FORMS: Readonly<Record<'avif' | 'webp', (picture: Sharp) => Sharp>> = {
  avif: (picture) => picture.avif({ quality: 52, effort: 2 }),
  webp: (picture) => picture.webp({ quality: 78 }),
};

/** A picture in the format that it came in. */
function asItCame(picture: Sharp, type: string): Sharp {
  if (type === 'image/png') return picture.png({ compressionLevel: 9 });
  if (type === 'image/webp') return picture.webp({ quality: 84 });
  if (type === 'image/avif') return picture.avif({ quality: 60, effort: 2 });
  return picture.jpeg({ quality: 84, mozjpeg: true });
}

const open = (source: string): Sharp =>
  sharp(source, { limitInputPixels: MAX_PIXELS, sequentialRead: true, failOn: 'error' });

/** Width and height of a picture as it is seen, upright. @throws where it is no picture, or has too many pixels */
export async function measurePicture(file: string): Promise<{ width: number; height: number }> {
  const { width, height, orientation = 1, pageHeight, pages = 1 } = await open(file).metadata();
  const own = pageHeight ?? height;
  if (width * own * pages > MAX_PIXELS)
    throw new Error(`it has ${Math.round((width * own * pages) / 1e6)} million pixels`);
  return orientation >= 5 ? { width: own, height: width } : { width, height: own };
}

/**
 * Makes of a file as it came what visitors get: upright, without where and by what it was taken, in all sizes. The file as it came is not
 * kept. Said twice it comes to the same, and is done once.
 * @throws with the reason where it cannot be read
 */
export async function prepareFile(store: FileStore, content: FileContent, type: string): Promise<Prepared> {
  const before = await store.get(content, PREPARED);
  if (before) return JSON.parse((await bytesOf(before.read())).toString()) as Prepared;
  const original = await store.get(content, 'original');
  if (!original) throw new Error('its bytes are gone');
  const prepared = await prepare(store, content, type, original);
  await store.put(content, PREPARED, Buffer.from(JSON.stringify(prepared)));
  await store.remove(content, 'original');
  return prepared;
}

async function prepare(store: FileStore, content: FileContent, type: string, original: StoredBytes): Promise<Prepared> {
  if (type === 'image/svg+xml') return prepareDrawing(store, content, original);
  return withFile('file', async (file) => {
    await pipeline(original.read(), createWriteStream(file));
    if (fileTypeOf(type).kind === 'picture' && type !== 'image/gif') return preparePicture(store, content, type, file);
    const measured = type === 'image/gif' ? await measurePicture(file) : null;
    const read = type === 'application/pdf' ? await readPages(store, content, file, original.length) : NOT_READ;
    await store.put(content, 'whole', createReadStream(file));
    return { bytes: original.length, width: measured?.width ?? null, height: measured?.height ?? null, ...read };
  });
}

async function preparePicture(store: FileStore, content: FileContent, type: string, file: string): Promise<Prepared> {
  return withFile('picture', async (upright) => {
    const { width, height, size } = await asItCame(
      open(file)
        .autoOrient()
        .resize({ width: LARGEST_SIDE, height: LARGEST_SIDE, fit: 'inside', withoutEnlargement: true }),
      type,
    ).toFile(upright);
    const { ending } = fileTypeOf(type);
    for (const wide of widthsOf(width)) {
      const sized = () => open(upright).resize({ width: wide });
      for (const [form, write] of Object.entries(FORMS))
        if (form !== ending) await store.put(content, `${wide}.${form}`, await write(sized()).toBuffer());
      await store.put(content, `${wide}.${ending}`, await asItCame(sized(), type).toBuffer());
    }
    await store.put(content, 'whole', createReadStream(upright));
    return { bytes: size, width, height, ...NOT_READ };
  });
}

async function prepareDrawing(store: FileStore, content: FileContent, original: StoredBytes): Promise<Prepared> {
  if (original.length > MAX_DRAWING_LENGTH) throw new Error(`a drawing is at most ${MAX_DRAWING_LENGTH / 1e6} MB long`);
  const svg = cleanSvg((await bytesOf(original.read())).toString('utf8'));
  const size = sizeOfSvg(svg);
  if (!size) throw new Error('it does not say how wide and high it is');
  const bytes = Buffer.from(svg);
  await store.put(content, 'whole', bytes);
  return { bytes: bytes.length, ...size, ...NOT_READ };
}

const NOT_READ = { pages: null, hasPicture: false };

/** How many pages a document has, and a picture of the first one, where it can be read. */
async function readPages(
  store: FileStore,
  content: FileContent,
  file: string,
  length: number,
): Promise<Pick<Prepared, 'pages' | 'hasPicture' | 'words'>> {
  if (length > LARGEST_READ) return NOT_READ;
  const reading = await readPdf(new Uint8Array(await readFile(file))).catch(() => null);
  if (reading?.picture) await store.put(content, 'page.webp', reading.picture);
  const words = reading?.words ?? '';
  return { pages: reading?.pages ?? null, hasPicture: reading?.picture != null, ...(words !== '' && { words }) };
}

async function bytesOf(stream: AsyncIterable<Buffer>): Promise<Buffer> {
  const parts: Buffer[] = [];
  for await (const part of stream) parts.push(part);
  return Buffer.concat(parts);
}
