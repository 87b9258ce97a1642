import { SCREEN_WIDTHS, type ScreenWidth } from '../drawing/screen-widths.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BOX_TYPES, type BoxId } from '../model/sketch.ts';
import { Draw } from '../testing/draw.ts';
import { drawBoxes } from '../testing/draw-sketch-edits.ts';
import { plantSite } from '../testing/random-site.ts';
import { drawSketch, wrapped } from './draw-sketch.ts';
import { surroundOf } from './surround.ts';

const WIDTHS = Object.keys(SCREEN_WIDTHS) as ScreenWidth[];
const site = plantSite({ seed: 4, pages: 30, shape: 'mixed' });
const surround = surroundOf(site, null);
const one = (type: (typeof BOX_TYPES)[number], words: number | null = null) => ({
  id: 'a' as BoxId,
  type,
  purpose: 'What it costs',
  words,
  width: 'whole' as const,
});

describe('a drawn sketch', () => {
  it('has every box once, none over another, all within the page, at every width', () => {
    fc.assert(
      fc.property(fc.nat(), fc.constantFrom(...WIDTHS), fc.constantFrom(12, 26, 40), (seed, at, letter) => {
        const boxes = drawBoxes(new Draw(seed));
        const drawn = drawSketch(boxes, surround, at, letter);
        expect(drawn.boxes.map(({ id }) => id)).toEqual(boxes.map(({ id }) => id));
        for (const [n, box] of drawn.boxes.entries()) {
          expect(box.x >= 0 && box.x + box.width <= drawn.width + 0.01).toBe(true);
          expect(box.y >= 0 && box.y + box.height <= drawn.height).toBe(true);
          for (const other of drawn.boxes.slice(n + 1))
            expect(
              other.y >= box.y + box.height || other.x >= box.x + box.width || box.x >= other.x + other.width,
            ).toBe(true);
        }
      }),
      { numRuns: 150 },
    );
  });

  it('draws more lines for more words, and crosses pictures', () => {
    const lines = (words: number) => drawSketch([one('text', words)], surround, 'desktop', 26).boxes[0]!.height;
    expect(lines(400)).toBeGreaterThan(lines(80));
    const strokes = (type: 'text' | 'picture') =>
      drawSketch([one(type)], surround, 'desktop', 26).shapes.filter(({ kind }) => kind === 'stroke').length;
    expect(strokes('picture')).toBe(strokes('text') + 2);
  });

  it('stacks on a telephone what stands side by side on a desktop', () => {
    const boxes = ['a', 'b'].map((id) => ({ ...one('text'), id: id as BoxId, width: 'half' as const }));
    const [left, right] = drawSketch(boxes, surround, 'desktop', 26).boxes;
    expect([left!.y, left!.height]).toEqual([right!.y, right!.height]);
    const [upper, lower] = drawSketch(boxes, surround, 'telephone', 26).boxes;
    expect(lower!.y).toBeGreaterThanOrEqual(upper!.y + upper!.height);
  });

  it('has the labels of the menu as they are', () => {
    const label = surround.menus.header[0]!;
    const texts = drawSketch([], surround, 'desktop', 20).shapes.flatMap((shape) =>
      shape.kind === 'text' ? [shape.text] : [],
    );
    expect(label).toBeTruthy();
    expect(texts).toContain(label);
  });

  it.each([
    ['Who teaches here', 9, 3, ['Who', 'teaches', 'here']],
    ['Who teaches here', 20, 1, ['Who teaches here']],
    ['Who teaches here and why', 9, 2, ['Who', 'teaches…']],
    ['', 9, 2, []],
  ])('wraps ‘%s’ at %i', (text, letters, most, lines) => expect(wrapped(text, letters, most)).toEqual(lines));
});
