import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import { type LineFault, MAX_OLD_PAGES, type OldPage, unreadPage } from '#core/carryover/inventory.ts';
import { readAddressList } from '#core/formats/address-list.ts';
import { readCsvTable } from '#core/formats/csv-table.ts';
import { type InventoryColumns, guessColumns, readInventory } from '#core/formats/inventory-csv.ts';
import { readSitemapFile } from '#core/formats/sitemap-file.ts';
import type { BringOldPagesBody } from '#contract/old-site.ts';
import { ProblemError } from '../problem.ts';
import { decodeText } from './decode-text.ts';
import { normalAddress } from './normal-address.ts';
import { politeFetch } from './polite-fetch.ts';

/** The largest file, and the largest that a packed one may grow to, in bytes: as sitemaps.org has it. */
const MAX_FILE_BYTES = 50_000_000;
const MAX_WAIT_MS = 20_000;
/** At most so many files of an index are read. */
const MAX_FILES = 200;

export interface Brought {
  readonly pages: readonly OldPage[];
  readonly faults: readonly LineFault[];
  readonly columns: readonly string[] | null;
  readonly taken: InventoryColumns | null;
}

/**
 * The old pages that a list, a file or a sitemap's address holds. @throws ProblemError where it cannot be read at all:
 * then nothing was brought.
 */
export async function bringPages(from: BringOldPagesBody['from'], allowedHosts: ReadonlySet<string>): Promise<Brought> {
  if (from.kind === 'list') return withoutColumns(readAddressList(from.text));
  if (from.kind === 'address') {
    const address = normalAddress(from.address.trim());
    if (address === null) throw new ProblemError('not-an-address', { address: from.address.slice(0, 200) });
    return ofSitemaps([], [address], allowedHosts);
  }
  const text = decodeText(await unpacked(Buffer.from(from.bytes, 'base64'), from.name));
  if (/^\s*(<\?xml|<urlset|<sitemapindex|<!DOCTYPE|<!--)/i.test(text.replace(/^\uFEFF/, ''))) {
    const file = readSitemapFile(text);
    if (!file.ok) throw unreadable(from.name, file);
    return file.kind === 'addresses'
      ? ofSitemaps(file.addresses, [], allowedHosts)
      : ofSitemaps([], file.addresses, allowedHosts);
  }
  const table = readCsvTable(text);
  if (!table.ok) throw unreadable(from.name, table);
  const taken = from.columns ?? guessColumns(table.columns);
  // A file without column names is a list of addresses.
  if (taken.address === undefined && from.columns === undefined && table.columns.length === 1)
    return withoutColumns(readAddressList(text));
  return {
    ...(taken.address === undefined ? { pages: [], faults: [] } : readInventory(table, taken)),
    columns: table.columns,
    taken,
  };
}

const withoutColumns = (read: { pages: readonly OldPage[]; faults: readonly LineFault[] }): Brought => ({
  ...read,
  columns: null,
  taken: null,
});

/** The addresses of sitemap files, those of the files that are still to be fetched too. */
async function ofSitemaps(
  addresses: readonly string[],
  files: readonly string[],
  allowedHosts: ReadonlySet<string>,
): Promise<Brought> {
  const found = new Set(addresses);
  const waiting = files.slice(0, MAX_FILES);
  const seen = new Set(waiting);
  for (let file = waiting.shift(); file !== undefined && found.size < MAX_OLD_PAGES; file = waiting.shift()) {
    const read = await fetchSitemap(file, allowedHosts);
    for (const address of read.addresses) {
      if (read.kind === 'addresses') found.add(address);
      else if (!seen.has(address) && seen.size < MAX_FILES) {
        seen.add(address);
        waiting.push(address);
      }
    }
  }
  const pages = new Map<string, OldPage>();
  const faults: LineFault[] = [];
  [...found].slice(0, MAX_OLD_PAGES).forEach((raw, index) => {
    const address = normalAddress(raw);
    if (address === null) faults.push({ line: index + 1, detail: `Entry ${index + 1} is not a web address.` });
    else pages.set(address, unreadPage(address));
  });
  return withoutColumns({ pages: [...pages.values()], faults });
}

async function fetchSitemap(address: string, allowedHosts: ReadonlySet<string>) {
  let at = address;
  for (let hop = 0; hop < 5; hop++) {
    const fetched = await politeFetch(at, { largest: MAX_FILE_BYTES, longestMs: MAX_WAIT_MS, allowedHosts });
    if (!fetched.ok) throw new ProblemError('address-unreadable', { address: at, reason: fetched.detail });
    if (fetched.movedTo !== null) {
      at = fetched.movedTo;
      continue;
    }
    if (fetched.status !== 200)
      throw new ProblemError('address-unreadable', { address: at, reason: `It answers with ${fetched.status}.` });
    const file = readSitemapFile(decodeText(await unpacked(fetched.body, at)));
    if (!file.ok) throw unreadable(at, file);
    return file;
  }
  throw new ProblemError('address-unreadable', {
    address,
    reason: 'It leads from one address to the next and never ends.',
  });
}

/** The bytes of a file, unpacked where it is packed by gzip; never more than may be. */
export async function unpacked(bytes: Buffer, name: string): Promise<Buffer> {
  if (bytes.length > MAX_FILE_BYTES)
    throw new ProblemError('file-too-large', { name, limit: MAX_FILE_BYTES / 1_000_000 });
  if (bytes[0] !== 0x1f || bytes[1] !== 0x8b) return bytes;
  try {
    return await promisify(gunzip)(bytes, { maxOutputLength: MAX_FILE_BYTES });
  } catch (fault) {
    if ((fault as { code?: string }).code === 'ERR_BUFFER_TOO_LARGE')
      throw new ProblemError('file-too-large', { name, limit: MAX_FILE_BYTES / 1_000_000 });
    throw new ProblemError('file-unreadable', { name, line: 1, reason: 'It is packed by gzip and broken.' });
  }
}

const unreadable = (name: string, { line, detail }: { line: number | null; detail: string }): ProblemError =>
  new ProblemError('file-unreadable', { name: name.slice(0, 200), line: line ?? 1, reason: detail });
