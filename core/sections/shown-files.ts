import { type FileId, fileIdSchema } from '../files/file.ts';
import type { TextDocument, TextPart } from '../model/content.ts';
import { SECTIONS } from './all-sections.ts';

const FILES_OF = new Map(SECTIONS.flatMap(({ type, files }) => (files ? [[type, files] as const] : [])));

/** The files that a section itself shows, each once; null for what is no section that shows files. */
export function shownBy(part: TextDocument | TextPart): FileId[] | null {
  const files = FILES_OF.get(part.type)?.(('attrs' in part && part.attrs) || {});
  if (!files) return null;
  const known = files.flatMap((file) => fileIdSchema.safeParse(file).data ?? []);
  return [...new Set(known)];
}

/** The files that a text shows, each once, in the order in which they come. */
export function filesOf(document: TextDocument): FileId[] {
  const found = new Set<FileId>();
  const walk = (part: TextDocument | TextPart): void => {
    for (const file of shownBy(part) ?? []) found.add(file);
    part.content?.forEach(walk);
  };
  walk(document);
  return [...found];
}
