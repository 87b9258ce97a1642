import type { MeasureText } from '#core/drawing/menu-fit.ts';

const known = new Map<string, number>();
const MAX_KEPT = 50_000;
let context: CanvasRenderingContext2D | null = null;

const FONT = "'Hanken Grotesk Variable', system-ui, sans-serif";

/** Holds once the font is there: before that another one would be measured. */
export const fontLoaded = (): Promise<unknown> =>
  Promise.all([400, 650].map((weight) => document.fonts.load(`${weight} 17px ${FONT}`)));

/** Measures text with the font file that visitors' pages are set in, which is the workbench's own; each text once. */
export const measureText: MeasureText = (text, size, weight) => {
  const key = `${size} ${weight} ${text}`;
  let width = known.get(key);
  if (width === undefined) {
    context ??= document.createElement('canvas').getContext('2d')!;
    context.font = `${weight} ${size}px ${FONT}`;
    width = context.measureText(text).width;
    if (known.size >= MAX_KEPT) known.clear();
    known.set(key, width);
  }
  return width;
};
