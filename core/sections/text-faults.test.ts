import { describe, expect, it } from 'vitest';
import type { TextPart } from '../model/content.ts';
import { INSERTABLE } from './all-sections.ts';
import { textFaultsOf } from './text-faults.ts';

const text = (words: string, href?: string): TextPart => ({
  type: 'text',
  text: words,
  ...(href !== undefined && { marks: [{ type: 'link', attrs: { href } }] }),
});
const heading = (level: number, ...content: TextPart[]): TextPart => ({ type: 'heading', attrs: { level }, content });
const paragraph = (...content: TextPart[]): TextPart => ({ type: 'paragraph', content });
const faults = (...content: TextPart[]) => textFaultsOf({ type: 'doc', content });
const note = (...content: TextPart[]): TextPart => ({ type: 'note', content });

describe('what is found in a text', () => {
  it.each<[string, TextPart[], string[]]>([
    ['nothing in plain words', [heading(2, text('Tides')), paragraph(text('Low at six.'))], []],
    ['a heading without words', [heading(2)], ['empty heading']],
    ['none where a fact stands in it', [heading(2, { type: 'fact', attrs: { id: 'telephone' } })], []],
    ['a level that is skipped', [heading(2, text('a')), heading(4, text('b'))], ['skipped heading']],
    ['that the first is too deep', [heading(3, text('a'))], ['skipped heading']],
    [
      'none where it goes up by several',
      [heading(2, text('a')), heading(3, text('b')), heading(4, text('c')), heading(2, text('d'))],
      [],
    ],
    ['a skip across a section', [heading(2, text('a')), note(heading(4, text('b')))], ['skipped heading']],
    ['words that say nothing', [paragraph(text('See '), text('Click here!', 'page:a'))], ['link words']],
    ['them in German', [paragraph(text('Weiterlesen …', 'page:a'))], ['link words']],
    [
      'none where more words belong to the link',
      [paragraph(text('More', 'page:a'), text(' about tides', 'page:a'))],
      [],
    ],
    [
      'each of two links beside each other',
      [paragraph(text('Tides', 'page:a'), text('here', 'page:b'))],
      ['link words'],
    ],
    ['a button that leads nowhere', [{ type: 'button', attrs: { to: '' }, content: [text('Apply')] }], ['button']],
    [
      'a button that says nothing',
      [{ type: 'button', attrs: { to: 'page:a' }, content: [text('Read on')] }],
      ['link words'],
    ],
  ])('%s', (_, content, found) => expect(faults(...content)).toEqual(found));

  it('a table without a header, not one as it is inserted', () => {
    const table = INSERTABLE.find(({ type }) => type === 'table')!.make();
    expect(faults(table)).toEqual([]);
    const plain = JSON.parse(JSON.stringify(table).replaceAll('tableHeader', 'tableCell')) as TextPart;
    expect(faults(plain)).toEqual(['table header']);
  });
});
