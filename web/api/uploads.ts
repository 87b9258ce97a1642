import { useSyncExternalStore } from 'react';
import { DetailedError, Upload } from 'tus-js-client';
import type { FileId } from '#core/files/file.ts';
import type { SiteKey } from '#core/model/ids.ts';
import { problemSchema } from '#contract/api.ts';
import { type LibraryFile, uploadAnswer, uploadsOf } from '#contract/files.ts';
import { takeIntoLibrary } from './files.ts';
import { changesHeld } from './held-changes.ts';

/** A file on its way to the library. */
export interface Sending {
  readonly id: number;
  readonly site: SiteKey;
  readonly name: string;
  /** How much of it is there, from 0 to 1. */
  readonly share: number;
  /** Why it did not come in; null while it may. */
  readonly fault: string | null;
  readonly stop: () => void;
}

/** So many are sent at once. */
const AT_ONCE = 3;
/** A piece: what an interruption costs at most. */
const PIECE_LENGTH = 5_000_000;
/** After an interruption it goes on by itself, so often. */
const AGAIN_AFTER_MS = [500, 1500, 4000, 10_000];
const NO_CONNECTION = 'The connection was lost. Add the file again: it goes on where it stopped.';

let all: readonly Sending[] = [];
const listeners = new Set<() => void>();
let next = 1;
let underWay = 0;
const waiting: (() => void)[] = [];

function tell(changed: readonly Sending[]): void {
  all = changed;
  for (const heard of listeners) heard();
}

/** A browser asks before it closes a page from which files are sent: what is sent next would not come in. */
const warn = (event: BeforeUnloadEvent): void => {
  if (all.some(({ fault }) => fault === null)) event.preventDefault();
};

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

/** The files that are on their way to a site's library, and those that did not come in and were not put aside yet. */
export const useSendings = (site: SiteKey): readonly Sending[] =>
  useSyncExternalStore(subscribe, () => all).filter((one) => one.site === site);

/** Puts aside what is said of a file that did not come in. */
export const forget = (id: number): void => tell(all.filter((one) => one.id !== id));

const change = (id: number, to: Partial<Sending>): void =>
  tell(all.map((one) => (one.id === id ? { ...one, ...to } : one)));

/**
 * Sends a file to the library of a site; it goes on where it was interrupted, also after the page was left.
 * @param replaces the file in whose place it goes
 * @returns what the library has of it; null where it did not come in: why is told among the sendings
 */
export function sendFile(site: SiteKey, file: File, replaces?: FileId): Promise<LibraryFile | null> {
  const id = next++;
  window.addEventListener('beforeunload', warn);
  return new Promise((resolve) => {
    const end = (taken: LibraryFile | null) => {
      underWay--;
      waiting.shift()?.();
      resolve(taken);
    };
    const upload = new Upload(file, {
      endpoint: uploadsOf(site),
      metadata: { name: file.name, ...(replaces !== undefined && { replaces }) },
      chunkSize: PIECE_LENGTH,
      retryDelays: AGAIN_AFTER_MS,
      removeFingerprintOnSuccess: true,
      onShouldRetry: (fault) => {
        const status = fault.originalResponse?.getStatus() ?? 0;
        return status === 0 || status === 423 || status >= 502;
      },
      onProgress: (sent, total) => change(id, { share: total === 0 ? 1 : sent / total }),
      onSuccess: ({ lastResponse }) => {
        const { data } = uploadAnswer.safeParse(parsed(lastResponse.getBody()));
        if (!data) {
          change(id, { fault: 'It is not known whether it came in. Look into the library.' });
          return end(null);
        }
        takeIntoLibrary(site, data.file);
        forget(id);
        end(data.file);
      },
      onError: (fault) => {
        change(id, { fault: wordsOf(fault) });
        end(null);
      },
    });
    const stop = () => {
      // One that waits for its turn is not sent.
      const at = waiting.indexOf(begin);
      if (at !== -1) waiting.splice(at, 1);
      void upload.abort(true).catch(() => undefined);
      forget(id);
      if (at === -1) end(null);
      else resolve(null);
    };
    const begin = () => {
      underWay++;
      void upload.findPreviousUploads().then(
        ([before]) => {
          if (before && replaces === undefined) upload.resumeFromPreviousUpload(before);
          upload.start();
        },
        () => upload.start(),
      );
    };
    const reason = changesHeld();
    tell([...all, { id, site, name: file.name, share: 0, fault: reason, stop }]);
    if (reason !== null) resolve(null);
    else if (underWay < AT_ONCE) begin();
    else waiting.push(begin);
  });
}

function wordsOf(fault: Error): string {
  const body = fault instanceof DetailedError ? fault.originalResponse?.getBody() : undefined;
  const { data } = problemSchema.safeParse(parsed(body));
  if (data) return data.detail;
  return fault instanceof DetailedError && fault.originalResponse?.getStatus() === 413
    ? 'It is larger than 1 GB. Make it smaller, or put it where large files are kept and link to it.'
    : NO_CONNECTION;
}

function parsed(body: string | undefined): unknown {
  try {
    return JSON.parse(body ?? '');
  } catch {
    return null;
  }
}
