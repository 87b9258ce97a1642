import { type Alternative, type FileId, LARGE_DOCUMENT, fileTypeOf, lacksAlternative } from '../files/file.ts';
import type { TextDocument, TextPart } from '../model/content.ts';
import { DOWNLOAD } from './download.ts';
import type { GalleryPictures } from './gallery.ts';
import { PICTURE, type PictureSetting } from './picture.ts';
import { shownBy } from './shown-files.ts';
import { TEXT_FAULTS, type TextFault } from './text-faults.ts';

/** What is looked at of a file of the library. */
export interface FileFacts extends Alternative {
  readonly type: string;
  /** In bytes. */
  readonly length: number;
}

/** What is found in a text of the files that it shows, each once: it changes with the library. WCAG 2.2, 1.1.1. */
export function fileFaultsOf(document: TextDocument, library: ReadonlyMap<FileId, FileFacts>): TextFault[] {
  const found = new Set<TextFault>();
  const hasWords = (id: FileId): boolean => {
    const file = library.get(id);
    return !file || !lacksAlternative(fileTypeOf(file.type), file);
  };
  const walk = (part: TextDocument | TextPart): void => {
    const files = shownBy(part);
    if (files !== null) {
      const attrs = ('attrs' in part && part.attrs) || {};
      if (files.some((id) => !library.has(id))) found.add('no file');
      if (part.type === PICTURE.type && (attrs as PictureSetting).alternative === null && !files.every(hasWords))
        found.add('alternative');
      if ('pictures' in attrs && !(attrs.pictures as GalleryPictures).every(({ file }) => hasWords(file)))
        found.add('alternative');
      if (part.type === DOWNLOAD.type && files.some((id) => (library.get(id)?.length ?? 0) > LARGE_DOCUMENT))
        found.add('large file');
    }
    part.content?.forEach(walk);
  };
  walk(document);
  return TEXT_FAULTS.filter((fault) => found.has(fault));
}
