import { z } from 'zod';
import type { SectionType } from './section-type.ts';

const MAX_ADDRESS_LENGTH = 2000;

/** How high a frame stands for its width. */
export const FRAME_SHAPES = {
  film: 'As a film (16 to 9)',
  map: 'As a map (4 to 3)',
  sound: 'Low, as a player of sound',
  form: 'High, as a form',
} as const;
export type FrameShape = keyof typeof FRAME_SHAPES;

/** Where a frame comes from. A player without encryption would be stopped by browsers. */
export const frameAddressSchema = z
  .string()
  .max(MAX_ADDRESS_LENGTH)
  .refine((address) => hostOfFrame(address) !== null, {
    error: 'A frame comes from an address that begins with https://',
  });

export const frameSchema = z.strictObject({
  address: z.union([z.literal(''), frameAddressSchema]),
  /** What it is, for those who have not asked for it yet, and for readers by ear. */
  title: z.string().max(200),
  shape: z.enum(Object.keys(FRAME_SHAPES) as [FrameShape, ...FrameShape[]]),
});
export type FrameSetting = Readonly<z.infer<typeof frameSchema>>;
const { shape: fields } = frameSchema;

/** In the HTML of a frame: the class of its figure, before its shape. */
export const FRAME_CLASS = 'outside';

/** Something that stands on another host, such as a player or a map. It is asked for there only when a visitor wants to see it. */
export const FRAME: SectionType = {
  type: 'frame',
  group: 'section',
  content: '',
  attributes: {
    address: { schema: fields.address, initial: '' },
    title: { schema: fields.title, initial: '' },
    shape: { schema: fields.shape, initial: 'film' },
  },
  html: ({ address, title, shape }) => [
    'figure',
    { class: `${FRAME_CLASS} is-${String(shape)}` },
    ['a', { href: String(address) }, String(title)],
  ],
  listed: {
    name: 'Outside frame',
    says: 'A player, map or form of another host, which loads when it is asked for',
    also: ['embed', 'iframe', 'video', 'film', 'map', 'sound', 'player', 'calendar', 'external'],
    make: () => ({ type: 'frame', attrs: { address: '', title: '', shape: 'film' } }),
  },
};

/** The host of a frame's address, with its port where it has one; null where it is no address by HTTPS. */
export function hostOfFrame(address: string): string | null {
  try {
    const { protocol, host, username } = new URL(address);
    return protocol === 'https:' && username === '' ? host : null;
  } catch {
    return null;
  }
}
