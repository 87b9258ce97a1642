import type { Measure } from '#core/drawing/map-nodes.ts';

/** The types of a map, as the drawing and the measuring of it use them. */
export const MAP_TYPE = {
  title: { size: 13, weight: 500, family: "'Hanken Grotesk Variable', system-ui, sans-serif" },
  number: { size: 10.5, weight: 450, family: "'Spline Sans Mono Variable', ui-monospace, monospace" },
} as const;

const known = { title: new Map<string, number>(), number: new Map<string, number>() };
const MAX_KEPT = 200_000;
let context: CanvasRenderingContext2D | null = null;

/** Measures text in the map's types; each text once. */
export const measure: Measure = (text, type) => {
  const widths = known[type];
  let width = widths.get(text);
  if (width === undefined) {
    context ??= document.createElement('canvas').getContext('2d')!;
    const { size, weight, family } = MAP_TYPE[type];
    context.font = `${weight} ${size}px ${family}`;
    width = context.measureText(text).width;
    if (widths.size >= MAX_KEPT) widths.clear();
    widths.set(text, width);
  }
  return width;
};
