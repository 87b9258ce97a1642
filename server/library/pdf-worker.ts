import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { parentPort, workerData } from 'node:worker_threads';
import { createCanvas } from '@napi-rs/canvas';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { PdfReading } from './read-pdf.ts';

/** The width of the picture of the first page, in pixels. */
const PICTURE_WIDTH = 640;
/** A page that is longer than so many times its width has no picture. */
const LONGEST = 4;

/** So much of a document is looked for by its words. */
const MOST_PAGES = 200;
const MOST_LETTERS = 40_000;

type Document = Awaited<ReturnType<typeof getDocument>['promise']>;

const folder = dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'));

/** Reads the document that the thread was started with, and says how many pages it has and how the first one looks. */
async function read(): Promise<PdfReading> {
  const document = await getDocument({
    data: workerData as Uint8Array,
    isEvalSupported: false,
    useSystemFonts: false,
    disableFontFace: true,
    stopAtErrors: false,
    standardFontDataUrl: `${join(folder, 'standard_fonts')}/`,
    verbosity: 0,
  }).promise;
  return {
    pages: document.numPages,
    picture: await pictureOf(document).catch(() => null),
    words: await wordsOf(document).catch(() => ''),
  };
}

/** The words of a document from its beginning, with one space between two. */
async function wordsOf(document: Document): Promise<string> {
  let words = '';
  for (let at = 1; at <= Math.min(document.numPages, MOST_PAGES) && words.length < MOST_LETTERS; at++) {
    const { items } = await (await document.getPage(at)).getTextContent();
    for (const item of items) if ('str' in item) words += item.str + (item.hasEOL ? ' ' : '');
    words += ' ';
  }
  // What PostgreSQL cannot keep, and what no words have, stands for a space.
  return words
    .replace(/[\p{C}\s]+/gu, ' ')
    .slice(0, MOST_LETTERS)
    .trim();
}

async function pictureOf(document: Document): Promise<Uint8Array | null> {
  const page = await document.getPage(1);
  const natural = page.getViewport({ scale: 1 });
  if (!(natural.width > 0) || natural.height / natural.width > LONGEST) return null;
  const viewport = page.getViewport({ scale: PICTURE_WIDTH / natural.width });
  const canvas = createCanvas(Math.ceil(viewport.width), Math.ceil(viewport.height));
  const context = canvas.getContext('2d');
  context.fillStyle = 'white';
  context.fillRect(0, 0, canvas.width, canvas.height);
  await page.render({ canvas: canvas as never, canvasContext: context as never, viewport }).promise;
  return new Uint8Array(await canvas.encode('webp', 80));
}

read().then(
  (reading) => parentPort!.postMessage(reading),
  (fault: unknown) => parentPort!.postMessage({ fault: (fault as Error).message }),
);
