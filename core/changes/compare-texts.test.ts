import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import type { TextDocument, TextPart } from '../model/content.ts';
import { type ComparedBlock, compareTexts } from './compare-texts.ts';

const paragraph = (text: string): TextPart => ({
  type: 'paragraph',
  content: text === '' ? [] : [{ type: 'text', text }],
});
const document = (...content: TextPart[]): TextDocument => ({ type: 'doc', content });
const wordsOf = (block: ComparedBlock | null) => block?.pieces.map(({ words }) => words).join('');

describe('two texts beside each other', () => {
  it('have the words marked that only one of them has', () => {
    const rows = compareTexts(
      document(paragraph('The course begins in May.'), paragraph('Bring gloves.')),
      document(paragraph('The course begins in early June.'), paragraph('Bring gloves.'), paragraph('Lunch is free.')),
    );
    expect(rows.map(({ isSame }) => isSame)).toEqual([false, true, false]);
    const marked = (block: ComparedBlock | null) =>
      block?.pieces.filter(({ mark }) => mark === 'here only').map(({ words }) => words.trim());
    expect([marked(rows[0]!.before), marked(rows[0]!.after)]).toEqual([['May'], ['early June']]);
    expect([rows[2]!.before, marked(rows[2]!.after)]).toEqual([null, ['Lunch is free.']]);
  });

  it('say what each block is, in lists and quotations too', () => {
    const list = { type: 'bulletList', content: [{ type: 'listItem', content: [paragraph('Saws')] }] };
    const heading = { type: 'heading', attrs: { level: 3 }, content: [{ type: 'text', text: 'Tools' }] };
    const rows = compareTexts(null, document(heading, list, { type: 'blockquote', content: [paragraph('Sharp.')] }));
    expect(rows.map(({ after }) => after!.kind)).toEqual(['heading 3', 'list item', 'quotation']);
  });

  it('say which section differs, one without words too', () => {
    const list = (most: number): TextPart => ({
      type: 'pageList',
      attrs: { of: null, look: 'list', order: 'tree', most },
    });
    const fold = {
      type: 'fold',
      content: [{ type: 'foldQuestion', content: paragraph('When?').content! }, paragraph('At six.')],
    };
    const note = (text: string) => ({ type: 'note', attrs: { tone: 'note' }, content: [paragraph(text)] });
    const rows = compareTexts(document(fold, note('Wet.'), list(0)), document(fold, note('Dry.'), list(3)));
    expect(rows.map(({ after, isSame }) => [after!.kind, isSame])).toEqual([
      ['question', true],
      ['answer', true],
      ['section', true],
      ['note', false],
      ['section', false],
    ]);
    expect(rows.map(({ after }) => wordsOf(after))).toEqual([
      'When?',
      'At six.',
      'Note: note',
      'Dry.',
      'List of pages: list, tree, 3',
    ]);
  });

  it('tell another file, target, shared section or link by its name', () => {
    const names = {
      file: () => 'Slip',
      page: () => 'Visit',
      shared: () => 'Hours',
      form: () => 'Apply',
      field: () => 'Price',
      fact: () => 'Telephone',
    };
    const parts: TextPart[] = [
      { type: 'picture', attrs: { file: 'AAAAAAAAAAAAAAA1', place: 'left', alternative: null, credit: 'Wren' } },
      { type: 'gallery', attrs: { pictures: [{ file: 'AAAAAAAAAAAAAAA1', caption: 'At noon' }] } },
      { type: 'button', attrs: { to: 'page:p1' }, content: [{ type: 'text', text: 'Come' }] },
      { type: 'shared', attrs: { of: 's1' } },
      {
        type: 'paragraph',
        content: [
          { type: 'text', text: 'See ' },
          { type: 'text', text: 'the slip', marks: [{ type: 'link', attrs: { href: 'page:p1' } }] },
          { type: 'fact', attrs: { id: 'phone' } },
        ],
      },
    ];
    expect(compareTexts(null, document(...parts), names).map(({ after }) => wordsOf(after))).toEqual([
      'Picture: Slip, left, Wren',
      'Gallery: Slip, At noon',
      'Button: → Visit',
      'Come',
      'Shared section: Hours',
      'See the slip (→ Visit)[Telephone]',
    ]);
    const other = parts.map((part) => (part.type === 'shared' ? { ...part, attrs: { of: 's2' } } : part));
    expect(compareTexts(document(...parts), document(...other)).filter(({ isSame }) => !isSame).length).toBe(1);
  });

  it('leave no word of either out, and differ nowhere where they are the same', () => {
    const text = fc.array(
      fc.constantFrom('boat', 'oar', 'the', 'sea ', '  tide', 'a\u0301', '工房', '<b>').map((word) => paragraph(word)),
      { maxLength: 6 },
    );
    holds(
      fc.property(text, text, (one, other) => {
        const rows = compareTexts(document(...one), document(...other));
        const side = (which: 'before' | 'after') => rows.flatMap((row) => wordsOf(row[which]) ?? []);
        expect(side('before')).toEqual(one.map((part) => part.content![0]!.text));
        expect(side('after')).toEqual(other.map((part) => part.content![0]!.text));
        expect(compareTexts(document(...one), document(...one)).every(({ isSame }) => isSame)).toBe(true);
      }),
    );
  });
});
