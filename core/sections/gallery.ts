import { z } from 'zod';
import { fileIdSchema } from '../files/file.ts';
import type { SectionType } from './section-type.ts';

const MAX_PICTURES = 100;
const MAX_CAPTION_LENGTH = 300;

/** The pictures of a gallery in their order, each with its caption. */
export const gallerySchema = z
  .array(z.strictObject({ file: fileIdSchema, caption: z.string().max(MAX_CAPTION_LENGTH) }))
  .max(MAX_PICTURES);
export type GalleryPictures = Readonly<z.infer<typeof gallerySchema>>;

/** In the HTML of a gallery: its pictures. They stand in it once it is known what the library says of them. */
export const GALLERY_DATA = 'data-gallery';

/** Pictures side by side; each opens large. */
export const GALLERY: SectionType = {
  type: 'gallery',
  group: 'section',
  content: '',
  attributes: { pictures: { schema: gallerySchema, initial: [] } },
  html: ({ pictures }) => ['div', { [GALLERY_DATA]: JSON.stringify(pictures) }],
  files: ({ pictures }) => (Array.isArray(pictures) ? (pictures as GalleryPictures).map(({ file }) => file) : []),
  listed: {
    name: 'Gallery',
    says: 'Pictures side by side; each opens large',
    also: ['photos', 'album', 'images', 'slides'],
    make: () => ({ type: 'gallery', attrs: { pictures: [] } }),
  },
};
