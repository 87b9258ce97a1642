import type { MeasureText } from '#core/drawing/menu-fit.ts';
import { TYPE_PAIRS, type TypePair, stackOf } from '#core/look/type-pairs.ts';

const known = new Map<string, number>();
const MAX_KEPT = 50_000;
let context: CanvasRenderingContext2D | null = null;

const fontOf = (pair: TypePair['id']): string => stackOf(TYPE_PAIRS.find(({ id }) => id === pair)!.text);

/** Holds once the font of text is there: before that another one would be measured. */
export const fontLoaded = (pair: TypePair['id']): Promise<unknown> =>
  Promise.all([400, 650].map((weight) => document.fonts.load(`${weight} 17px ${fontOf(pair)}`)));

/** Measures text with the font file that visitors' pages have; each text once. */
export function measureIn(pair: TypePair['id']): MeasureText {
  const font = fontOf(pair);
  return (text, size, weight) => {
    const key = `${size} ${weight} ${font} ${text}`;
    let width = known.get(key);
    if (width === undefined) {
      context ??= document.createElement('canvas').getContext('2d')!;
      context.font = `${weight} ${size}px ${font}`;
      width = context.measureText(text).width;
      if (known.size >= MAX_KEPT) known.clear();
      known.set(key, width);
    }
    return width;
  };
}
