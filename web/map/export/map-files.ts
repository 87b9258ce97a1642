import hankenWoff2 from '@fontsource-variable/hanken-grotesk/files/hanken-grotesk-latin-wght-normal.woff2?url';
import hankenWoff from '@fontsource/hanken-grotesk/files/hanken-grotesk-latin-500-normal.woff?url';
import { proxy, wrap } from 'comlink';
import dejaVu from 'dejavu-fonts-ttf/ttf/DejaVuSans.ttf?url';
import type { Picture } from '#core/drawing/map-picture.ts';
import { writeSvg } from '#core/formats/svg-picture.ts';
import { fetchAsset } from '../../api/assets.ts';
import type { PdfWorker } from '../../workers/pdf-worker.ts';
import type { PdfOptions, PdfPart } from './write-pdf.ts';

/** Browsers draw no larger pictures than these, in pixels. */
const MAX_SIDE = 16_000;
const MAX_SIZE = 120_000_000;
const MAX_SCALE = 2;

type Named = Pick<PdfOptions, 'title' | 'date'>;

/** The map as an SVG document, with its typeface inside. */
export async function svgFile(picture: Picture, named: Named): Promise<Blob> {
  return new Blob([await svgText(picture, named)], { type: 'image/svg+xml' });
}

async function svgText(picture: Picture, named: Named): Promise<string> {
  const font = base64(await fetchAsset(hankenWoff2));
  const fontCss = `@font-face{font-family:'Hanken Grotesk';font-weight:100 900;src:url(data:font/woff2;base64,${font}) format('woff2')}`;
  return writeSvg(picture, { ...named, fontCss });
}

/** The map as a PNG, twice as sharp as the screen where a browser can draw that. @throws Error where it cannot at all. */
export async function pngFile(picture: Picture, named: Named): Promise<Blob> {
  const url = URL.createObjectURL(await svgFile(picture, named));
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const { width, height } = image;
    const scale = Math.min(MAX_SCALE, MAX_SIDE / Math.max(width, height), Math.sqrt(MAX_SIZE / (width * height)));
    const canvas = new OffscreenCanvas(Math.ceil(width * scale), Math.ceil(height * scale));
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
    return await canvas.convertToBlob({ type: 'image/png' });
  } finally {
    URL.revokeObjectURL(url);
  }
}

/** A PDF, and the characters of titles that it has no letters for. */
export interface MadePdf {
  readonly file: Blob;
  readonly missing: readonly string[];
}

/** Makes pictures as one PDF in a worker; `cancel` stops it, and then nothing comes. */
export function pdfFile(
  parts: readonly PdfPart[],
  options: Omit<PdfOptions, 'fonts'>,
  onProgress: (share: number) => void,
): { made: Promise<MadePdf>; cancel: () => void } {
  const thread = new Worker(new URL('../../workers/pdf-worker.ts', import.meta.url), { type: 'module', name: 'pdf' });
  const make = async () => {
    const fonts = await Promise.all([fetchAsset(hankenWoff), fetchAsset(dejaVu)]);
    const { bytes, missing } = await wrap<PdfWorker>(thread).write(parts, { ...options, fonts }, proxy(onProgress));
    return { file: new Blob([bytes as Uint8Array<ArrayBuffer>], { type: 'application/pdf' }), missing };
  };
  return { made: make().finally(() => thread.terminate()), cancel: () => thread.terminate() };
}

/** Gives a file to the person, by the browser's own way of keeping files. */
export function download(file: Blob, name: string): void {
  const url = URL.createObjectURL(file);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  window.setTimeout(() => URL.revokeObjectURL(url), 60_000);
}

function base64(bytes: Uint8Array): string {
  let text = '';
  for (let at = 0; at < bytes.length; at += 0x8000) text += String.fromCharCode(...bytes.subarray(at, at + 0x8000));
  return btoa(text);
}
