import { type DrawnSketch, type SketchShape, type Tone, wrapped } from '../sketch/draw-sketch.ts';
import type { Picture, Shape } from './map-picture.ts';

/** The tones of drawings on white paper. */
const TONES: Readonly<Record<Tone, string>> = {
  paper: '#FFFFFF',
  plate: '#EEECE7',
  deep: '#DEDBD4',
  line: '#B4B3AE',
  quiet: '#5B6870',
  ink: '#1D2B33',
};
const GAP = 40;
const LINE = 22;
const SIZE = 15;
const NAME = 18;
/** Letters of a line across a drawing: so many to a pixel of its width. */
const LETTERS = 1 / 8;

/** What stands above the drawings on a sheet. */
export interface SheetWords {
  /** Each a paragraph, such as what the page is for. */
  readonly paragraphs: readonly string[];
}

/**
 * A sheet of drawings: words above, and drawings beside each other, each with its name and no wider than it is given.
 * @param drawings as wide as `width` says, in the pixels of the sheet
 */
export function sketchSheet(
  { paragraphs }: SheetWords,
  drawings: readonly { readonly name: string; readonly drawn: DrawnSketch; readonly width: number }[],
): Picture {
  const shapes: Shape[] = [];
  const all = drawings.reduce((sum, { width }) => sum + width, 0) + GAP * Math.max(0, drawings.length - 1);
  let top = 0;
  for (const paragraph of paragraphs)
    for (const text of wrapped(paragraph, Math.max(40, Math.floor(all * LETTERS)), 6)) {
      shapes.push({ kind: 'text', x: 0, y: top + SIZE, text, size: SIZE, color: TONES.ink });
      top += LINE;
    }
  if (top > 0) top += LINE / 2;
  let left = 0;
  let bottom = top;
  for (const { name, drawn, width } of drawings) {
    const scale = width / drawn.width;
    shapes.push({ kind: 'text', x: left, y: top + NAME - 4, text: name, size: NAME - 4, color: TONES.quiet });
    const at = { x: left, y: top + NAME + 6 };
    const height = drawn.height * scale;
    for (const shape of drawn.shapes) shapes.push(...shapesOf(shape, at, scale));
    shapes.push({ kind: 'path', d: rectangle(at.x, at.y, width, height), stroke: TONES.quiet, strokeWidth: 0.75 });
    bottom = Math.max(bottom, at.y + height);
    left += width + GAP;
  }
  return { area: { left: -2, top: -2, right: Math.max(all, 1) + 2, bottom: bottom + 2 }, shapes };
}

function shapesOf(shape: SketchShape, at: { readonly x: number; readonly y: number }, scale: number): Shape[] {
  switch (shape.kind) {
    case 'text':
      return [
        {
          kind: 'text',
          x: at.x + shape.x * scale,
          y: at.y + shape.y * scale,
          text: shape.text,
          size: shape.size * scale,
          color: TONES[shape.tone],
        },
      ];
    case 'plate': {
      const color = TONES[shape.fill ?? 'paper'];
      const d = rectangle(at.x + shape.x * scale, at.y + shape.y * scale, shape.width * scale, shape.height * scale);
      return [
        {
          kind: 'path',
          d,
          stroke: shape.edge ? TONES[shape.edge] : color,
          strokeWidth: shape.edge ? 0.75 : 0,
          ...(shape.fill && { fill: color }),
        },
      ];
    }
    case 'stroke': {
      const points = shape.points.map(([x, y]) => `${round(at.x + x * scale)} ${round(at.y + y * scale)}`);
      return [{ kind: 'path', d: `M${points.join('L')}`, stroke: TONES[shape.tone], strokeWidth: 0.75 }];
    }
  }
}

const rectangle = (x: number, y: number, width: number, height: number): string =>
  `M${round(x)} ${round(y)}H${round(x + width)}V${round(y + height)}H${round(x)}Z`;
const round = (length: number): number => Math.round(length * 100) / 100;
