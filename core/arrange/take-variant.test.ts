import { describe, expect, it } from 'vitest';
import type { ContentId } from '../model/ids.ts';
import { toPageId } from '../model/ids.ts';
import type { SketchId } from '../model/plan.ts';
import type { BoxId, VariantId } from '../model/sketch.ts';
import { nodeAt } from '../model/site.ts';
import { applyOperations } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { plannedBoxesOf } from '../sketch/planned-boxes.ts';
import { newBox } from '../sketch/arrange-boxes.ts';
import { emptySite, siteAfter } from '../testing/random-site.ts';
import { takeVariant } from './take-variant.ts';

const [s1, a, b] = ['s1', 'a', 'b'] as string[] as [SketchId, VariantId, VariantId];
const [written, bare, other] = ['written', 'bare', 'other'].map(toPageId) as [
  ReturnType<typeof toPageId>,
  ReturnType<typeof toPageId>,
  ReturnType<typeof toPageId>,
];
const page = (id: typeof bare, fields: object): Operation[] => [
  { name: 'page.add', page: id, place: { parent: null }, title: { en: id } },
  { name: 'page.set', page: id, fields },
];
const site = siteAfter(
  [
    {
      name: 'sketch.add',
      sketch: s1,
      title: 'Course',
      variants: [
        { id: a, name: 'A', boxes: [newBox('one' as BoxId), newBox('two' as BoxId, 'picture')] },
        { id: b, name: 'B', boxes: [] },
      ],
    },
    ...page(written, { content: 'c1' as ContentId, plan: { sketch: s1 } }),
    ...page(bare, { plan: { sketch: s1 } }),
    ...page(other, {}),
  ],
  emptySite(),
);
const sketch = site.sketches[0]!;

describe('taking a variant', () => {
  it('gives pages without a text its sections, empty, in one edit that can be undone; texts stay', () => {
    const { operations, contents, filled, kept } = takeVariant(site, sketch, a);
    expect([filled, kept]).toEqual([[bare], [written]]);
    const outcome = applyOperations(site, operations);
    if (!outcome.ok) throw new Error(outcome.code);
    expect(outcome.site.sketches[0]!.taken).toBe(a);
    expect(plannedBoxesOf(contents[0]!.document).map(({ box }) => box)).toEqual(['one', 'two']);
    const contentOf = (id: typeof bare) => nodeAt(outcome.site, id).content;
    expect([contentOf(bare), contentOf(written), contentOf(other)]).toEqual([contents[0]!.id, 'c1', null]);
    const back = applyOperations(outcome.site, outcome.inverse);
    expect(back.ok && back.site.sketches[0]!.taken).toBeNull();
    expect(back.ok && nodeAt(back.site, bare).content).toBeNull();
  });

  it('of a variant without boxes only says which one it is, and nothing twice', () => {
    expect(takeVariant(site, sketch, b)).toMatchObject({ contents: [], filled: [], kept: [written, bare] });
    const taken = siteAfter([{ name: 'sketch.set', sketch: s1, fields: { taken: b } }], site);
    expect(takeVariant(taken, taken.sketches[0]!, b).operations).toEqual([]);
  });
});
