import { buffer } from 'node:stream/consumers';
import { type FileContent, MAX_PIXELS } from '#core/files/file.ts';
import type { Sharp } from 'sharp';
import type { FileStore } from './file-store.ts';

/** The sizes in which browsers and telephones show the sign of a site, in pixels; that of 180 stands on a home screen. */
export const ICON_SIZES = [32, 180, 192, 512] as const;
const ON_HOME_SCREEN = 180;
/** How much of an icon on a home screen is left free at each side, where its corners are cut. */
const EDGE = 18;

/** What the icon of a size is called: in addresses and in the store. */
export const iconStep = (size: number): string => `icon${size}.png`;
const IS_ICON = /^icon(32|180|192|512)\.png$/;
export const isIcon = (name: string): boolean => IS_ICON.test(name);

/** Pixels across in which a drawing is drawn at its own density. */
const DRAWN_AT = 72;
const MOST_DENSITY = 2400;

/** What has to be known of a picture of the library to draw it; its width in pixels. */
type Picked = { readonly type: string; readonly width: number | null };

/** A picture as it is given out, to be drawn so many pixels across: a drawing is drawn as sharp as that needs. Undefined where it is not there. */
export async function pictureFor(
  store: FileStore,
  content: FileContent,
  { type, width }: Picked,
  across: number,
): Promise<Sharp | undefined> {
  const whole = await store.get(content, 'whole');
  if (!whole) return undefined;
  // Most processes of the visitors' side draw nothing.
  const { default: sharp } = await import('sharp');
  const density =
    type === 'image/svg+xml'
      ? Math.min(MOST_DENSITY, Math.max(DRAWN_AT, (DRAWN_AT * across) / (width ?? across)))
      : undefined;
  return sharp(await buffer(whole.read()), { limitInputPixels: MAX_PIXELS, ...(density && { density }) });
}

/**
 * Makes the icon that a name of the store asks for, of a picture as it is given out, and keeps it there.
 */
export async function makeIcon(store: FileStore, content: FileContent, picked: Picked, name: string): Promise<void> {
  const size = Number(IS_ICON.exec(name)![1]);
  const picture = await pictureFor(store, content, picked, size);
  if (!picture) return;
  const isOnHomeScreen = size === ON_HOME_SCREEN;
  // A telephone shows black where nothing is.
  const background = isOnHomeScreen ? '#ffffff' : { r: 0, g: 0, b: 0, alpha: 0 };
  const edge = isOnHomeScreen ? EDGE : 0;
  const icon = picture
    .resize(size - 2 * edge, size - 2 * edge, { fit: 'contain', background })
    .extend({ top: edge, bottom: edge, left: edge, right: edge, background });
  if (isOnHomeScreen) icon.flatten({ background });
  await store.put(content, name, await icon.png({ compressionLevel: 9 }).toBuffer());
}
