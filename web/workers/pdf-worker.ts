import { expose, transfer } from 'comlink';
import type { Picture } from '#core/drawing/map-picture.ts';
import { type PdfOptions, type WrittenPdf, writePdf } from '../map/export/write-pdf.ts';

/** PDF documents, made away from the thread that draws. */
const worker = {
  async write(picture: Picture, options: PdfOptions, onProgress: (share: number) => void): Promise<WrittenPdf> {
    const written = await writePdf(picture, options, onProgress);
    return transfer(written, [written.bytes.buffer]);
  },
};
export type PdfWorker = typeof worker;

expose(worker);
