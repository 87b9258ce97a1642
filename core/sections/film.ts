import { fileIdSchema } from '../files/file.ts';
import { type SectionType, SHOWN_FILE } from './section-type.ts';

/** In the HTML of a film: the file with its subtitles. */
export const SUBTITLES_DATA = 'data-subtitles';

/** A film of the library, with subtitles and a caption. Nothing of it is fetched before the visitor plays it but how long it is. */
export const FILM: SectionType = {
  type: 'film',
  group: 'block',
  content: 'inline*',
  attributes: {
    file: { schema: fileIdSchema.nullable(), initial: null },
    subtitles: { schema: fileIdSchema.nullable(), initial: null },
  },
  html: ({ file, subtitles }) => [
    'figure',
    { class: 'film' },
    ['video', { [SHOWN_FILE]: String(file ?? ''), ...(subtitles !== null && { [SUBTITLES_DATA]: String(subtitles) }) }],
    ['figcaption', {}, 0],
  ],
  files: ({ file, subtitles }) => [file, subtitles],
  listed: {
    name: 'Film',
    says: 'A film of your own, with subtitles',
    also: ['video', 'movie', 'clip', 'recording'],
    make: () => ({ type: 'film', attrs: { file: null, subtitles: null } }),
  },
};
