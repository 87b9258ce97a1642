import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { TextDocument, TextPart } from '../model/content.ts';
import { BOX_TYPES, BOX_WIDTHS, type Box, type BoxId } from '../model/sketch.ts';
import { isBlank } from '../sections/blank.ts';
import { BOXES } from './box-types.ts';
import { plannedBoxesOf, withoutBoxes, withoutEmptyBoxes } from './planned-boxes.ts';
import { lineOfBox, readBoxLine, readBoxes } from './read-boxes.ts';
import { missingIn, rowsOf, withPlaces } from './start-writing.ts';

const box = (id: string, more: Partial<Box> = {}): Box => ({
  id: id as BoxId,
  type: 'text',
  purpose: '',
  words: null,
  width: 'whole',
  ...more,
});
const paragraph = (text: string): TextPart => ({ type: 'paragraph', content: [{ type: 'text', text }] });
const written = (document: TextDocument) =>
  Object.fromEntries(plannedBoxesOf(document).map((one) => [one.box, one.isWritten]));

const anyBoxes = fc
  .array(
    fc.record({
      type: fc.constantFrom(...BOX_TYPES),
      purpose: fc.constantFrom('', 'What it costs', 'Who teaches here: names, and what they do'),
      words: fc.constantFrom(null, 40, 400),
      width: fc.constantFrom(...BOX_WIDTHS),
    }),
    { maxLength: 9 },
  )
  .map((all) => all.map((one, n) => box(`b${n}`, { ...one, words: BOXES[one.type].hasWords ? one.words : null })));

describe('a sketch that becomes a text', () => {
  it('has a place for each box, empty, in order; what shows itself counts as written', () => {
    fc.assert(
      fc.property(anyBoxes, (boxes) => {
        const text = withPlaces(null, boxes);
        if (text === null) return boxes.length === 0;
        const planned = plannedBoxesOf(text);
        return (
          planned.map((one) => one.box).join() === boxes.map(({ id }) => id).join() &&
          planned.every(({ isWritten }, at) => isWritten === ['pageList', 'pageFields'].includes(boxes[at]!.type)) &&
          withPlaces(text, boxes) === text &&
          !isBlank(text)
        );
      }),
    );
  });

  it('keeps what is written, and adds only what is missing after it', () => {
    const first = withPlaces({ type: 'doc', content: [paragraph('Come and see'), { type: 'paragraph' }] }, [box('a')])!;
    expect(first.content).toEqual([paragraph('Come and see'), { type: 'paragraph', attrs: { box: 'a' } }]);
    const boxes = [box('a'), box('b', { type: 'picture' })];
    expect(missingIn(first, boxes).map(({ id }) => id)).toEqual(['b']);
    expect(withPlaces(first, boxes)!.content!.slice(0, 2)).toEqual(first.content);
  });

  it('stands in columns what stands beside each other, where the sections can', () => {
    const half = { width: 'half' } as const;
    const rows = rowsOf([box('a', half), box('b', half), box('c', half), box('d'), box('e', { width: 'third' })]);
    expect(rows.map((row) => row.map(({ id }) => id).join(''))).toEqual(['ab', 'c', 'd', 'e']);
    const types = (...boxes: Box[]) => withPlaces(null, boxes)!.content!.map(({ type }) => type);
    expect(types(box('a', half), box('b', { ...half, type: 'picture' }))).toEqual(['columns']);
    expect(types(box('a', half), box('b', { ...half, type: 'table' }))).toEqual(['paragraph', 'table']);
  });

  it('counts what follows a place as its own, up to the next one, and not across columns', () => {
    const place = (id: string, ...content: TextPart[]): TextPart => ({
      type: 'paragraph',
      attrs: { box: id },
      content,
    });
    expect(
      written({
        type: 'doc',
        content: [place('a'), paragraph('Words'), place('b'), { type: 'paragraph' }, place('c')],
      }),
    ).toEqual({ a: true, b: false, c: false });
    const column = (...content: TextPart[]): TextPart => ({ type: 'column', content });
    expect(
      written({
        type: 'doc',
        content: [{ type: 'columns', content: [column(place('a')), column(paragraph('Words'))] }],
      }),
    ).toEqual({ a: false });
    const button = (to: string) =>
      written({
        type: 'doc',
        content: [{ type: 'button', attrs: { box: 'x', to }, content: [{ type: 'text', text: 'On' }] }],
      });
    expect([button(''), button('page:p1')]).toEqual([{ x: false }, { x: true }]);
    expect(written({ type: 'doc', content: [{ type: 'picture', attrs: { box: 'p', file: null } }] })).toEqual({
      p: false,
    });
    expect(
      written({ type: 'doc', content: [{ type: 'picture', attrs: { box: 'p', file: 'aaaaaaaaaaaaaaaa' } }] }),
    ).toEqual({ p: true });
  });

  it('says nothing of boxes where there are none, as texts did before', () => {
    const bare: TextDocument = { type: 'doc', content: [paragraph('Words'), { type: 'heading', attrs: { level: 2 } }] };
    const open: TextDocument = {
      type: 'doc',
      content: [
        { ...paragraph('Words'), attrs: { box: null } },
        { type: 'heading', attrs: { level: 2, box: null } },
      ],
    };
    expect(withoutEmptyBoxes(open)).toEqual(bare);
    const planned = withPlaces(null, [box('a'), box('b', { type: 'note' })])!;
    expect(withoutEmptyBoxes(planned)).toEqual(planned);
    expect(plannedBoxesOf(withoutBoxes(planned))).toEqual([]);
  });
});

describe('boxes that are typed', () => {
  it.each([
    ['What it costs, 80 words', { type: undefined, purpose: 'What it costs', words: 80 }],
    ['Picture: the slipway at low tide', { type: 'picture', purpose: 'the slipway at low tide', words: undefined }],
    ['- list of pages: coming courses', { type: 'pageList', purpose: 'coming courses', words: undefined }],
    ['Form', { type: 'form', purpose: '', words: undefined }],
    ['Quotation: why she came, 40 words', { type: 'quotation', purpose: 'why she came', words: 40 }],
    ['List', { type: undefined, purpose: 'List' }],
    [': nothing before it', { type: undefined, purpose: ': nothing before it' }],
    ['Opening hours: when and where (about 30 words)', { purpose: 'Opening hours: when and where', words: 30 }],
    ['A page of 0 words, 0 words', { purpose: 'A page of 0 words, 0 words', words: undefined }],
  ])('reads ‘%s’', (line, said) => expect(readBoxLine(line)).toMatchObject(said));

  it('cuts what is too long, and no sign in two', () => {
    const { purpose } = readBoxLine('x'.repeat(299) + '⛵'.repeat(9));
    expect(purpose).toHaveLength(300);
    expect(() => encodeURIComponent(purpose)).not.toThrow();
    expect(readBoxLine('x'.repeat(299) + '\u{1f6f6}').purpose).toBe('x'.repeat(299));
  });

  it('reads what it writes', () => {
    fc.assert(
      fc.property(anyBoxes, (boxes) => {
        let n = 0;
        const again = readBoxes(boxes.map(lineOfBox).join('\n\n'), () => `b${n++}` as BoxId);
        expect(again).toEqual(boxes.map((one) => ({ ...one, width: 'whole' })));
      }),
    );
  });
});
