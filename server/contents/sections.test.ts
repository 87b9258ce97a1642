import fc from 'fast-check';
import { load } from 'cheerio';
import { describe, expect, it } from 'vitest';
import { type TextDocument, type TextPart, contentIdOf } from '#core/model/content.ts';
import { INSERTABLE, SECTIONS } from '#core/sections/all-sections.ts';
import { isBlank } from '#core/sections/blank.ts';
import { turned, turnsOf } from '#core/sections/turn.ts';
import { textSchema } from '#contract/rich-text.ts';
import { anyDocument } from '../testing/random-document.ts';
import { acceptContent } from './content-service.ts';
import { renderDocument } from '../texts/render-document.ts';

const accept = (...content: TextPart[]) => {
  const document: TextDocument = { type: 'doc', content };
  return acceptContent({ id: contentIdOf(document), document });
};
/** All words of a document, in order. */
const wordsOf = (part: TextDocument | TextPart): string =>
  'text' in part && part.text !== undefined ? part.text : (part.content ?? []).map(wordsOf).join('');

/** What shows something though nobody has written in it. */
const SPEAK_WITHOUT_WORDS = new Set([
  ...[
    'button',
    'pageList',
    'horizontalRule',
    'picture',
    'gallery',
    'download',
    'film',
    'sound',
    'shared',
    'form',
    'pageFields',
    'frame',
    'ownHtml',
  ],
]);

