import { startWorker } from '../start-worker.ts';

/** What is read of a PDF document. */
export interface PdfReading {
  readonly pages: number;
  /** Its first page as a picture. */
  readonly picture: Uint8Array | null;
  /** What it says, as far as that is looked for. */
  readonly words: string;
}

const LONGEST_MS = 30_000;
const MEMORY_MB = 300;

/** Reads a PDF document in a thread of its own, which ends with it: a hostile one takes neither the process nor its memory. @throws where it cannot be read */
export function readPdf(bytes: Uint8Array<ArrayBuffer>): Promise<PdfReading> {
  return new Promise((resolve, reject) => {
    const worker = startWorker('pdf-worker', import.meta.url, {
      workerData: bytes,
      transferList: [bytes.buffer],
      resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB },
      stdout: true,
      stderr: true,
    });
    const timer = setTimeout(() => {
      void worker.terminate();
      reject(new Error(`it took longer than ${LONGEST_MS / 1000} seconds to read`));
    }, LONGEST_MS);
    const end = (then: () => void) => {
      clearTimeout(timer);
      void worker.terminate();
      then();
    };
    worker.once('message', (said: PdfReading | { fault: string }) =>
      end(() => ('fault' in said ? reject(new Error(said.fault)) : resolve(said))),
    );
    worker.once('error', (fault) => end(() => reject(fault)));
  });
}
