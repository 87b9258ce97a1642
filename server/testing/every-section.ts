import { type TextDocument, type TextPart, contentIdOf } from '#core/model/content.ts';
import type { ContentId } from '#core/model/ids.ts';

const words = (text: string): TextPart[] => [{ type: 'text', text }];
const paragraph = (text: string): TextPart => ({ type: 'paragraph', content: words(text) });
const cell = (type: string, text: string): TextPart => ({ type, content: [paragraph(text)] });
const list = (type: string): TextPart => ({
  type,
  content: ['Ropes', 'Fenders'].map((one) => ({ type: 'listItem', content: [paragraph(one)] })),
});

interface Text {
  readonly id: ContentId;
  readonly document: TextDocument;
}
const textOf = (content: readonly TextPart[]): Text => {
  const document: TextDocument = { type: 'doc', content };
  return { id: contentIdOf(document), document };
};

/** What a shared section says in the text below. */
export const SHARED_TEXT = textOf([{ type: 'blockquote', content: [paragraph('Come early.')] }]);

/**
 * A text with every type of section that has the same elements in the editor and on visitors' pages.
 * @param picture a file of the library @param shared the shared section that says `SHARED_TEXT`
 */
export function everySection(picture: string, shared: string): Text {
  return textOf([
    paragraph('The ramp is raised ten minutes before each crossing.'),
    { type: 'heading', attrs: { level: 2 }, content: words('Before you come') },
    { type: 'heading', attrs: { level: 3 }, content: words('By car') },
    { type: 'heading', attrs: { level: 4 }, content: words('In winter') },
    list('bulletList'),
    list('orderedList'),
    { type: 'shared', attrs: { of: shared } },
    { type: 'note', attrs: { tone: 'note' }, content: [paragraph('The office is shut at noon.')] },
    { type: 'note', attrs: { tone: 'warning' }, content: [paragraph('Not in a storm.')] },
    {
      type: 'table',
      content: [
        { type: 'tableRow', content: [cell('tableHeader', 'Day'), cell('tableHeader', 'Boat')] },
        { type: 'tableRow', content: [cell('tableCell', 'Monday'), cell('tableCell', 'Tern')] },
      ],
    },
    { type: 'button', attrs: { to: 'https://tides.example/' }, content: words('The tides') },
    {
      type: 'columns',
      content: ['Out', 'Back'].map((one) => ({ type: 'column', content: [paragraph(one)] })),
    },
    { type: 'beside', content: [paragraph('The late boat takes no cattle.')] },
    { type: 'quotation', attrs: { source: 'A passenger' }, content: [paragraph('It rained.')] },
    {
      type: 'picture',
      attrs: { file: picture, place: 'text', alternative: 'A boat', credit: 'Wren' },
      content: words('At the quay'),
    },
    { type: 'download', attrs: { file: picture, words: 'As a file' } },
    { type: 'horizontalRule' },
    { type: 'band', attrs: { scheme: 'dark', width: 'page' }, content: [paragraph('From edge to edge')] },
    { type: 'band', attrs: { scheme: 'tinted', width: 'text' }, content: [paragraph('As wide as the text')] },
    { type: 'codeBlock', content: words('06:10') },
    paragraph('That is all.'),
  ]);
}

/** What the shared section `self` says where it names itself, and a text with a button in a note that shows it. */
export const SHOWS_ITSELF = textOf([{ type: 'shared', attrs: { of: 'self' } }]);
export const BUTTON_IN_NOTE = textOf([
  {
    type: 'note',
    attrs: { tone: 'note' },
    content: [paragraph('Ring first'), { type: 'button', attrs: { to: '' }, content: words('Ring') }],
  },
  { type: 'shared', attrs: { of: 'self' } },
]);
