import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { SketchId } from '../model/plan.ts';
import type { Box, BoxId, VariantId } from '../model/sketch.ts';
import { applyOperations } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { emptySite, siteAfter } from '../testing/random-site.ts';
import { Draw } from '../testing/draw.ts';
import { drawBoxes } from '../testing/draw-sketch-edits.ts';
import {
  boxSteps,
  copiedBoxes,
  newBox,
  withBoxAfter,
  withBoxInGap,
  withBoxMoved,
  withBoxSet,
  withBoxTyped,
  withBoxesPasted,
} from './arrange-boxes.ts';

const id = (text: string) => text as BoxId;
const three = ['a', 'b', 'c'].map((one) => newBox(id(one)));
const order = (boxes: readonly Box[]) => boxes.map((one) => one.id).join('');

describe('boxes that are arranged', () => {
  it('move by keys as far as there is room', () => {
    expect(order(withBoxMoved(three, id('a'), 1))).toBe('bac');
    expect(order(withBoxMoved(three, id('c'), -9))).toBe('cab');
    expect(withBoxMoved(three, id('c'), 1)).toBe(three);
    expect(withBoxMoved(three, id('gone'), 1)).toBe(three);
  });

  it('land in the gap that they are dropped into, and lose none', () => {
    expect(order(withBoxInGap(three, id('a'), 3))).toBe('bca');
    expect(order(withBoxInGap(three, id('c'), 0))).toBe('cab');
    expect(withBoxInGap(three, id('b'), 1)).toBe(three);
    expect(withBoxInGap(three, id('b'), 2)).toBe(three);
    fc.assert(
      fc.property(fc.nat(), fc.nat(9), fc.nat(9), (seed, at, gap) => {
        const boxes = drawBoxes(new Draw(seed));
        const moved = withBoxInGap(boxes, boxes[at % boxes.length]!.id, gap % (boxes.length + 1));
        return (
          [...moved].sort((x, y) => (x.id < y.id ? -1 : 1)).every((one) => boxes.includes(one)) &&
          moved.length === boxes.length
        );
      }),
    );
  });

  it('change step by step, and what stays in order is left alone', () => {
    const steps = (before: Box[], after: readonly Box[]) =>
      boxSteps(before, after).map(({ name, box }) => `${name} ${typeof box === 'string' ? box : box.id}`);
    expect(steps(three, [three[1]!, three[2]!, three[0]!])).toEqual(['box.put a']);
    expect(steps(three, three.slice(1))).toEqual(['box.remove a']);
    expect(steps(three, three)).toEqual([]);
    fc.assert(
      fc.property(fc.nat(), fc.nat(), (one, other) => {
        const [before, after] = [drawBoxes(new Draw(one)), drawBoxes(new Draw(other))];
        const [sketch, variant] = ['s', 'v'] as string[] as [SketchId, VariantId];
        const variants = [{ id: variant, name: 'V', boxes: before }];
        const site = siteAfter([{ name: 'sketch.add', sketch, title: 'S', variants }], emptySite());
        const outcome = applyOperations(
          site,
          boxSteps(before, after).map((step) => ({ sketch, variant, ...step }) as Operation),
        );
        if (!outcome.ok) throw new Error(outcome.code);
        expect(outcome.site.sketches[0]!.variants[0]!.boxes).toEqual(after);
      }),
    );
  });

  it('come after the one in which Enter was pressed, and first where there is none', () => {
    expect(order(withBoxAfter(three, id('a'), newBox(id('x'))))).toBe('axbc');
    expect(order(withBoxAfter(three, null, newBox(id('x'))))).toBe('xabc');
  });

  it('take their type and length from what is typed, and keep them where it says nothing of these', () => {
    const typed = withBoxTyped(three, id('a'), 'Questions: ignored');
    expect(typed[0]).toMatchObject({ type: 'text', purpose: 'Questions: ignored' });
    const picture = withBoxTyped(withBoxSet(three, id('a'), { words: 90 }), id('a'), 'Picture: the slipway');
    expect(picture[0]).toMatchObject({ type: 'picture', purpose: 'the slipway', words: null });
    expect(withBoxTyped(picture, id('a'), 'the quay')[0]).toMatchObject({ type: 'picture', purpose: 'the quay' });
  });

  it('take in lines that are pasted, in place of a box that says nothing', () => {
    let n = 0;
    const newId = () => id(`n${n++}`);
    const { boxes, last } = withBoxesPasted(three, id('b'), 'What it costs, 80 words\n\n• Form: Apply', newId);
    expect(boxes.map((one) => [one.id, one.type, one.words])).toEqual([
      ['a', 'text', null],
      ['n0', 'text', 80],
      ['n1', 'form', null],
      ['c', 'text', null],
    ]);
    expect(last).toBe('n1');
    const kept = withBoxesPasted(boxes, id('n1'), 'One more', newId).boxes;
    expect(order(kept)).toBe('an0n1n2c');
    expect(order(copiedBoxes(three, newId))).toBe('n3n4n5');
  });
});
