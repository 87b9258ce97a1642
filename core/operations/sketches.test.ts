import { describe, expect, it } from 'vitest';
import type { LabelId } from '../model/access.ts';
import { toPageId } from '../model/ids.ts';
import type { SketchId } from '../model/plan.ts';
import { type Box, type BoxId, MAX_VARIANTS, type VariantId, sketchOf, variantThatHolds } from '../model/sketch.ts';
import { nodeAt } from '../model/site.ts';
import { emptySite } from '../testing/random-site.ts';
import { sketchTotals } from '../derive/sketch-totals.ts';
import { outlineOf } from '../derive/outline.ts';
import { applyOperation, applyOperations, wordsOf } from './apply.ts';
import type { Operation } from './operation.ts';

const s1 = 's1' as SketchId;
const [a, b] = ['a', 'b'] as VariantId[] as [VariantId, VariantId];
const course = 'course' as LabelId;
const box = (id: string): Box => ({ id: id as BoxId, type: 'text', purpose: '', words: null, width: 'whole' });
const after = (...operations: Operation[]) => {
  const outcome = applyOperations(emptySite(), operations);
  if (!outcome.ok) throw new Error(outcome.code);
  return outcome.site;
};
const sketch: Operation = {
  name: 'sketch.add',
  sketch: s1,
  title: 'Course',
  variants: [
    { id: a, name: 'A', boxes: [box('one'), box('two')] },
    { id: b, name: 'B', boxes: [box('three')] },
  ],
};

describe('sketches', () => {
  it('are open until a variant is taken, and open again when that one goes', () => {
    const site = after(sketch);
    expect(variantThatHolds(site.sketches[0]!)).toBeNull();
    const taken = after(sketch, { name: 'sketch.set', sketch: s1, fields: { taken: b } });
    expect(variantThatHolds(taken.sketches[0]!)?.id).toBe(b);
    const removed = applyOperation(taken, { name: 'variant.remove', sketch: s1, variant: b });
    if (!removed.ok) throw new Error(removed.code);
    expect(removed.site.sketches[0]!.taken).toBeNull();
    const back = applyOperations(removed.site, removed.inverse);
    expect(back.ok && back.site.sketches).toEqual(taken.sketches);
  });

  it('are of the pages that name them, and of those of their kinds that name no other', () => {
    const label: Operation = { name: 'label.add', label: course, title: 'Course', about: 'course' };
    const [evening, plain] = [toPageId('evening'), toPageId('plain')];
    const site = after(
      label,
      sketch,
      { name: 'sketch.add', sketch: 's2' as SketchId, title: 'For the kind', kinds: [course] },
      { name: 'page.add', page: evening, place: { parent: null }, title: { en: 'Evening' } },
      { name: 'page.set', page: evening, fields: { access: { labels: [course] } } },
      { name: 'page.add', page: plain, place: { parent: null }, title: { en: 'Plain' } },
    );
    expect(sketchOf(site, nodeAt(site, evening))?.id).toBe('s2');
    expect(sketchOf(site, nodeAt(site, plain))).toBeNull();
    const named = applyOperation(site, { name: 'page.set', page: evening, fields: { plan: { sketch: s1 } } });
    expect(named.ok && sketchOf(named.site, nodeAt(named.site, evening))?.id).toBe(s1);
  });

  it('count up the tree what is planned and written', () => {
    const [top, below] = [toPageId('top'), toPageId('below')];
    const site = after(
      sketch,
      { name: 'sketch.set', sketch: s1, fields: { taken: a } },
      { name: 'page.add', page: top, place: { parent: null }, title: { en: 'Top' } },
      { name: 'page.add', page: below, place: { parent: top }, title: { en: 'Below' } },
      { name: 'page.set', page: top, fields: { plan: { sketch: s1 } } },
      { name: 'page.set', page: below, fields: { plan: { sketch: s1 } } },
    );
    const texts = new Map([
      [
        below,
        new Map([
          ['one' as BoxId, true],
          ['two' as BoxId, false],
        ]),
      ],
    ]);
    const totals = sketchTotals(site, outlineOf(site), texts);
    expect([...totals.planned, ...totals.written]).toEqual([2, 2, 0, 1]);
    expect([...totals.plannedInBranch, ...totals.writtenInBranch, ...totals.sketched]).toEqual([4, 2, 1, 1, 2, 1]);
  });

  it.each<[string, Operation[], string]>([
    ['without a name', [{ name: 'sketch.add', sketch: s1, title: ' ' }], 'sketch-unnamed'],
    [
      'with a variant without a name',
      [sketch, { name: 'variant.set', sketch: s1, variant: a, fields: { title: '' } }],
      'variant-unnamed',
    ],
    [
      'that take what is not there',
      [sketch, { name: 'sketch.set', sketch: s1, fields: { taken: 'z' as VariantId } }],
      'variant-unknown',
    ],
    [
      'with one box twice',
      [sketch, { name: 'variant.set', sketch: s1, variant: a, fields: { boxes: [box('x'), box('x')] } }],
      'box-twice',
    ],
    [
      'with too many variants',
      [
        sketch,
        ...Array.from({ length: MAX_VARIANTS - 1 }, (_, n): Operation => ({
          name: 'variant.add',
          sketch: s1,
          variant: `v${n}` as VariantId,
          title: `V${n}`,
        })),
      ],
      'variant-too-many',
    ],
  ])('are refused %s', (_, operations, code) =>
    expect(applyOperations(emptySite(), operations)).toMatchObject({ ok: false, code }),
  );

  it('keep what two people do to different boxes at the same time', () => {
    const put = (id: string): Operation => ({
      name: 'box.put',
      sketch: s1,
      variant: a,
      box: box(id),
      after: 'one' as BoxId,
    });
    const site = after(
      sketch,
      put('mine'),
      { name: 'box.remove', sketch: s1, variant: a, box: 'two' as BoxId },
      put('theirs'),
    );
    expect(site.sketches[0]!.variants[0]!.boxes.map(({ id }) => id)).toEqual(['one', 'theirs', 'mine']);
  });

  it('tell what was done in words', () => {
    const site = after(sketch);
    const words = (operation: Operation) => wordsOf(operation, site);
    expect(words({ name: 'sketch.set', sketch: s1, fields: { taken: b } })).toBe(
      'took the variant ‘B’ of the sketch ‘Course’',
    );
    const put = (id: string, after?: BoxId | null) =>
      words({ name: 'box.put', sketch: s1, variant: a, box: box(id), ...(after !== undefined && { after }) });
    expect(put('new')).toBe('added a box to the sketch ‘Course’');
    expect(put('one')).toBe('changed a box of the sketch ‘Course’');
    expect(put('two', null)).toBe('rearranged the sketch ‘Course’');
    expect(words({ name: 'box.remove', sketch: s1, variant: a, box: 'one' as BoxId })).toBe(
      'removed a box from the sketch ‘Course’',
    );
  });
});
