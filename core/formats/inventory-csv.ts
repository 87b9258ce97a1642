import { type LineFault, type OldPage, type ReadPages, unreadPage } from '../carryover/inventory.ts';
import { isAddress, short } from './address-list.ts';
import type { CsvTable } from './csv-table.ts';

/** What a column of an inventory can be. */
export const INVENTORY_FIELDS = ['address', 'title', 'description', 'headings', 'words', 'status', 'visits'] as const;
export type InventoryField = (typeof INVENTORY_FIELDS)[number];

/** Which column, counted from 0, holds which field. */
export type InventoryColumns = Readonly<Partial<Record<InventoryField, number>>>;

const NAMES: Readonly<Record<InventoryField, RegExp>> = {
  address: /^(address|url|uri|loc|location|link|path|page)$|\burl\b|\baddress\b/i,
  title: /\b(title|name)\b/i,
  description: /\b(description|summary)\b/i,
  headings: /\b(headings?|h1|h2)\b/i,
  words: /\bwords?\b/i,
  status: /\b(status|code)\b/i,
  visits: /\b(visits?|views?|hits|sessions|clicks|users)\b/i,
};

/** The columns that their names tell; each column is one field at most. */
export function guessColumns(columns: readonly string[]): InventoryColumns {
  const guessed: Partial<Record<InventoryField, number>> = {};
  for (const field of INVENTORY_FIELDS) {
    const at = columns.findIndex((name, index) => NAMES[field].test(name) && !Object.values(guessed).includes(index));
    if (at !== -1) guessed[field] = at;
  }
  return guessed;
}

/** The pages of a table. Headings are parted by `|`. A row without an address is a fault, as is a number that is none. */
export function readInventory(table: Extract<CsvTable, { ok: true }>, columns: InventoryColumns): ReadPages {
  const pages = new Map<string, OldPage>();
  const faults: LineFault[] = [];
  for (const { line, cells } of table.rows) {
    const cell = (field: InventoryField): string => {
      const at = columns[field];
      return at === undefined ? '' : (cells[at] ?? '');
    };
    const number = (field: InventoryField): number | null => {
      const text = cell(field).replace(/[ ,\u00A0](?=\d{3}\b)/g, '');
      if (text === '') return null;
      if (/^\d{1,12}(\.\d+)?$/.test(text)) return Math.round(Number(text));
      faults.push({ line, detail: `‘${short(text)}’ in ${field} is not a number; it is left out.` });
      return null;
    };
    const address = cell('address');
    if (!isAddress(address)) {
      faults.push({
        line,
        detail:
          address === ''
            ? 'The row has no address.'
            : `‘${short(address)}’ is not an address: it must start with https://, http:// or /.`,
      });
      continue;
    }
    if (pages.has(address)) {
      faults.push({ line, detail: `${short(address)} appears twice.` });
      continue;
    }
    pages.set(address, {
      ...unreadPage(address),
      title: cell('title').slice(0, 500),
      description: cell('description').slice(0, 2000),
      headings: cell('headings')
        .split('|')
        .map((heading) => heading.trim())
        .filter(Boolean)
        .slice(0, 100),
      words: number('words'),
      status: number('status'),
      visits: number('visits'),
    });
  }
  return { pages: [...pages.values()], faults };
}
