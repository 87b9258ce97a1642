import { expose, transfer } from 'comlink';
import type { Picture } from '#core/drawing/map-picture.ts';
import { type PdfOptions, writePdf } from '../map/export/write-pdf.ts';

/** PDF documents, made away from the thread that draws. */
const worker = {
  async write(picture: Picture, options: PdfOptions, onProgress: (share: number) => void): Promise<Uint8Array> {
    const bytes = await writePdf(picture, options, onProgress);
    return transfer(bytes, [bytes.buffer]);
  },
};
export type PdfWorker = typeof worker;

expose(worker);
