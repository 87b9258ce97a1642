import type { Request, Response } from 'express';
import { fileTypeOf } from '#core/files/file.ts';
import { widthsOf } from '#core/files/picture-sizes.ts';
import type { LibraryFile } from '#contract/files.ts';
import { ProblemError } from '../problem.ts';
import { countIn } from '../route-parameters.ts';
import type { LibraryService } from './library-service.ts';
import { sendFile } from './send-file.ts';

/**
 * Answers with the bytes of a file for whoever may have it; of a picture with the size that is wide enough for `?width=`.
 * @throws ProblemError where the store has none of them
 */
export async function sendLibraryFile(
  { store }: Pick<LibraryService, 'store'>,
  file: LibraryFile,
  request: Request,
  response: Response,
): Promise<void> {
  for (const [name, type] of formsFor(file, countIn(request.query.width))) {
    const bytes = await store.get(file.content as never, name);
    if (!bytes) continue;
    // The address names the content, and nobody but who was let in gets it.
    const caching = request.query.of === file.content.slice(0, 8) ? 'private, max-age=31536000' : 'private, no-cache';
    return sendFile(request, response, { bytes, type, caching, tag: `${file.content}-${name}` });
  }
  throw new ProblemError('file-unknown', { file: file.id });
}

/** The names under which a file may lie in the store, the best first, each with its media type. */
function formsFor({ type, state, width, hasPicture }: LibraryFile, wanted: number | null): [string, string][] {
  const { kind } = fileTypeOf(type);
  const whole: [string, string][] = [
    ['whole', type],
    ['original', type],
  ];
  if (wanted === null || state !== 'ready') return whole;
  if (hasPicture) return [['page.webp', 'image/webp'], ...whole];
  if (kind !== 'picture' || width === null) return whole;
  const wide = widthsOf(width).find((one) => one >= wanted);
  return wide === undefined ? whole : [[`${wide}.webp`, 'image/webp'], ...whole];
}
