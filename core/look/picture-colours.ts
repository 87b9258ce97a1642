import { type Hex, hexOf, shadeOf } from './colours.ts';

/** Pixels that are see-through by more than half say nothing. */
const OPAQUE = 128;
/** Colours closer than this (in Oklab) are one. */
const APART = 0.1;
/** So many bits of each channel tell one bin of colours from the next. */
const BITS = 4;

/**
 * The colours that make a picture what it is, the most telling first: much of it, and full of colour. White, black and greys come only where there
 * is nothing else. @param pixels red, green, blue and opacity, 0 to 255, one pixel after another @param most so many at most
 */
export function coloursOfPicture(pixels: ArrayLike<number>, most: number): Hex[] {
  const bins = new Map<number, { r: number; g: number; b: number; count: number }>();
  let all = 0;
  for (let at = 0; at + 3 < pixels.length; at += 4) {
    if (pixels[at + 3]! < OPAQUE) continue;
    const [r, g, b] = [pixels[at]!, pixels[at + 1]!, pixels[at + 2]!];
    const key = ((r >> (8 - BITS)) << (2 * BITS)) | ((g >> (8 - BITS)) << BITS) | (b >> (8 - BITS));
    const bin = bins.get(key) ?? { r: 0, g: 0, b: 0, count: 0 };
    bins.set(key, { r: bin.r + r, g: bin.g + g, b: bin.b + b, count: bin.count + 1 });
    all++;
  }
  const found = [...bins.entries()].map(([key, { r, g, b, count }]) => {
    const hex = `#${[r, g, b]
      .map((sum) =>
        Math.round(sum / count)
          .toString(16)
          .padStart(2, '0'),
      )
      .join('')}`;
    const shade = shadeOf(hex);
    const isColour = shade.c > 0.03 && shade.l > 0.2 && shade.l < 0.95;
    return { key, hex, shade, weight: Math.sqrt(count / all) * (isColour ? shade.c + 0.02 : 0.001) };
  });
  const chosen: typeof found = [];
  for (const one of found.toSorted((a, b) => b.weight - a.weight || a.key - b.key)) {
    if (chosen.length >= most) break;
    if (chosen.every((other) => distance(one.shade, other.shade) > APART)) chosen.push(one);
  }
  const colours = chosen.filter(({ shade }) => shade.c > 0.03);
  return (colours.length > 0 ? colours : chosen.slice(0, 1)).map(({ shade }) => hexOf(shade));
}

function distance(one: { l: number; c: number; h: number }, other: { l: number; c: number; h: number }): number {
  const plane = ({ c, h }: { c: number; h: number }) => [
    c * Math.cos((h * Math.PI) / 180),
    c * Math.sin((h * Math.PI) / 180),
  ];
  const [a1 = 0, b1 = 0] = plane(one);
  const [a2 = 0, b2 = 0] = plane(other);
  return Math.hypot(one.l - other.l, a1 - a2, b1 - b2);
}
