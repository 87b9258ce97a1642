import { expose, transfer } from 'comlink';
import { type PdfOptions, type PdfPart, type WrittenPdf, writePdf } from '../map/export/write-pdf.ts';

/** PDF documents, made away from the thread that draws. */
const worker = {
  async write(
    parts: readonly PdfPart[],
    options: PdfOptions,
    onProgress: (share: number) => void,
  ): Promise<WrittenPdf> {
    const written = await writePdf(parts, options, onProgress);
    return transfer(written, [written.bytes.buffer]);
  },
};
export type PdfWorker = typeof worker;

expose(worker);
