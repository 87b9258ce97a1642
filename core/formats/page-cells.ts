import { BROUGHT_FIELDS, type BroughtFieldName, type BroughtFields } from '../imports/brought-page.ts';
import { type Cells, type PageValues, pageField } from '../model/page-fields.ts';
import { type Target, targetSchema } from '../model/target.ts';
import { short } from './address-list.ts';

/** A field that has a column in CSV and an attribute in OPML. */
export interface CellField {
  readonly name: BroughtFieldName;
  readonly column: { readonly name: string; readonly cells: Cells };
}
export const CELL_FIELDS: readonly CellField[] = BROUGHT_FIELDS.flatMap((name) => {
  const { column } = pageField(name).file;
  return column === null ? [] : [{ name, column }];
});

/** What a page says in one field, as the text of a cell; undefined where it says nothing. */
export function writeCell({ name, column }: CellField, page: PageValues, language: string): string | undefined {
  const value = pageField(name).file.write(page[name], language);
  if (value === undefined) return undefined;
  if (column.cells === 'yes-no') return value ? 'yes' : 'no';
  if (column.cells !== 'target') return String(value);
  const target = value as Target;
  return 'url' in target ? target.url : target.page;
}

const YES = /^(yes|true|1|y|x)$/i;
const NO = /^(no|false|0|n)$/i;
const PAGE_ID = /^[0-9A-Za-z]{1,24}$/;

/**
 * What cells say of a page. `textOf` gives the text of a column; undefined where there is no such column. A value that
 * cannot be is left out, and noted.
 */
export function fieldsOfCells(
  textOf: (column: CellField['column'], name: BroughtFieldName) => string | undefined,
  note: (detail: string) => void,
): BroughtFields {
  return Object.fromEntries(
    CELL_FIELDS.map(({ name, column }) => {
      const text = textOf(column, name);
      return [name, text === undefined ? undefined : readCell(text, column, note)];
    }),
  );
}

function readCell(text: string, column: CellField['column'], note: (detail: string) => void): unknown {
  const { cells } = column;
  if (cells === 'text') return text;
  if (text === '') return undefined;
  const leftOut = (is: string) => note(`‘${short(text)}’ in ${column.name} is ${is}; it is left out.`);
  if (cells === 'yes-no') {
    if (YES.test(text)) return true;
    if (NO.test(text)) return false;
    return leftOut('neither yes nor no');
  }
  if (cells === 'target') {
    const parsed = targetSchema.safeParse(PAGE_ID.test(text) ? { page: text } : { url: text });
    return parsed.success ? parsed.data : leftOut('neither a page nor an outside address');
  }
  const value = cells.find((one) => one === text.toLowerCase()) ?? spelledOut(cells, text);
  return value ?? leftOut(`none of ${cells.join(', ')}`);
}

/** Yes and no for what can be so in more than one way: not hidden, or the page alone. */
const spelledOut = (cells: readonly string[], text: string): string | undefined =>
  !cells.includes('no') ? undefined : NO.test(text) ? 'no' : YES.test(text) ? 'page' : undefined;
