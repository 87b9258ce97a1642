import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import busboy from 'busboy';
import express, { type Request, type Response } from 'express';
import { type PageId, pageIdSchema } from '#core/model/ids.ts';
import { type FieldId, fieldIdSchema } from '#core/model/kind-field.ts';
import { isSoundText } from '#core/model/outside-json.ts';
import { SENT_PAGE, SENT_STAMP, SENT_TRAP } from './forms.ts';
import { MAX_FORM_FILE_LENGTH, type PostedForm } from './given-answer.ts';

/** The longest form without files, in bytes, and the most of its parts. */
const MAX_BYTES = 400_000;
const MAX_PARTS = 500;
/** So many files can come with one. */
const MAX_FILES = 10;

const readPlain = express.urlencoded({ extended: false, limit: MAX_BYTES, parameterLimit: MAX_PARTS });

/** A file that came with a form. */
export interface PostedFile {
  readonly name: string;
  /** Where its bytes lie while the form is looked at; null where it is too large. */
  readonly path: string | null;
}

export interface Posted {
  readonly form: Omit<PostedForm, 'files'>;
  readonly files: ReadonlyMap<FieldId, PostedFile>;
}

/** What refuses a form that is none: a status for whoever sent it. */
const refused = (status: number): { status: number } => ({ status });

/**
 * Reads a form that a browser sent, and lends its files for the work alone.
 * @throws {status} where it is too large, is no form, or has characters that no text can have
 */
export async function withPostedForm<Result>(
  request: Request,
  response: Response,
  work: (posted: Posted) => Promise<Result>,
): Promise<Result> {
  if (request.is('multipart/form-data') === false) {
    await new Promise<void>((resolve, reject) =>
      readPlain(request, response, (fault?: unknown) => (fault ? reject(fault as Error) : resolve())),
    );
    if (!request.is('urlencoded')) throw refused(415);
    return work(postedOf(textsOf((request.body ?? {}) as Record<string, unknown>), new Map()));
  }
  const folder = await mkdtemp(join(tmpdir(), 'spur-form-'));
  try {
    const { texts, files } = await readParts(request, folder);
    return await work(postedOf(texts, files));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const textsOf = (body: Record<string, unknown>): [string, string][] =>
  Object.entries(body).flatMap(([name, value]) =>
    (Array.isArray(value) ? value : [value]).map((text): [string, string] => [name, String(text)]),
  );

function readParts(
  request: Request,
  folder: string,
): Promise<{ texts: [string, string][]; files: Map<string, PostedFile> }> {
  return new Promise((resolve, reject) => {
    let parser: ReturnType<typeof busboy>;
    try {
      parser = busboy({
        headers: request.headers,
        defParamCharset: 'utf8',
        limits: {
          fieldNameSize: 100,
          fieldSize: 40_000,
          fields: MAX_PARTS,
          files: MAX_FILES,
          fileSize: MAX_FORM_FILE_LENGTH,
          parts: MAX_PARTS + MAX_FILES,
        },
      });
    } catch {
      return reject(refused(400) as never);
    }
    const texts: [string, string][] = [];
    const files = new Map<string, PostedFile>();
    const writing: Promise<void>[] = [];
    let length = 0;
    const fail = (status: number) => {
      request.unpipe(parser);
      // Files that are still written end with it.
      parser.destroy();
      request.resume();
      void Promise.allSettled(writing).then(() => reject(refused(status) as never));
    };
    parser.on('field', (name, text, { nameTruncated, valueTruncated }) => {
      length += text.length;
      if (nameTruncated || valueTruncated || length > MAX_BYTES) fail(413);
      else texts.push([name, text]);
    });
    parser.on('file', (name, stream, { filename = '' }) => {
      // A browser sends a part for a field in which no file was chosen, too.
      if (filename === '' || files.has(name)) return void stream.resume();
      const path = join(folder, String(files.size));
      files.set(name, { name: filename, path });
      stream.on('limit', () => files.set(name, { name: filename, path: null }));
      writing.push(pipeline(stream, createWriteStream(path)));
    });
    for (const limit of ['fieldsLimit', 'filesLimit', 'partsLimit'] as const) parser.on(limit, () => fail(413));
    parser.on('error', () => fail(400));
    request.on('aborted', () => fail(400));
    parser.on('close', () => {
      Promise.all(writing).then(
        () => resolve({ texts, files }),
        () => reject(refused(400) as never),
      );
    });
    request.pipe(parser);
  });
}

/** The field that a name stands for, behind the two letters that say what of it. */
const fieldIdIn = (name: string): FieldId | undefined => fieldIdSchema.safeParse(name.slice(2)).data;

/** @throws {status} */
function postedOf(texts: readonly (readonly [string, string])[], named: ReadonlyMap<string, PostedFile>): Posted {
  const words = [...texts.map(([, text]) => text), ...[...named.values()].map(({ name }) => name)];
  if (!words.every(isSoundText)) throw refused(422);
  const sent = new Map<FieldId, string[]>();
  const policies = new Map<FieldId, string>();
  for (const [name, text] of texts) {
    const id = fieldIdIn(name);
    if (id === undefined) continue;
    if (name.startsWith('f.')) sent.set(id, [...(sent.get(id) ?? []), text]);
    if (name.startsWith('v.')) policies.set(id, text);
  }
  const one = (wanted: string): string => texts.find(([name]) => name === wanted)?.[1] ?? '';
  return {
    form: {
      page: pageIdSchema.safeParse(one(SENT_PAGE)).data ?? ('' as PageId),
      stamp: one(SENT_STAMP),
      sent,
      trap: one(SENT_TRAP),
      policies,
    },
    files: new Map(
      [...named].flatMap(([name, file]): [FieldId, PostedFile][] => {
        const id = name.startsWith('f.') ? fieldIdIn(name) : undefined;
        return id === undefined ? [] : [[id, file]];
      }),
    ),
  };
}
