import { z } from 'zod';
import { fileIdSchema } from '../files/file.ts';
import { PICTURE_PLACES } from '../files/picture-sizes.ts';
import { type Element, type SectionType, SHOWN_FILE } from './section-type.ts';

/** What is set of a picture. */
export type PictureSetting = Readonly<{
  file: string | null;
  place: (typeof PICTURE_PLACES)[number];
  /** What it shows, where that is not what the library says of it; null for that. */
  alternative: string | null;
  credit: string;
}>;

/** In the HTML of a picture: how it stands on the page, and its own words for those who do not see it. */
export const PLACE_DATA = 'data-place';
export const ALTERNATIVE_DATA = 'data-alternative';

/** A picture of the library, with its caption. */
export const PICTURE: SectionType = {
  type: 'picture',
  group: 'block',
  content: 'inline*',
  attributes: {
    file: { schema: fileIdSchema.nullable(), initial: null },
    place: { schema: z.enum(PICTURE_PLACES), initial: 'text' },
    alternative: { schema: z.string().max(500).nullable(), initial: null },
    credit: { schema: z.string().max(200), initial: '' },
  },
  html: ({ file, place, alternative, credit }) => [
    'figure',
    { class: `picture is-${String(place)}` },
    [
      'img',
      {
        [SHOWN_FILE]: String(file ?? ''),
        [PLACE_DATA]: String(place),
        ...(alternative !== null && { [ALTERNATIVE_DATA]: String(alternative) }),
      },
    ],
    ['figcaption', {}, 0],
    ...(credit === '' ? [] : ([['small', { class: 'credit' }, String(credit)]] as Element[])),
  ],
  files: ({ file }) => [file],
  listed: {
    name: 'Picture',
    says: 'From the library or your computer, with a caption',
    also: ['image', 'photo', 'figure', 'drawing'],
    make: () => ({ type: 'picture', attrs: { file: null, place: 'text', alternative: null, credit: '' } }),
  },
};
