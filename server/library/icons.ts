import { buffer } from 'node:stream/consumers';
import { type FileContent, MAX_PIXELS } from '#core/files/file.ts';
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

/**
 * Makes the icon that a name of the store asks for, of a picture as it is given out, and keeps it there.
 * @param width of the picture, in pixels
 */
export async function makeIcon(
  store: FileStore,
  content: FileContent,
  { type, width }: { readonly type: string; readonly width: number | null },
  name: string,
): Promise<void> {
  const size = Number(IS_ICON.exec(name)![1]);
  const whole = await store.get(content, 'whole');
  if (!whole) return;
  // On the visitors' side nothing else draws.
  const { default: sharp } = await import('sharp');
  const density =
    type === 'image/svg+xml'
      ? Math.min(MOST_DENSITY, Math.max(DRAWN_AT, (DRAWN_AT * size) / (width ?? size)))
      : undefined;
  const picture = sharp(await buffer(whole.read()), { limitInputPixels: MAX_PIXELS, ...(density && { density }) });
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
