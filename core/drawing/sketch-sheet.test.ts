import { describe, expect, it } from 'vitest';
import type { BoxId } from '../model/sketch.ts';
import { newBox } from '../sketch/arrange-boxes.ts';
import { drawSketch } from '../sketch/draw-sketch.ts';
import { surroundOf } from '../sketch/surround.ts';
import { emptySite } from '../testing/random-site.ts';
import { sketchSheet } from './sketch-sheet.ts';

const surround = surroundOf(emptySite(), null);
const boxes = [{ ...newBox('a' as BoxId), purpose: 'What it costs' }, newBox('b' as BoxId, 'picture')];
const drawing = (name: string, width: number) => ({ name, width, drawn: drawSketch(boxes, surround, 'desktop', 24) });
const words = (sheet: ReturnType<typeof sketchSheet>) =>
  sheet.shapes.flatMap((shape) => (shape.kind === 'text' ? [shape.text] : []));

describe('a sheet of sketches', () => {
  it('has its words above, and each drawing with its name, beside each other', () => {
    const sheet = sketchSheet({ paragraphs: ['A family decides to come.'] }, [drawing('A', 400), drawing('B', 400)]);
    expect(words(sheet)).toEqual(expect.arrayContaining(['A family decides to come.', 'A', 'B', 'What it costs']));
    expect(words(sheet).filter((text) => text === 'What it costs')).toHaveLength(2);
    expect(sheet.area.right - sheet.area.left).toBe(844);
    const names = sheet.shapes.flatMap((shape) =>
      shape.kind === 'text' && ['A', 'B'].includes(shape.text) ? [shape.x] : [],
    );
    expect(names).toEqual([0, 440]);
  });

  it('holds all that it draws', () => {
    const { area, shapes } = sketchSheet({ paragraphs: [] }, [drawing('A', 300)]);
    for (const shape of shapes) {
      const [, ...numbers] = shape.kind === 'path' ? shape.d.split(/[A-Z ]/) : ['', String(shape.x), String(shape.y)];
      for (const number of numbers.filter(Boolean).map(Number))
        expect(number).toBeLessThanOrEqual(Math.max(area.right, area.bottom));
    }
  });

  it('has room for a drawing that is not there', () =>
    expect(sketchSheet({ paragraphs: ['Nothing yet.'] }, []).area.bottom).toBeGreaterThan(20));
});
