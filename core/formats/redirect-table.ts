import { withoutTrailing } from '../model/cut-text.ts';
import { isPattern, type Destination, redirectAddressSchema } from '../model/redirect.ts';
import { pageWithAddress } from '../model/address-scope.ts';
import type { Site } from '../model/site.ts';
import { targetSchema } from '../model/target.ts';
import { readCsvTable } from './csv-table.ts';

/** One line of a table of redirects: what it asks for, and where that leads, or why it cannot be made. */
export interface RedirectLine {
  readonly line: number;
  readonly from: string;
  readonly to: string;
  readonly destination: Destination | null;
  readonly fault: string | null;
}

/** What columns may be called, by what they hold. Spur's own files have the first of each. */
const COLUMNS = {
  from: ['old_address', 'from', 'old', 'source', 'address'],
  to: ['new_address', 'to', 'new', 'target', 'destination'],
  status: ['status', 'code'],
} as const;

/**
 * Reads a table of redirects (CSV with a column `from` and a column `to`; an empty `to`, or a status of 410, says that the address
 * is gone). `from` is an address of the site, and `to` one of its pages' or an outside one. @param base the site's live address
 */
export function readRedirectTable(text: string, site: Site, base: string): RedirectLine[] {
  const table = readCsvTable(text);
  if (!table.ok) return [fault(table.line ?? 1, '', '', table.detail)];
  const columnOf = (names: readonly string[]) =>
    table.columns.findIndex((column) => names.includes(column.toLowerCase().replaceAll(' ', '_')));
  const [from, to, status] = [columnOf(COLUMNS.from), columnOf(COLUMNS.to), columnOf(COLUMNS.status)];
  if (from === -1 || to === -1) return [fault(1, '', '', 'The first row must have the columns ‘from’ and ‘to’.')];
  const taken = new Set(site.settings.redirects.map((redirect) => redirect.from));
  return table.rows.map(({ line, cells }) => {
    const address = ownAddress(cells[from]!, base);
    const isGone = cells[to] === '' || (status !== -1 && cells[status] === '410');
    const read = readLine(site, base, taken, address, isGone ? null : cells[to]!);
    if ('fault' in read) return fault(line, address, cells[to]!, read.fault);
    taken.add(address);
    return { line, from: address, to: cells[to]!, destination: read.destination, fault: null };
  });
}

const fault = (line: number, from: string, to: string, words: string): RedirectLine => ({
  line,
  from,
  to,
  destination: null,
  fault: words,
});

/** An address of the site, with the site's own live address left out, without a slash at its end. */
function ownAddress(text: string, base: string): string {
  const path = (text === base || text.startsWith(`${base}/`) ? text.slice(base.length) : text).normalize('NFC');
  let read = path;
  try {
    read = decodeURI(path);
  } catch {
    // What is not encoded soundly stays as it is.
  }
  return read.length > 1 ? withoutTrailing(read, '/') : read;
}

function readLine(
  site: Site,
  base: string,
  taken: ReadonlySet<string>,
  from: string,
  to: string | null,
): { destination: Destination } | { fault: string } {
  const address = redirectAddressSchema.safeParse(from);
  if (!address.success) return { fault: address.error.issues[0]!.message };
  if (taken.has(from)) return { fault: 'This address already has a redirect.' };
  if (!isPattern({ from }) && pageWithAddress(site, from) !== null) return { fault: 'A page has this address.' };
  if (to === null) return { destination: 'gone' };
  const own = ownAddress(to, base);
  if (own.startsWith('/')) {
    const page = pageWithAddress(site, own);
    return page === null ? { fault: `No page has the address ${own}.` } : { destination: { page } };
  }
  const outside = targetSchema.safeParse({ url: to });
  return outside.success
    ? { destination: outside.data }
    : { fault: 'An outside address starts with https:// or http://.' };
}
