import { Upload } from 'tus-js-client';
import type { UploadAnswer } from '#contract/files.ts';
import { uploadsOf } from '#contract/files.ts';
import type { Person } from './test-server.ts';

export type Uploaded =
  | { readonly status: 200; readonly answer: UploadAnswer }
  | { readonly status: number; readonly problem: { readonly code: string; readonly detail: string } };

/** Sends a file as the workbench does, by the tus protocol. @param replaces the file in whose place it goes */
export function upload(
  person: Person,
  origin: string,
  site: string,
  name: string,
  bytes: Uint8Array | string,
  replaces?: string,
): Promise<Uploaded> {
  return new Promise((resolve, reject) => {
    const sending = new Upload(Buffer.from(bytes), {
      endpoint: origin + uploadsOf(site),
      headers: { Origin: origin, Cookie: person.cookie },
      metadata: { name, ...(replaces !== undefined && { replaces }) },
      chunkSize: 1_000_000,
      retryDelays: null,
      storeFingerprintForResuming: false,
      onSuccess: ({ lastResponse }) => resolve({ status: 200, answer: JSON.parse(lastResponse.getBody()) }),
      onError: (fault) => {
        const response = 'originalResponse' in fault ? fault.originalResponse : null;
        if (!response) return reject(fault);
        try {
          resolve({ status: response.getStatus(), problem: JSON.parse(response.getBody()) });
        } catch {
          resolve({ status: response.getStatus(), problem: { code: '', detail: response.getBody() } });
        }
      },
    });
    sending.start();
  });
}
