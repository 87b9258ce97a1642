import { type TextDocument, type TextPart, contentIdOf } from '../model/content.ts';
import type { ContentId, Language, PageId } from '../model/ids.ts';
import type { Place } from '../model/place.ts';
import type { Operation } from '../operations/operation.ts';
import { INSERTABLE } from '../sections/all-sections.ts';
import { EXERCISES } from './exercises.ts';

type Add = Extract<Operation, { name: 'page.add' }>;

/** Pages to practise on, as operations, and the texts that these name. */
export interface PracticePages {
  readonly operations: readonly Operation[];
  readonly contents: readonly { readonly id: ContentId; readonly document: TextDocument }[];
}

const paragraph = (text: string): TextPart => ({ type: 'paragraph', content: [{ type: 'text', text }] });
const heading = (text: string): TextPart => ({
  type: 'heading',
  attrs: { level: 2 },
  content: [{ type: 'text', text }],
});
const list = (...lines: string[]): TextPart => ({
  type: 'bulletList',
  content: lines.map((line) => ({ type: 'listItem', content: [paragraph(line)] })),
});

/** The sections whose exercises stand on one page. */
const PAGES: readonly { readonly title: string; readonly types: readonly string[] }[] = [
  {
    title: 'Write and arrange',
    types: ['note', 'fold', 'quotation', 'columns', 'beside', 'band', 'button', 'table', 'horizontalRule', 'codeBlock'],
  },
  { title: 'Pictures and files', types: ['picture', 'gallery', 'download', 'film', 'sound'] },
  { title: 'Lists, forms and frames', types: ['pageList', 'pageFields', 'shared', 'form', 'frame', 'ownHtml'] },
];

const exercises = (types: readonly string[]): TextPart[] =>
  types.flatMap((type) => [heading(INSERTABLE.find((one) => one.type === type)!.name), paragraph(EXERCISES[type]!)]);

const INTRODUCTION: readonly TextPart[] = [
  paragraph(
    'Try anything here. Nothing on this page or below it ever goes live, and everybody who writes on the site may change all of it.',
  ),
  list(
    'Type over these words, and press Ctrl+Z in the tree to take it back.',
    'Select a few words and comment on them.',
    'Make a page inside this one, move it, remove it and put it back.',
    'When the place is a muddle, clear it: it is then as it was at the beginning.',
  ),
];

/** A practice page with its exercises, at a place. @param newId makes an id */
export function practicePages(language: Language, place: Place, newId: () => PageId): PracticePages {
  const root = newId();
  const title = (text: string) => ({ [language]: text });
  const contents = new Map<ContentId, TextDocument>();
  const text = (parts: readonly TextPart[]): ContentId => {
    const document: TextDocument = { type: 'doc', content: parts };
    const id = contentIdOf(document);
    contents.set(id, document);
    return id;
  };
  const page = (parent: PageId, name: string, parts: readonly TextPart[]): Add => ({
    name: 'page.add',
    page: newId(),
    place: { parent },
    title: title(name),
    inMenus: false,
    content: text(parts),
  });
  const moving = page(root, 'Move me', [
    paragraph(
      'Drag this row into ‘Write and arrange’, or use the keys ] and [. Watch the strip along the bottom meanwhile.',
    ),
  ]);
  const operations: Operation[] = [
    { name: 'page.add', page: root, place, title: title('Practice page'), inMenus: false, content: text(INTRODUCTION) },
    { name: 'practice.set', page: root },
    ...PAGES.map(({ title: name, types }) => page(root, name, exercises(types))),
    moving,
    page(moving.page, 'Rename me', [
      paragraph('Press F2 and type another title. Its address follows, until you choose one.'),
    ]),
  ];
  return { operations, contents: [...contents].map(([id, document]) => ({ id, document })) };
}

/** Makes the practice page as it was at the beginning: what stands below it is removed, and its exercises are there again. */
export function clearedPractice(
  language: Language,
  practice: PageId,
  below: readonly PageId[],
  newId: () => PageId,
): PracticePages {
  const { operations, contents } = practicePages(language, { parent: null }, newId);
  const [root, , ...rest] = operations as [Add, Operation, ...Add[]];
  return {
    operations: [
      ...below.map((page): Operation => ({ name: 'page.remove', page })),
      { name: 'page.set', page: practice, fields: { content: root.content! } },
      ...rest.map((add) => (add.place.parent === root.page ? { ...add, place: { parent: practice } } : add)),
    ],
    contents,
  };
}
