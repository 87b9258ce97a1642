import type { TextPart } from '../model/content.ts';
import { BAND } from './band.ts';
import { BESIDE } from './beside.ts';
import { BUTTON } from './button.ts';
import { COLUMN, COLUMNS } from './columns.ts';
import { DOWNLOAD } from './download.ts';
import { FILM } from './film.ts';
import { FORM } from './form.ts';
import { FRAME } from './frame.ts';
import { OWN_HTML } from './own-html.ts';
import { FOLD, FOLD_QUESTION } from './fold.ts';
import { GALLERY } from './gallery.ts';
import { NOTE } from './note.ts';
import { PAGE_FIELDS_HERE } from './page-fields.ts';
import { PAGE_LIST } from './page-list.ts';
import { PICTURE } from './picture.ts';
import { QUOTATION } from './quotation.ts';
import { EMPTY_PARAGRAPH, type SectionType } from './section-type.ts';
import { SHARED } from './shared.ts';
import { SOUND } from './sound.ts';

/** Every type of section that is our own, and of parts within one. */
export const SECTIONS: readonly SectionType[] = [
  NOTE,
  BAND,
  FOLD,
  FOLD_QUESTION,
  BUTTON,
  QUOTATION,
  COLUMNS,
  COLUMN,
  BESIDE,
  PAGE_LIST,
  PICTURE,
  GALLERY,
  DOWNLOAD,
  FILM,
  SOUND,
  SHARED,
  FORM,
  PAGE_FIELDS_HERE,
  FRAME,
  OWN_HTML,
];

type Listed = NonNullable<SectionType['listed']> & { readonly type: string };

const cell = (type: string): TextPart => ({ type, content: [EMPTY_PARAGRAPH] });
const row = (type: string): TextPart => ({ type: 'tableRow', content: [cell(type), cell(type), cell(type)] });

/** Those whose nodes come with the editor. */
const OF_THE_EDITOR: readonly Listed[] = [
  {
    type: 'table',
    name: 'Table',
    says: 'Rows and columns, with a header',
    also: ['spreadsheet', 'grid', 'cells'],
    make: () => ({ type: 'table', content: [row('tableHeader'), row('tableCell'), row('tableCell')] }),
  },
  {
    type: 'horizontalRule',
    name: 'Divider',
    says: 'A line between two parts',
    also: ['rule', 'separator', 'line'],
    make: () => ({ type: 'horizontalRule' }),
  },
  {
    type: 'codeBlock',
    name: 'Code',
    says: 'Letter by letter as it is typed',
    also: ['program', 'preformatted'],
    make: () => ({ type: 'codeBlock' }),
  },
];

/** What can be inserted into a text, what is inserted most first. */
export const INSERTABLE: readonly Listed[] = (
  [
    'picture',
    'download',
    'button',
    'note',
    'band',
    'fold',
    'table',
    'pageList',
    'form',
    'columns',
    'beside',
    'gallery',
    'film',
    'sound',
    'frame',
    'shared',
    'pageFields',
    'quotation',
    'horizontalRule',
    'codeBlock',
    'ownHtml',
  ] as const
).map(
  (type) =>
    OF_THE_EDITOR.find((one) => one.type === type) ?? { type, ...SECTIONS.find((one) => one.type === type)!.listed! },
);

/** What a type of section is called; undefined for what is none. */
export const nameOfSection = (type: string): string | undefined => INSERTABLE.find((one) => one.type === type)?.name;
