import { type FileKind, fileTypeOf, lacksAlternative, lengthWords } from '#core/files/file.ts';
import type { LibraryFile } from '#contract/files.ts';

export const kindOf = ({ type }: LibraryFile): FileKind => fileTypeOf(type).kind;

/** What a file is, such as "PDF, 1.2 MB, 4 pages". */
export const factsOf = ({ type, length, width, height, pages }: LibraryFile): string =>
  [
    fileTypeOf(type).words,
    lengthWords(length),
    width !== null && `${width} × ${height}`,
    pages !== null && (pages === 1 ? '1 page' : `${pages} pages`),
  ]
    .filter(Boolean)
    .join(', ');

/** What somebody has to do about a file; undefined where nothing waits. */
export const waitsFor = (file: LibraryFile): string | undefined => {
  if (file.state === 'faulty') return `Cannot be shown: ${file.fault}`;
  return lacksAlternative({ kind: kindOf(file) }, file) ? 'No words for those who do not see it' : undefined;
};
