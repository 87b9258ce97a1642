import type { Editor } from '@tiptap/core';
import { type FileId, type FileKind, FILE_TYPES } from '#core/files/file.ts';
import type { SiteKey } from '#core/model/ids.ts';
import type { LibraryFile } from '#contract/files.ts';
import { sendFile } from '../../api/uploads.ts';
import { kindOf } from '../../files/file-words.ts';
import { insertSection } from './insert-section.ts';
import { toast } from '../../ui/toast.ts';

/** The sections that show a file of each kind. Subtitles stand with their film. */
const SECTION_OF: Readonly<Partial<Record<FileKind, string>>> = {
  picture: 'picture',
  document: 'download',
  film: 'film',
  sound: 'sound',
};

/** Ids that stand in texts in place of files that are still on their way. */
const onTheirWay = new Set<string>();
export const isOnItsWay = (id: string | null): boolean => id !== null && onTheirWay.has(id);

const LETTERS = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz';

/** A file that is to be sent, with the id that stands for it in a text until it has come. */
export interface Carried {
  readonly id: FileId;
  readonly file: File;
}

export function carry(file: File): Carried {
  const id = [...crypto.getRandomValues(new Uint8Array(16))].map((byte) => LETTERS[byte % 62]).join('') as FileId;
  onTheirWay.add(id);
  return { id, file };
}

/** Puts files where the writing is, each in a section of its kind, and sends them to the library. */
export function insertFiles(editor: Editor, site: SiteKey, files: readonly File[]): void {
  for (const file of files) {
    const kind = FILE_TYPES[file.type]?.kind ?? 'document';
    const type = SECTION_OF[kind];
    if (type === undefined) {
      void sendFile(site, file).then(
        (taken) => taken && toast(`‘${taken.name}’ is in the library: choose it for a film.`),
      );
      continue;
    }
    const carried = carry(file);
    insertSection(editor, { type, attrs: { file: carried.id } });
    sendCarried(editor, site, [carried]);
  }
}

/** Sends files that stand in a text; each is shown there once it has come, and its place goes where it does not come in. */
export function sendCarried(editor: Editor, site: SiteKey, all: readonly Carried[]): void {
  for (const { id, file } of all)
    void sendFile(site, file).then((taken) => {
      onTheirWay.delete(id);
      if (taken === null) toast.error(`‘${file.name}’ did not come in. The library says why.`, { duration: 10_000 });
      if (!editor.isDestroyed) settle(editor, id, taken);
    });
}

function settle(editor: Editor, id: FileId, taken: LibraryFile | null): void {
  const type = taken && SECTION_OF[kindOf(taken)];
  editor
    .chain()
    .command(({ tr, state }) => {
      state.doc.descendants((node, at) => {
        if (node.attrs.file !== id) return;
        const from = tr.mapping.map(at);
        const section = type && state.schema.nodes[type];
        if (!section) tr.delete(from, from + node.nodeSize);
        else if (section === node.type) tr.setNodeMarkup(from, undefined, { ...node.attrs, file: taken.id });
        else tr.replaceWith(from, from + node.nodeSize, section.create({ file: taken.id }));
      });
      return true;
    })
    .run();
}
