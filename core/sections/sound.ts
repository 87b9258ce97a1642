import { fileIdSchema } from '../files/file.ts';
import { type SectionType, SHOWN_FILE } from './section-type.ts';

/** A recording to listen to, with a caption. */
export const SOUND: SectionType = {
  type: 'sound',
  group: 'block',
  content: 'inline*',
  attributes: { file: { schema: fileIdSchema.nullable(), initial: null } },
  html: ({ file }) => [
    'figure',
    { class: 'sound' },
    ['audio', { [SHOWN_FILE]: String(file ?? '') }],
    ['figcaption', {}, 0],
  ],
  files: ({ file }) => [file],
  listed: {
    name: 'Sound',
    says: 'A recording to listen to',
    also: ['audio', 'podcast', 'music', 'interview'],
    make: () => ({ type: 'sound', attrs: { file: null } }),
  },
};
