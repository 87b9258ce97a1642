import { z } from 'zod';
import { fileIdSchema } from '../files/file.ts';
import { type SectionType, SHOWN_FILE } from './section-type.ts';

/** A document of the library to download; its type, size and pages are said by themselves. */
export const DOWNLOAD: SectionType = {
  type: 'download',
  group: 'block',
  content: '',
  attributes: {
    file: { schema: fileIdSchema.nullable(), initial: null },
    // What visitors read in place of the file's name; '' for the name.
    words: { schema: z.string().max(200), initial: '' },
  },
  html: ({ file, words }) => ['p', { class: 'download' }, ['a', { [SHOWN_FILE]: String(file ?? '') }, String(words)]],
  files: ({ file }) => [file],
  listed: {
    name: 'Document',
    says: 'A file to download, with its type and size',
    also: ['pdf', 'file', 'attachment', 'download', 'form'],
    make: () => ({ type: 'download', attrs: { file: null, words: '' } }),
  },
};
