import { describe, expect, it } from 'vitest';
import type { TextPart } from '../model/content.ts';
import type { FileId } from '../files/file.ts';
import { type FileFacts, fileFaultsOf } from './file-faults.ts';
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

const FILE = 'AAAAAAAAAAAAAAA1' as FileId;
const picture = (attrs: object): TextPart => ({ type: 'picture', attrs: { file: FILE, alternative: null, ...attrs } });
const facts = (of: Partial<FileFacts>): FileFacts => ({
  type: 'image/png',
  length: 9000,
  alternative: '',
  isDecoration: false,
  ...of,
});

describe('what is found of the files of a text', () => {
  it.each<[string, TextPart, FileFacts | null, string[]]>([
    ['a picture without words', picture({}), facts({}), ['alternative']],
    ['none where the library has some', picture({}), facts({ alternative: 'A boat' }), []],
    ['none where it is decoration', picture({}), facts({ isDecoration: true }), []],
    ['none where the text has its own', picture({ alternative: 'A boat' }), facts({}), []],
    ['none where the text says that it decorates', picture({ alternative: '' }), facts({}), []],
    ['a file that the library does not have', picture({}), null, ['no file']],
    [
      'a picture in a gallery',
      { type: 'gallery', attrs: { pictures: [{ file: FILE, caption: 'x' }] } },
      facts({}),
      ['alternative'],
    ],
    ['one in a note', note(picture({})), facts({}), ['alternative']],
    [
      'a large document',
      { type: 'download', attrs: { file: FILE } },
      facts({ type: 'application/pdf', length: 2e7 }),
      ['large file'],
    ],
    ['none where it is small', { type: 'download', attrs: { file: FILE } }, facts({ type: 'application/pdf' }), []],
  ])('%s', (_, part, file, expected) =>
    expect(fileFaultsOf({ type: 'doc', content: [part] }, new Map(file ? [[FILE, file]] : []))).toEqual(expected),
  );
  it('is an empty place, and a film without subtitles, whatever the library has', () => {
    expect(faults(picture({ file: null }))).toEqual(['no file']);
    expect(faults({ type: 'film', attrs: { file: FILE, subtitles: null } })).toEqual(['subtitles']);
    expect(faults({ type: 'film', attrs: { file: FILE, subtitles: FILE } })).toEqual([]);
  });
});

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
