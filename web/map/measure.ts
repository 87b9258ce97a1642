import type { Measure } from '#core/drawing/map-nodes.ts';

/** The types of a map, as the drawing and the measuring of it use them. */
export const MAP_TYPE = {
  title: { size: 13, weight: 500, family: "'Hanken Grotesk Variable', system-ui, sans-serif" },
  number: { size: 10.5, weight: 450, family: "'Spline Sans Mono Variable', ui-monospace, monospace" },
} as const;

const known = { title: new Map<string, number>(), number: new Map<string, number>() };
const MAX_KEPT = 200_000;
let context: CanvasRenderingContext2D | null = null;

/** Measures text in the map's types word by word: the browser is asked for each word once, however many titles have it. */
export const measure: Measure = (text, type) => {
  // All letters of the type of numbers are of one width.
  if (type === 'number' && /^[\x20-\x7e]*$/.test(text)) return text.length * widthOf('0', type);
  let width = 0;
  let from = 0;
  for (let to = text.indexOf(' '); to !== -1; from = to + 1, to = text.indexOf(' ', from))
    width += (to > from ? widthOf(text.slice(from, to), type) : 0) + widthOf(' ', type);
  return from < text.length ? width + widthOf(text.slice(from), type) : width;
};

function widthOf(word: string, type: keyof typeof MAP_TYPE): number {
  const widths = known[type];
  let width = widths.get(word);
  if (width === undefined) {
    context ??= document.createElement('canvas').getContext('2d')!;
    const { size, weight, family } = MAP_TYPE[type];
    context.font = `${weight} ${size}px ${family}`;
    width = context.measureText(word).width;
    if (widths.size >= MAX_KEPT) widths.clear();
    widths.set(word, width);
  }
  return width;
}
