import { SCHEME_NAMES } from '#core/model/look.ts';
import { BAND_WIDTHS } from '#core/sections/band.ts';
import fc from 'fast-check';
import type { TextDocument, TextPart } from '#core/model/content.ts';

const words = fc.stringMatching(/^[A-Za-z<>&"' ]{0,12}$/);
const text = words.map((one): TextPart[] => (one === '' ? [] : [{ type: 'text', text: one }]));
const paragraph = text.map((content): TextPart => ({ type: 'paragraph', content }));
const heading = fc.record({ level: fc.constantFrom(2, 3, 4), content: text }).map(({ level, content }): TextPart => ({
  type: 'heading',
  attrs: { level },
  content,
}));
const link = fc.constantFrom(
  '',
  'page:p1',
  'page:p1#when',
  'https://ferry.example/a?b=1&c=2',
  'mailto:a@b.example',
  'tel:+44 1632',
);
const button = fc.record({ to: link, content: text }).map(({ to, content }): TextPart => ({
  type: 'button',
  attrs: { to },
  content,
}));
/** Files of a library, as far as it has them. */
export const SOME_FILES = ['AAAAAAAAAAAAAAA1', 'AAAAAAAAAAAAAAA2', 'AAAAAAAAAAAAAAA3'] as const;
const file = fc.constantFrom(...SOME_FILES, null);
const picture = fc
  .record({
    file,
    place: fc.constantFrom('text', 'wide', 'left', 'right'),
    alternative: fc.option(words),
    credit: words,
    content: text,
  })
  .map(({ content, ...attrs }): TextPart => ({ type: 'picture', attrs, content }));
const filed = fc.oneof(
  picture,
  fc.record({ file, words }).map((attrs): TextPart => ({ type: 'download', attrs })),
  fc
    .record({ file, subtitles: file, content: text })
    .map(({ content, ...attrs }): TextPart => ({ type: 'film', attrs, content })),
  fc.record({ file, content: text }).map(({ content, ...attrs }): TextPart => ({ type: 'sound', attrs, content })),
);
const block = fc.oneof(paragraph, heading, button, filed);
const blocks = fc.array(block, { minLength: 1, maxLength: 3 });
const of = (type: string, content: readonly TextPart[], attrs?: object): TextPart => ({
  type,
  content,
  ...(attrs && { attrs: attrs as Record<string, unknown> }),
});
const row = (type: string, cells: readonly TextPart[][]) =>
  of(
    'tableRow',
    cells.map((content) => of(type, content)),
  );
const cells = fc.array(fc.array(paragraph, { minLength: 1, maxLength: 2 }), { minLength: 2, maxLength: 2 });

/** A section of each type that holds blocks; all types are among them. */
const section = fc.oneof(
  fc
    .record({ tone: fc.constantFrom('note', 'warning'), content: blocks })
    .map(({ tone, content }) => of('note', content, { tone })),
  fc
    .record({ question: text, content: blocks })
    .map(({ question, content }) => of('fold', [of('foldQuestion', question), ...content])),
  fc
    .record({ source: words, content: fc.array(paragraph, { minLength: 1 }) })
    .map(({ source, content }) => of('quotation', content, { source })),
  fc.array(blocks, { minLength: 2, maxLength: 3 }).map((columns) =>
    of(
      'columns',
      columns.map((content) => of('column', content)),
    ),
  ),
  fc
    .record({ scheme: fc.constantFrom(...SCHEME_NAMES), width: fc.constantFrom(...BAND_WIDTHS), content: blocks })
    .map(({ content, ...attrs }) => of('band', content, attrs)),
  blocks.map((content) => of('beside', content)),
  fc
    .record({ head: cells, body: cells })
    .map(({ head, body }) => of('table', [row('tableHeader', head), row('tableCell', body)])),
  fc
    .record({
      of: fc.constantFrom(null, 'p1'),
      look: fc.constantFrom('list', 'cards', 'dates'),
      order: fc.constantFrom('tree', 'date'),
      most: fc.nat(20),
    })
    .map((attrs): TextPart => ({ type: 'pageList', attrs })),
  fc
    .array(fc.record({ file: fc.constantFrom(...SOME_FILES), caption: words }), { maxLength: 4 })
    .map((pictures): TextPart => ({ type: 'gallery', attrs: { pictures } })),
  fc.constantFrom(null, 'hours').map((shared): TextPart => ({ type: 'shared', attrs: { of: shared } })),
  fc.constantFrom(null, 'apply').map((form): TextPart => ({ type: 'form', attrs: { of: form } })),
  fc
    .record({
      address: fc.constantFrom('', 'https://player.example/film/7'),
      title: words,
      shape: fc.constantFrom('film', 'map', 'sound', 'form'),
    })
    .map((attrs): TextPart => ({ type: 'frame', attrs })),
  fc
    .constantFrom('', '<dl><dt>Low <b>water</b></dt></dl>', '<script>alert(1)</script>"><img src=x onerror=y>')
    .map((code): TextPart => ({ type: 'ownHtml', attrs: { code } })),
  fc.constant<TextPart>({ type: 'pageFields' }),
  fc.constant<TextPart>({ type: 'horizontalRule' }),
);

/** Texts with sections of every type, with letters that HTML has other uses for. */
export const anyDocument: fc.Arbitrary<TextDocument> = fc
  .array(fc.oneof(block, section), { minLength: 1, maxLength: 6 })
  .map((content) => ({ type: 'doc', content }));
