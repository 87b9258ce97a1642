import { type MeasureText, TEXT_SIZE } from '#core/drawing/menu-fit.ts';
import { TEXT_PIXELS } from '#core/look/style.ts';
import { TYPE_PAIRS } from '#core/look/type-pairs.ts';
import type { Look } from '#core/model/look.ts';

const known = new Map<string, number>();
const MAX_KEPT = 50_000;
let context: CanvasRenderingContext2D | null = null;

type OfText = Pick<Look, 'pair' | 'size'>;
const fontOf = ({ pair }: OfText): string =>
  `'${TYPE_PAIRS.find(({ id }) => id === pair)!.text.name}', system-ui, sans-serif`;

/** Holds once the font of a look is there: before that another one would be measured. */
export const fontLoaded = (look: OfText): Promise<unknown> =>
  Promise.all([400, 650].map((weight) => document.fonts.load(`${weight} 17px ${fontOf(look)}`)));

/** Measures text with the font file and in the size that visitors' pages have in a look; each text once. */
export function measureIn(look: OfText): MeasureText {
  const font = fontOf(look);
  return (text, size, weight) => {
    const pixels = size === TEXT_SIZE ? TEXT_PIXELS[look.size] : size;
    const key = `${pixels} ${weight} ${font} ${text}`;
    let width = known.get(key);
    if (width === undefined) {
      context ??= document.createElement('canvas').getContext('2d')!;
      context.font = `${weight} ${pixels}px ${font}`;
      width = context.measureText(text).width;
      if (known.size >= MAX_KEPT) known.clear();
      known.set(key, width);
    }
    return width;
  };
}
