import { nanoid } from 'nanoid';
import type { SiteKey } from '#core/model/ids.ts';
import type { ImportAnswer, ImportBody } from '#contract/imports.ts';
import { call } from './client.ts';

export type ImportFrom = Pick<ImportBody, 'name' | 'bytes' | 'text'>;

/** What bringing it would change; nothing is changed. @throws ServerProblem, NoAnswer */
export const previewImport = (site: SiteKey, from: ImportFrom): Promise<ImportAnswer> =>
  call('importPages', { site }, { ...from, apply: false });

/** Brings the chosen part of it, as one step that can be undone. @throws ServerProblem, NoAnswer */
export const applyImport = (site: SiteKey, from: ImportFrom, chosen: readonly string[]): Promise<ImportAnswer> =>
  call('importPages', { site }, { ...from, apply: true, chosen: [...chosen], request: nanoid() });

/** The bytes of a file, in base 64. @throws Error with words where it cannot be read */
export function base64Of(file: File): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result).replace(/^[^,]*,/, ''));
    reader.onerror = () => reject(new Error(`‘${file.name}’ cannot be read.`));
    reader.readAsDataURL(file);
  });
}
