import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type TextDocument, type TextPart, plainTextOf } from '../model/content.ts';
import { type Replacing, replaceWords } from './replace-words.ts';

const bold = [{ type: 'bold' }];
const text = (words: string, marks?: TextPart['marks']): TextPart => ({
  type: 'text',
  text: words,
  ...(marks && { marks }),
});
const paragraph = (...content: TextPart[]): TextPart => ({ type: 'paragraph', content });
const doc = (...content: TextPart[]): TextDocument => ({ type: 'doc', content });
const asked = (find: string, by: string, more: Partial<Replacing> = {}): Replacing => ({
  find,
  by,
  isWhole: false,
  isExact: false,
  ...more,
});

describe('replacing words in a text', () => {
  it('finds them in every line, and tells what stands around them', () => {
    const note: TextPart = { type: 'note', attrs: { tone: 'note' }, content: [paragraph(text('Shed closed.'))] };
    const { document, places } = replaceWords(doc(paragraph(text('The shed is open.')), note), asked('shed', 'loft'));
    expect(document).toEqual(
      doc(paragraph(text('The loft is open.')), { ...note, content: [paragraph(text('loft closed.'))] }),
    );
    expect(places).toEqual([
      { before: 'The ', found: 'shed', after: ' is open.' },
      { before: '', found: 'Shed', after: ' closed.' },
    ]);
  });

  it('finds what is partly set otherwise, and keeps the look of where it begins', () => {
    const { document } = replaceWords(
      doc(paragraph(text('the lo'), text('ng sh', bold), text('ed'))),
      asked('long shed', 'loft'),
    );
    expect(document).toEqual(doc(paragraph(text('the loft'))));
  });

  it.each<[string, Replacing, string]>([
    ['in any case', asked('SHED', 'loft'), 'loft loftsman loft’s'],
    ['in this case', asked('Shed', 'loft', { isExact: true }), 'shed shedsman loft’s'],
    ['as a whole word', asked('shed', 'loft', { isWhole: true }), 'loft shedsman loft’s'],
    ['with nothing in its place', asked('shed', ''), ' sman ’s'],
    ['with itself within', asked('shed', 'shed shed', { isWhole: true }), 'shed shed shedsman shed shed’s'],
  ])('finds %s', (_, replacing, expected) =>
    expect(replaceWords(doc(paragraph(text('shed shedsman Shed’s'))), replacing).document).toEqual(
      doc(paragraph(text(expected))),
    ),
  );

  it('does not look across a fact, nor change where links lead', () => {
    const link = [{ type: 'link', attrs: { href: 'https://shed.example/' } }];
    const document = doc(paragraph(text('sh'), { type: 'fact', attrs: { id: 'telephone' } }, text('ed', link)));
    expect(replaceWords(document, asked('shed', 'loft')).document).toBe(document);
    expect(replaceWords(doc(paragraph(text('shed', link))), asked('shed', 'loft')).document).toEqual(
      doc(paragraph(text('loft', link))),
    );
  });

  it('takes time that grows with the text alone, though each sign is found and set otherwise', () => {
    const signs = Array.from({ length: 60_000 }, (_, n) => text('a', n % 2 === 0 ? bold : undefined));
    const { document, count } = replaceWords(doc(paragraph(...signs)), asked('a', 'bb'));
    expect([count, plainTextOf(document).length]).toEqual([60_000, 120_000]);
  });

  it('changes nothing but what it tells, and what was replaced is found no more', () => {
    const word = fc.constantFrom('a', 'b', 'ab', 'aB', 'É', 'ß', 'İ', ' ');
    const words = fc.array(word, { minLength: 1, maxLength: 12 }).map((all) => all.join(''));
    const any = fc.array(
      fc
        .array(fc.tuple(words, fc.boolean()), { maxLength: 4 })
        .map((all) => paragraph(...all.map(([one, isBold]) => text(one, isBold ? bold : undefined)))),
      { minLength: 1, maxLength: 4 },
    );
    fc.assert(
      fc.property(any, fc.constantFrom('a', 'ab', 'ba', 'É'), fc.boolean(), (content, find, isExact) => {
        const before = doc(...content);
        const { document, count, places } = replaceWords(before, asked(find, '#', { isExact }));
        expect(places.length).toBe(Math.min(count, 5));
        const [was, is] = [before, document].map((one) =>
          one.content!.map((line) => (line.content ?? []).map((part) => part.text).join('')).join('\n'),
        );
        expect(is!.split('#').length - 1).toBe(count);
        expect(is!.length).toBe(was!.length - count * (find.length - 1));
        expect(replaceWords(document, asked(find, '#', { isExact })).document).toBe(document);
        if (count === 0) expect(document).toBe(before);
        expect(plainTextOf(document)).not.toContain('undefined');
      }),
    );
  });
});