describe('sections of texts', () => {
  it('come in, and render to every word of them, as words', () => {
    const met = new Set<string>();
    fc.assert(
      fc.property(anyDocument, (document) => {
        const { html } = acceptContent({ id: contentIdOf(document), document });
        const $ = load(html);
        $('.quotation figcaption, .credit, .download, .outside, .own').remove();
        expect($('body').text()).toBe(wordsOf(document));
        expect($('script, style, [onclick], [data-section]').length).toBe(0);
        for (const { type } of document.content ?? []) met.add(type);
      }),
      { numRuns: 120 },
    );
    const withoutParts = SECTIONS.filter(({ group }) => group !== 'part').map(({ type }) => type);
    expect([...withoutParts, 'table'].filter((type) => !met.has(type))).toEqual([]);
  });

  it('survive the editor: what it reads of them is what it was given', () => {
    fc.assert(
      fc.property(anyDocument, (document) => {
        const once = textSchema.nodeFromJSON(document).toJSON() as TextDocument;
        expect(textSchema.nodeFromJSON(once).toJSON()).toEqual(once);
        expect(renderDocument(once)).toBe(renderDocument(document));
      }),
      { numRuns: 80 },
    );
  });

  it('are turned into others and back to plain text with every word, and are whole then', () => {
    const met = new Set<string>();
    fc.assert(
      fc.property(anyDocument, (document) => {
        for (const section of document.content!)
          for (const into of turnsOf(section)) {
            met.add(`${section.type} ${into}`);
            const parts = turned(section, into)!;
            accept(...parts);
            const plain = parts.flatMap((part) => (into === 'text' ? [part] : turned(part, 'text')!));
            // What is said beside a quotation is a line of its own then.
            expect(wordsOf({ type: 'doc', content: plain })).toBe(
              wordsOf(section) + (section.type === 'quotation' ? String(section.attrs!.source) : ''),
            );
          }
      }),
      { numRuns: 150 },
    );
    for (const pair of ['note fold', 'fold text', 'columns beside', 'beside columns', 'quotation note'])
      expect(met).toContain(pair);
  });

  it('become a quotation where they hold lines of words alone', () => {
    const line: TextPart = { type: 'paragraph', content: [{ type: 'text', text: 'It rained.' }] };
    const [quotation] = turned({ type: 'note', attrs: { tone: 'note' }, content: [line] }, 'quotation')!;
    expect(accept(quotation!).html).toBe(
      '<figure class="quotation"><blockquote><p>It rained.</p></blockquote></figure>',
    );
    const heading: TextPart = { type: 'heading', attrs: { level: 2 } };
    expect(turned({ type: 'note', attrs: { tone: 'note' }, content: [heading, line] }, 'quotation')).toBeNull();
  });

  it.each(INSERTABLE.map((one) => [one.type, one] as const))('that are inserted are whole: %s', (type, { make }) => {
    const made = make();
    expect(made.type).toBe(type);
    expect(accept(made).document.content).toEqual([made]);
  });

  it('say something without words where they show something', () => {
    for (const { type, make } of INSERTABLE)
      expect([type, isBlank(make())]).toEqual([type, !SPEAK_WITHOUT_WORDS.has(type)]);
  });

  const own = (code: string) => accept({ type: 'ownHtml', attrs: { code } }).html;
  it.each([
    [
      'words and their meaning stay',
      '<p>By <abbr title="at noon">12</abbr></p>',
      '<p>By <abbr title="at noon">12</abbr></p>',
    ],
    ['programs go', '<p onclick="x()">A<script>alert(1)</script></p>', '<p>A</p>'],
    ['styles and ids go', '<p style="color:red" id="content" class="x">A</p><style>p{}</style>', '<p>A</p>'],
    ['what loads goes', '<img src="https://x.example/a.png"><iframe src="https://x.example"></iframe>A', 'A'],
    ['forms go, their words stay', '<form action="/x"><label>Name</label></form>', 'Name'],
    ['an address that runs goes', '<a href="javascript:alert(1)">A</a>', '<a>A</a>'],
    ['a page of the site is linked', '<a href="page:p1">A</a>', '<a href="page:p1">A</a>'],
    [
      'places for files and facts are none',
      '<span data-fact="phone">A</span><p data-file="x">B</p>',
      '<span>A</span><p>B</p>',
    ],
    ['it cannot close what is around it', '</div></div><p>A</p>', '<p>A</p>'],
    ['nor be doubled', '<div data-own="<script>alert(1)</script>">A</div>', '<div>A</div>'],
  ])('of one’s own HTML, %s', (_, code, kept) => expect(own(code)).toBe(`<div class="own">${kept}</div>`));

  const paragraph: TextPart = { type: 'paragraph' };
  it.each<[string, TextPart]>([
    [
      'a frame without encryption',
      { type: 'frame', attrs: { address: 'http://player.example/', title: 'A', shape: 'film' } },
    ],
    ['a frame of a script', { type: 'frame', attrs: { address: 'javascript:alert(1)', title: 'A', shape: 'film' } }],
    [
      'a frame with a password',
      { type: 'frame', attrs: { address: 'https://a:b@x.example/', title: 'A', shape: 'film' } },
    ],
    ['a frame of no shape', { type: 'frame', attrs: { address: '', title: 'A', shape: 'x" onload="y' } }],
    ['endless HTML', { type: 'ownHtml', attrs: { code: 'x'.repeat(30_000) } }],
    ['a button to a script', { type: 'button', attrs: { to: 'javascript:alert(1)' } }],
    ['a button to data', { type: 'button', attrs: { to: 'data:text/html,x' } }],
    ['a note within a note', { type: 'note', content: [{ type: 'note', content: [paragraph] }] }],
    ['columns within a column', { type: 'columns', content: [{ type: 'column', content: [{ type: 'columns' }] }] }],
    ['four columns', { type: 'columns', content: Array(4).fill({ type: 'column', content: [paragraph] }) }],
    ['a fold without a question', { type: 'fold', content: [paragraph] }],
    ['a list of what is no page', { type: 'pageList', attrs: { of: '../x', look: 'list', order: 'tree', most: 0 } }],
    ['a list of too many', { type: 'pageList', attrs: { of: null, look: 'list', order: 'tree', most: 1e9 } }],
    ['an endless source', { type: 'quotation', attrs: { source: 'x'.repeat(400) }, content: [paragraph] }],
    ['a tone that is none', { type: 'note', attrs: { tone: 'x" onclick="y' }, content: [paragraph] }],
    ['a question by itself', { type: 'foldQuestion' }],
    ['a cell by itself', { type: 'tableCell', content: [paragraph] }],
    [
      'a table in a cell',
      {
        type: 'table',
        content: [{ type: 'tableRow', content: [{ type: 'tableCell', content: [{ type: 'table' }] }] }],
      },
    ],
  ])('is refused: %s', (_, part) => expect(() => accept(part)).toThrow());
});
