import fc from 'fast-check';
import { expect, it } from 'vitest';
import { type TextDocument, type TextPart, headingsOf } from '#core/model/content.ts';
import type { Fact } from '#core/model/fact.ts';
import { renderDocument } from '../texts/render-document.ts';
import { withFacts } from './facts.ts';
import { withAnchors } from './heading-anchors.ts';
import { elementsOf, withElements } from './html-elements.ts';

const words = fc.oneof(
  fc.string({ minLength: 1, maxLength: 12 }),
  fc.constantFrom(
    'News',
    'Opening & closing',
    '<h2>no heading</h2>',
    '<a href="page:x">',
    '&lt;',
    '"quoted" >',
    '</h3>',
  ),
);
const marks = fc.constantFrom(
  undefined,
  [{ type: 'bold' }],
  [{ type: 'link', attrs: { href: 'page:visit' } }],
  [{ type: 'italic' }, { type: 'link', attrs: { href: 'https://quay.example/?a=1&b="2"' } }],
);
const said: fc.Arbitrary<TextPart> = fc.oneof(
  fc.record({ text: words, marks }).map(({ text, marks }) => ({ type: 'text', text, ...(marks && { marks }) })),
  fc.constantFrom('f1', 'f2', 'gone').map((id) => ({ type: 'fact', attrs: { id } })),
);
const line = fc.array(said, { maxLength: 4 });
const block: fc.Arbitrary<TextPart> = fc.oneof(
  fc
    .record({ level: fc.constantFrom(2, 3), content: line })
    .map(({ level, content }) => ({ type: 'heading', attrs: { level }, content })),
  line.map((content) => ({ type: 'paragraph', content })),
  line.map((content) => ({ type: 'blockquote', content: [{ type: 'heading', attrs: { level: 3 }, content }] })),
);
const documents: fc.Arbitrary<TextDocument> = fc
  .array(block, { maxLength: 6 })
  .map((content) => ({ type: 'doc', content }));

const facts = [
  { id: 'f1', text: 'Mo–Fr 8–17 h & "by <b>arrangement</b>"' },
  { id: 'f2', text: '' },
] as unknown as Fact[];
const idsOf = (html: string) =>
  elementsOf(html, (name) => name === 'h2' || name === 'h3').map(({ attributes }) => attributes.id);

it('gives each heading of a text the anchor that links to it name, whatever the text says', () => {
  fc.assert(
    fc.property(documents, (document) => {
      expect(idsOf(withAnchors(renderDocument(document)))).toEqual(headingsOf(document).map(({ anchor }) => anchor));
    }),
  );
});

it('says a fact as text in each place that names it, and changes nothing else', () => {
  fc.assert(
    fc.property(documents, (document) => {
      const html = renderDocument(document);
      const pieces = html.split(/<span data-fact="[^"]*"><\/span>/);
      const said = withFacts(html, facts);
      expect(said).not.toContain('data-fact="');
      for (const piece of pieces) expect(said).toContain(piece);
      expect(said.split('Mo–Fr 8–17 h &amp; &quot;by &lt;b&gt;arrangement&lt;/b&gt;&quot;').length).toBe(
        html.split('data-fact="f1"').length,
      );
    }),
  );
});

it('leaves a text as it is where its elements are written as they were', () => {
  fc.assert(
    fc.property(documents, (document) => {
      const html = renderDocument(document);
      const found = elementsOf(html, (name) => name === 'a');
      expect(withElements(html, found, (one) => html.slice(one.from, one.to))).toBe(html);
    }),
  );
});

it('passes over an element within another, and one that is never closed ends with the text', () => {
  const inner = (html: string) =>
    elementsOf(html, (name) => name === 'p').map((one) => html.slice(one.innerFrom, one.innerTo));
  expect(inner('<p>one <em>two</em></p><p>three</p>')).toEqual(['one <em>two</em>', 'three']);
  expect(inner('<p>open')).toHaveLength(1);
});
