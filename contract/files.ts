import { z } from 'zod';
import { type FileKind, MAX_ALTERNATIVE_LENGTH, fileIdSchema } from '#core/files/file.ts';
import { pageIdSchema } from '#core/model/ids.ts';
import { MAX_FILE_NAME_LENGTH } from '#core/files/file-name.ts';

const share = z.number().min(0).max(1);

/** A file of the library, with the pages that show it. */
export const libraryFile = z.object({
  id: fileIdSchema,
  name: z.string(),
  type: z.string(),
  /** What its bytes are named by: it changes when the file is replaced. */
  content: z.string(),
  /** In bytes. */
  length: z.number(),
  /** In pixels; null for what is no picture. */
  width: z.number().nullable(),
  height: z.number().nullable(),
  /** Of a document; null where that is not known. */
  pages: z.number().nullable(),
  /** Whether there is a picture of its first page. */
  hasPicture: z.boolean(),
  /** What stays in sight where it is cut to another form: shares of its width and height. */
  focalX: share,
  focalY: share,
  alternative: z.string(),
  isDecoration: z.boolean(),
  /** Whether its sizes are still to be made, are there, or could not be made. */
  state: z.enum(['waiting', 'ready', 'faulty']),
  /** Why they could not be made. */
  fault: z.string().nullable(),
  addedAt: z.string(),
  addedBy: z.string().nullable(),
  /** Pages of the tree whose text shows it. */
  usedBy: z.array(pageIdSchema),
  /** Live pages whose live text shows it. */
  liveOn: z.array(pageIdSchema),
  /** Those of them that show it only in sections for some. */
  liveInSections: z.array(pageIdSchema),
});
export type LibraryFile = Readonly<z.infer<typeof libraryFile>>;

export const libraryAnswer = z.object({ files: z.array(libraryFile) });

export const setFileBody = z
  .strictObject({
    name: z.string().trim().min(1).max(MAX_FILE_NAME_LENGTH),
    alternative: z.string().trim().max(MAX_ALTERNATIVE_LENGTH),
    isDecoration: z.boolean(),
    focalX: share,
    focalY: share,
  })
  .partial();
export type SetFileBody = z.infer<typeof setFileBody>;

/** What the last request of an upload is answered with. */
export const uploadAnswer = z.object({
  file: libraryFile,
  /** Whether the library had the same bytes already. */
  isKnown: z.boolean(),
  /** Whether the name that it came with said nothing. */
  isNameProposed: z.boolean(),
});
export type UploadAnswer = Readonly<z.infer<typeof uploadAnswer>>;

/** Where files are sent to, by the tus protocol (version 1.0.0); a site's key comes before. */
export const uploadsOf = (site: string): string => `/api/sites/${site}/uploads`;

/** Where the workbench gets the bytes of a file. @param width of a picture, in pixels; the whole file where it is left out */
export const fileAddress = (site: string, file: { id: string; content: string }, width?: number): string =>
  `/api/sites/${site}/files/${file.id}/bytes?${width === undefined ? '' : `width=${width}&`}of=${file.content.slice(0, 8)}`;

/** What each kind of file is called. */
export const KIND_WORDS: Readonly<Record<FileKind, { readonly one: string; readonly many: string }>> = {
  picture: { one: 'Picture', many: 'Pictures' },
  document: { one: 'Document', many: 'Documents' },
  film: { one: 'Film', many: 'Films' },
  sound: { one: 'Sound', many: 'Sounds' },
  subtitles: { one: 'Subtitles', many: 'Subtitles' },
};
