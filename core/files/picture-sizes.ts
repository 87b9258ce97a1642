/** The widths that a picture is made in, in pixels: from a telephone of old to a wide screen of double density. */
const WIDTHS = [320, 640, 1024, 1600, 2400] as const;

/** How a picture stands on its page. */
export const PICTURE_PLACES = ['text', 'wide', 'left', 'right'] as const;
export type PicturePlace = (typeof PICTURE_PLACES)[number] | 'tile';

/** The widths of a picture of so many pixels: no wider than it is, and its own where that lies between two. */
export function widthsOf(width: number): number[] {
  const smaller = WIDTHS.filter((one) => one < width);
  const widest = Math.min(width, WIDTHS.at(-1)!);
  return smaller.at(-1) === widest ? smaller : [...smaller, widest];
}

/** How wide it is shown, for the `sizes` of HTML. They follow from the stylesheet: a page's text is 42rem wide at most. */
export const SHOWN_AT: Readonly<Record<PicturePlace, string>> = {
  text: '(min-width: 46rem) 42rem, 92vw',
  wide: '(min-width: 64rem) 60rem, 92vw',
  left: '(min-width: 46rem) 18rem, 92vw',
  right: '(min-width: 46rem) 18rem, 92vw',
  tile: '(min-width: 46rem) 14rem, 46vw',
};
