import { open } from 'node:fs/promises';
import { fileTypeFromFile } from 'file-type';
import { FILE_TYPES } from '#core/files/file.ts';
import { ProblemError } from '../problem.ts';

/** So much of a text is looked at to tell what it is. */
const HEAD_LENGTH = 65_536;

/** Other names that the same types go by. */
const ALSO: Readonly<Record<string, string>> = {
  'audio/x-m4a': 'audio/mp4',
  'video/x-m4v': 'video/mp4',
  'audio/vnd.wave': 'audio/wav',
  'audio/x-wav': 'audio/wav',
};

/**
 * The media type of a file, told by its bytes; its name tells only whether a plain text is a table.
 * @throws ProblemError `file-type` where the library takes no such files
 */
export async function tellType(path: string, name: string): Promise<string> {
  const head = await headOf(path);
  if (head.length === 0) throw new ProblemError('file-empty', { name });
  const told = (await fileTypeFromFile(path))?.mime.split(';', 1)[0];
  const type = told === undefined || told === 'application/xml' ? textType(head, name) : (ALSO[told] ?? told);
  if (type === null || !Object.hasOwn(FILE_TYPES, type))
    throw new ProblemError('file-type', { name, type: told ?? 'nothing that is known' });
  return type;
}

async function headOf(path: string): Promise<Buffer> {
  const handle = await open(path, 'r');
  try {
    const { bytesRead, buffer } = await handle.read(Buffer.alloc(HEAD_LENGTH), 0, HEAD_LENGTH, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await handle.close();
  }
}

/** What a text is; null for what is none, and for programs and pages, which visitors' browsers might run. */
function textType(head: Buffer, name: string): string | null {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(head, { stream: true });
  } catch {
    return null;
  }
  if ([...text].some((sign) => sign < ' ' && !'\t\n\v\f\r'.includes(sign))) return null;
  const start = text.replace(/^\uFEFF/, '').trimStart();
  if (/^WEBVTT(?:[ \t\n\r]|$)/.test(start)) return 'text/vtt';
  if (/^<(?:\?xml|!--|!DOCTYPE svg|svg)/i.test(start)) return /<svg[\s>]/i.test(start) ? 'image/svg+xml' : null;
  if (/<(?:!doctype|html|head|body|script|iframe|\?php)/i.test(start) || start.startsWith('#!')) return null;
  return /\.csv$/i.test(name) ? 'text/csv' : 'text/plain';
}
