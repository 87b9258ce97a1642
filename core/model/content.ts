import { sha256 } from '@noble/hashes/sha2.js';
import { utf8ToBytes } from '@noble/hashes/utils.js';
import type { ContentId } from './ids.ts';

/** A page's text as structured JSON: the document of the editor. */
export interface TextDocument {
  readonly type: 'doc';
  readonly content?: readonly TextPart[];
}
export interface TextPart {
  readonly type: string;
  readonly attrs?: Readonly<Record<string, unknown>>;
  readonly content?: readonly TextPart[];
  readonly marks?: readonly { readonly type: string; readonly attrs?: Readonly<Record<string, unknown>> }[];
  readonly text?: string;
}

const LETTERS = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz';

/**
 * The id of a text: 12 letters and digits (71 bits) of the SHA-256 of its JSON with sorted keys. The same text has
 * the same id, so that a text changed and changed back is no change.
 */
export function contentIdOf(document: TextDocument): ContentId {
  const digest = sha256(utf8ToBytes(canonical(document)));
  let number = 0n;
  for (const byte of digest.subarray(0, 9)) number = (number << 8n) | BigInt(byte);
  let id = '';
  for (let i = 0; i < 12; i++) {
    id += LETTERS[Number(number % 62n)];
    number /= 62n;
  }
  return id as ContentId;
}

/** JSON with the keys of every object sorted and undefined ones left out. */
function canonical(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonical).join(',')}]`;
  if (typeof value === 'object' && value !== null) {
    const entries = Object.entries(value).filter(([, part]) => part !== undefined);
    entries.sort(([a], [b]) => (a < b ? -1 : 1));
    return `{${entries.map(([key, part]) => `${JSON.stringify(key)}:${canonical(part)}`).join(',')}}`;
  }
  return JSON.stringify(value);
}

/** The words of a text, its blocks parted by spaces; for search, counts and extracts. */
export function plainTextOf(document: TextDocument | TextPart): string {
  if ('text' in document && document.text !== undefined) return document.text;
  const parts = (document.content ?? []).map(plainTextOf);
  const inline = (document.content ?? []).every((part) => part.type === 'text');
  return parts
    .join(inline ? '' : ' ')
    .replace(/\s+/g, ' ')
    .trim();
}
