import { type FileId, fileIdSchema } from '../files/file.ts';
import { type PageId, pageIdSchema } from '../model/ids.ts';
import type { KindField } from '../model/kind-field.ts';
import { type FieldContext, type FieldType, inFormOrder } from './field-type.ts';

const YES: ReadonlySet<string> = new Set(['yes', 'y', 'true', '1', 'x', 'ja', 'j', 'wahr']);
const NO: ReadonlySet<string> = new Set(['no', 'n', 'false', '0', '-', 'nein', 'falsch']);

export const YES_NO: FieldType = {
  type: 'yesNo',
  name: 'Yes or no',
  says: 'Something that is so or is not',
  expects: () => 'yes or no',
  read: (typed) => {
    const word = typed.trim().toLowerCase();
    return YES.has(word) ? 'yes' : NO.has(word) ? 'no' : undefined;
  },
  isValue: (value) => value === 'yes' || value === 'no',
  written: (value) => value,
  words: (value, _, { language }) => (/^de\b/i.test(language) ? (value === 'yes' ? 'Ja' : 'Nein') : capital(value)),
  // Yes comes first.
  compare: (a, b) => inFormOrder(b, a),
  settings: [],
};
const capital = (word: string): string => word[0]!.toUpperCase() + word.slice(1);

/** Several ids are kept with spaces between them, and are written with semicolons. */
const idsIn = (value: string): string[] => value.split(' ');
const namesIn = (typed: string): string[] =>
  typed
    .split(/[;\n]/)
    .map((name) => name.trim())
    .filter((name) => name !== '');
const areOnce = (ids: readonly string[]): boolean => new Set(ids).size === ids.length;

const nameOfChoice = ({ choices }: KindField, id: string): string => choices.find((one) => one.id === id)?.name ?? id;
const namesOfChoices = (value: string, field: KindField): string[] => idsIn(value).map((id) => nameOfChoice(field, id));
/** The choices in the order in which they are listed, each once. */
const inListedOrder = (ids: ReadonlySet<string>, { choices }: KindField): string[] =>
  choices.flatMap(({ id }) => (ids.has(id) ? [id] : []));

export const CHOICE: FieldType = {
  type: 'choice',
  name: 'Choice',
  says: 'One or several of a list',
  expects: ({ choices, isSeveral }) => `${isSeveral ? 'some' : 'one'} of ${choices.map(({ name }) => name).join(', ')}`,
  read: (typed, field) => {
    const names = namesIn(typed).map((name) => name.toLowerCase());
    const found = names.map((name) => field.choices.find((one) => one.name.toLowerCase() === name)?.id);
    if (found.length === 0 || found.includes(undefined)) return undefined;
    const value = inListedOrder(new Set(found as string[]), field);
    return value.length > 1 && !field.isSeveral ? undefined : value.join(' ');
  },
  isValue: (value, field) => {
    const ids = idsIn(value);
    return (
      (ids.length === 1 || field.isSeveral) &&
      ids.every((id) => field.choices.some((one) => one.id === id)) &&
      inListedOrder(new Set(ids), field).join(' ') === value
    );
  },
  written: (value, field) => namesOfChoices(value, field).join('; '),
  words: (value, field) => namesOfChoices(value, field).join(', '),
  compare: inFormOrder,
  settings: ['choices', 'isSeveral'],
};

const pagesIn = (value: string): PageId[] => idsIn(value).flatMap((id) => pageIdSchema.safeParse(id).data ?? []);
const LINKED = /^page:([0-9A-Za-z]{1,24})$/;

/** The page that a typed name means: by its title, where one page has it, or by `page:` and its id. */
function pageNamed(name: string, { pagesTitled }: FieldContext): PageId | undefined {
  const linked = LINKED.exec(name)?.[1];
  if (linked !== undefined) return linked as PageId;
  const found = pagesTitled(name);
  return found.length === 1 ? found[0] : undefined;
}
/** The title of a page where no other has it; else what names it for certain. */
function nameOfPage(page: PageId, { titleOf, pagesTitled }: FieldContext): string {
  const title = titleOf(page);
  return title !== undefined && !/[;\n]|^page:|^\s|\s$/.test(title) && pagesTitled(title).length === 1
    ? title
    : `page:${page}`;
}

