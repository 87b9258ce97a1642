import { type FileId, fileIdSchema } from '../files/file.ts';
import type { TextDocument, TextPart } from '../model/content.ts';
import { SECTIONS } from './all-sections.ts';

const FILES_OF = new Map(SECTIONS.flatMap(({ type, files }) => (files ? [[type, files] as const] : [])));

/** The files that a text shows, each once, in the order in which they come. */
export function filesOf(document: TextDocument): FileId[] {
  const found = new Set<FileId>();
  const walk = (part: TextDocument | TextPart): void => {
    const files = FILES_OF.get(part.type)?.(('attrs' in part && part.attrs) || {}) ?? [];
    for (const file of files) {
      const id = fileIdSchema.safeParse(file);
      if (id.success) found.add(id.data);
    }
    part.content?.forEach(walk);
  };
  walk(document);
  return [...found];
}
