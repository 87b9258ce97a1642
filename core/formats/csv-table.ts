import { CsvError, parse } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';

/** A CSV file as a table, or why it is none. */
export type CsvTable =
  | {
      readonly ok: true;
      readonly columns: readonly string[];
      /** The cells of each row, and the line on which it begins, from 1. */
      readonly rows: readonly { readonly line: number; readonly cells: readonly string[] }[];
    }
  | { readonly ok: false; readonly line: number | null; readonly detail: string };

export const MAX_CSV_ROWS = 200_000;
/** Reading takes a fifth of a second for a million characters, and nobody else is answered meanwhile. */
export const MAX_CSV_LENGTH = 8_000_000;

/**
 * Reads CSV (RFC 4180) with a first row of column names. The separator is the one of comma, semicolon and tab that the
 * first row has most of. Rows that are too short end in empty cells; a quote that is not closed is refused with its line.
 */
export function readCsvTable(text: string): CsvTable {
  if (text.length > MAX_CSV_LENGTH)
    return {
      ok: false,
      line: null,
      detail: `It is longer than ${MAX_CSV_LENGTH / 1_000_000} million characters. Bring it in parts.`,
    };
  const plain = text.replace(/^\uFEFF/, '');
  try {
    const records = parse(plain, {
      delimiter: separatorOf(plain),
      info: true,
      relax_column_count: true,
      skip_empty_lines: true,
      to: MAX_CSV_ROWS + 1,
    }) as unknown as { record: string[]; info: { lines: number } }[];
    const [head, ...rest] = records;
    if (!head) return { ok: false, line: 1, detail: 'The file is empty. Its first row names the columns.' };
    const columns = head.record.map((name) => withoutMark(name.trim()));
    const twice = columns.find((name, at) => name !== '' && columns.indexOf(name) !== at);
    if (twice !== undefined) return { ok: false, line: 1, detail: `Two columns are named ‘${twice}’. Rename one.` };
    return {
      ok: true,
      columns,
      rows: rest.map(({ record, info }) => ({
        line: info.lines - record.join('').split(/\r\n|\n|\r/).length + 1,
        cells: columns.map((_, at) => withoutMark((record[at] ?? '').trim())),
      })),
    };
  } catch (fault) {
    if (!(fault instanceof CsvError)) throw fault;
    const { lines } = fault as { lines?: number };
    return {
      ok: false,
      line: typeof lines === 'number' ? lines : null,
      detail: CSV_WORDS[fault.code] ?? fault.message,
    };
  }
}

const CSV_WORDS: Readonly<Record<string, string>> = {
  CSV_QUOTE_NOT_CLOSED: 'A quotation mark is opened and never closed.',
  CSV_INVALID_CLOSING_QUOTE: 'After a closing quotation mark a separator or the end of the line must come.',
  INVALID_OPENING_QUOTE: 'A quotation mark stands inside a cell that does not begin with one.',
};

/** Commas, semicolons or tabs: what parts the columns of the first row. */
function separatorOf(text: string): string {
  const first = /^[^\r\n]*/.exec(text)![0].replace(/"[^"]*"/g, '');
  const counts = [',', ';', '\t'].map((one) => [one, first.split(one).length] as const);
  return counts.reduce((best, one) => (one[1] > best[1] ? one : best))[0];
}

/**
 * Spreadsheets take a cell that begins so for a formula, and work it out: an apostrophe in front makes it text (OWASP, CSV
 * injection). One that has such apostrophes already gets one more, so that what is read is what was written.
 */
const withMark = (cell: string): string => (/^'*[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell);
const withoutMark = (cell: string): string => (/^'+[=+\-@\t\r]/.test(cell) ? cell.slice(1).trim() : cell);

/** A table as CSV (RFC 4180), with a first row of column names. `readCsvTable` gives back the same cells. */
export const writeCsvTable = (columns: readonly string[], rows: readonly (readonly string[])[]): string =>
  stringify(
    [columns, ...rows].map((row) => row.map(withMark)),
    { record_delimiter: '\r\n' },
  );