export const PAGES: FieldType = {
  type: 'pages',
  name: 'Pages',
  says: 'Other pages of the site, such as the teachers of a course',
  expects: ({ isSeveral }) => (isSeveral ? 'titles of pages, with semicolons between them' : 'the title of a page'),
  read: (typed, { isSeveral }, context) => {
    const pages = namesIn(typed).map((name) => pageNamed(name, context));
    if (pages.length === 0 || pages.includes(undefined) || (pages.length > 1 && !isSeveral)) return undefined;
    return [...new Set(pages)].join(' ');
  },
  isValue: (value, { isSeveral }) => {
    const ids = idsIn(value);
    return pagesIn(value).length === ids.length && areOnce(ids) && (ids.length === 1 || isSeveral);
  },
  written: (value, _, context) =>
    pagesIn(value)
      .map((page) => nameOfPage(page, context))
      .join('; '),
  words: (value, _, { titleOf }) =>
    pagesIn(value)
      .flatMap((page) => titleOf(page) ?? [])
      .join(', '),
  compare: inFormOrder,
  pages: pagesIn,
  settings: ['of', 'isSeveral'],
};

export const FILE: FieldType = {
  type: 'file',
  name: 'File',
  says: 'A picture or a document of the library',
  expects: () => 'a file of the library',
  read: (typed) => fileIdSchema.safeParse(typed.trim()).data,
  isValue: (value) => fileIdSchema.safeParse(value).success,
  written: (value) => value,
  words: (value, _, { fileName }) => fileName(value as FileId) ?? '',
  compare: inFormOrder,
  files: (value) => [value as FileId],
  settings: [],
};

const PLACE = /^(-?\d{1,2}(?:\.\d{1,6})?),(-?\d{1,3}(?:\.\d{1,6})?)$/;
/** Degrees in their one form: WGS 84, up to six decimals, which is ten centimetres. */
function placeOf(latitude: string, longitude: string): string | undefined {
  const [north, east] = [Number(latitude), Number(longitude)];
  if (!(Math.abs(north) <= 90 && Math.abs(east) <= 180)) return undefined;
  const plain = (degrees: number) => String(Number(degrees.toFixed(6)) + 0);
  const value = `${plain(north)},${plain(east)}`;
  return PLACE.test(value) ? value : undefined;
}
const DEGREES = /^-?\d{1,3}(?:\.\d{1,15})?$/;
function readPlace(typed: string): string | undefined {
  const parts = typed.split(/[,;\s]+/).filter((part) => part !== '');
  const [north = '', east = '', ...more] = parts;
  return more.length === 0 && DEGREES.test(north) && DEGREES.test(east) ? placeOf(north, east) : undefined;
}

/** @returns degrees north of the equator and east of Greenwich */
export const degreesOf = (value: string): readonly [north: number, east: number] => {
  const [north = 0, east = 0] = value.split(',').map(Number);
  return [north, east];
};

export const PLACE_TYPE: FieldType = {
  type: 'place',
  name: 'Place on the globe',
  says: 'Degrees north and east, as maps give them',
  expects: () => 'degrees north and degrees east, such as 54.12, -3.21',
  read: (typed) => readPlace(typed),
  isValue: (value) => readPlace(value) === value,
  written: (value) => value.replace(',', ', '),
  words: (value) => {
    const [north, east] = degreesOf(value);
    return `${Math.abs(north)}° ${north < 0 ? 'S' : 'N'}, ${Math.abs(east)}° ${east < 0 ? 'W' : 'E'}`;
  },
  compare: inFormOrder,
  leadsTo: (value) => `geo:${value}`,
  settings: [],
};
