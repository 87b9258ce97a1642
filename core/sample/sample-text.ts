import { SECTIONS } from '../sections/all-sections.ts';
import { PLAIN_PAGE_LIST } from '../sections/page-list.ts';
import type { TextDocument, TextPart } from '../model/content.ts';
import type { FormId } from '../model/site-form.ts';

/** What the samples show of a library: a drawing that Spur brings along. */
export const SAMPLE_FILE = 'SampleFile000001';
/** The shared section that is shown. */
export const SAMPLE_SHARED = 'hours';

const words = (text: string): TextPart[] => [{ type: 'text', text }];
const paragraph = (text: string): TextPart => ({ type: 'paragraph', content: words(text) });
const marked = (text: string, type: string, attrs?: Record<string, unknown>): TextPart => ({
  type: 'text',
  text,
  marks: [{ type, ...(attrs && { attrs }) }],
});
const list = (type: string): TextPart => ({
  type,
  content: ['Ropes and fenders', 'Tide tables', 'The key of the boathouse'].map((one) => ({
    type: 'listItem',
    content: [paragraph(one)],
  })),
});
const row = (type: string, cells: readonly string[]): TextPart => ({
  type: 'tableRow',
  content: cells.map((one) => ({ type, content: [paragraph(one)] })),
});
const fold = (question: string, answer: string): TextPart => ({
  type: 'fold',
  content: [{ type: 'foldQuestion', content: words(question) }, paragraph(answer)],
});
const pictures = { file: SAMPLE_FILE, credit: 'Drawn for this page' };

/** Samples of what stands in texts besides sections. */
const PLAIN: readonly TextPart[] = [
  {
    type: 'paragraph',
    content: [
      { type: 'text', text: 'The ramp is raised ten minutes before each crossing. What is said of it stands on ' },
      marked('its own page', 'link', { href: 'page:crossing' }),
      { type: 'text', text: ', and it is ' },
      marked('not', 'bold'),
      { type: 'text', text: ' the same ' },
      marked('every day', 'italic'),
      { type: 'text', text: ': ask for ' },
      marked('06:10', 'code'),
      { type: 'text', text: '.' },
    ],
  },
  { type: 'heading', attrs: { level: 2 }, content: words('A heading of a section') },
  { type: 'heading', attrs: { level: 3 }, content: words('A smaller one') },
  { type: 'heading', attrs: { level: 4 }, content: words('The smallest') },
  list('bulletList'),
  list('orderedList'),
  { type: 'blockquote', content: [paragraph('Words that somebody else has said.')] },
  {
    type: 'table',
    content: [
      row('tableHeader', ['Boat', 'Leaves', 'Comes back']),
      row('tableCell', ['Tern', '06:10', '07:40']),
      row('tableCell', ['Gannet', '09:00', '10:30']),
    ],
  },
  { type: 'horizontalRule' },
  { type: 'codeBlock', content: words('06:10  07:40\n09:00  10:30') },
];

/** A sample of each type of section; parts are within one. A type without one fails a test. */
const SAMPLES: Readonly<Record<string, readonly TextPart[]>> = {
  note: [
    { type: 'note', attrs: { tone: 'note' }, content: [paragraph('The office is shut at noon.')] },
    { type: 'note', attrs: { tone: 'warning' }, content: [paragraph('No crossing in a storm.')] },
  ],
  band: ['plain', 'tinted', 'strong', 'dark'].map((scheme) => ({
    type: 'band',
    attrs: { scheme, width: 'text' },
    content: [
      {
        type: 'paragraph',
        content: [
          { type: 'text', text: 'A band within it, with ' },
          marked('a link', 'link', { href: 'page:crossing' }),
          { type: 'text', text: '.' },
        ],
      },
    ],
  })),
  fold: [
    fold('May I bring a bicycle?', 'Yes, on the upper deck.'),
    fold('And a cow?', 'On the first boat of the day, with a rope.'),
  ],
  button: [{ type: 'button', attrs: { to: 'page:crossing' }, content: words('See the crossings') }],
  quotation: [
    { type: 'quotation', attrs: { source: 'A passenger' }, content: [paragraph('It rained, and I would go again.')] },
  ],
  columns: [
    {
      type: 'columns',
      content: ['What stands on the left.', 'What stands on the right.'].map((one) => ({
        type: 'column',
        content: [paragraph(one)],
      })),
    },
  ],
  beside: [{ type: 'beside', content: [paragraph('Beside the text: the late boat takes no cattle.')] }],
  pageList: (['list', 'cards', 'dates', 'table', 'month'] as const).map((look) => ({
    type: 'pageList',
    attrs: {
      ...PLAIN_PAGE_LIST,
      of: 'crossing',
      kind: 'crossing',
      by: look === 'month' ? 'leaves' : null,
      look,
      order: 'date',
      fields: ['price', 'leaves'],
      filters: look === 'table' ? ['deck'] : [],
      atOnce: look === 'table' ? 2 : 0,
    },
  })),
  picture: (['text', 'left', 'right', 'wide'] as const).map((place) => ({
    type: 'picture',
    attrs: { ...pictures, place, alternative: 'A boat at the quay' },
    content: words(`A picture that stands ${place === 'text' ? 'in the text' : place}`),
  })),
  gallery: [
    {
      type: 'gallery',
      attrs: {
        pictures: [
          { file: SAMPLE_FILE, caption: 'At the quay' },
          { file: SAMPLE_FILE, caption: '' },
        ],
      },
    },
  ],
  download: [{ type: 'download', attrs: { file: SAMPLE_FILE, words: 'The timetable' } }],
  film: [{ type: 'film', attrs: { file: SAMPLE_FILE, subtitles: null }, content: words('A film of the crossing') }],
  sound: [{ type: 'sound', attrs: { file: SAMPLE_FILE }, content: words('The horn of the Tern') }],
  shared: [{ type: 'shared', attrs: { of: SAMPLE_SHARED } }],
  pageFields: [{ type: 'pageFields' }],
  frame: [
    {
      type: 'frame',
      attrs: { address: 'https://player.example/film/7', title: 'Something of another host', shape: 'sound' },
    },
  ],
  ownHtml: [{ type: 'ownHtml', attrs: { code: '<dl><dt>Low water</dt><dd>04:12</dd></dl>' } }],
};

/**
 * A text with all that can stand in one: a sample of each type of section, and what texts have besides.
 * @param form the one that it shows: each stands on a page once
 */
export function sampleText(form: FormId): TextDocument {
  const sections = SECTIONS.flatMap(({ type }) => (type === 'form' ? [formSection(form)] : (SAMPLES[type] ?? [])));
  return { type: 'doc', content: [...PLAIN, ...sections] };
}

/** A text with a form alone. */
export const formText = (form: FormId): TextDocument => ({ type: 'doc', content: [formSection(form)] });
const formSection = (of: FormId): TextPart => ({ type: 'form', attrs: { of } });

/** What the shared section says. */
export const SHARED_SAMPLE: TextDocument = {
  type: 'doc',
  content: [paragraph('Open from six to ten, on Sundays from eight.')],
};
