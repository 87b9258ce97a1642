import { coloursOfPicture } from '#core/look/picture-colours.ts';

/** The colours of a picture are found in so many pixels across, which is quick and enough. */
const PIXELS_ACROSS = 120;
const MOST_COLOURS = 5;

/** The colours of a picture at an address, drawn small. @throws where it is none that the browser can draw */
export async function coloursIn(address: string): Promise<string[]> {
  const picture = new Image();
  picture.src = address;
  await picture.decode();
  const across = PIXELS_ACROSS;
  const down = Math.max(1, Math.round((across * picture.naturalHeight) / Math.max(1, picture.naturalWidth)));
  const canvas = new OffscreenCanvas(across, Math.min(down, across * 4));
  const drawing = canvas.getContext('2d')!;
  drawing.drawImage(picture, 0, 0, canvas.width, canvas.height);
  return coloursOfPicture(drawing.getImageData(0, 0, canvas.width, canvas.height).data, MOST_COLOURS);
}
