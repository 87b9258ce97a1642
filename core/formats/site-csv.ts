import type { LineFault } from '../carryover/inventory.ts';
import { type BroughtPage, type BroughtTree, MAX_BROUGHT } from '../imports/brought-page.ts';
import { derivedOf } from '../derive/derived.ts';
import { fieldContextOf } from '../fields/context.ts';
import { isKind } from '../model/page-label.ts';
import { type PageId, pageIdSchema } from '../model/ids.ts';
import { type PagePlan, type PlanChange, planChangeSchema, planOf } from '../model/plan.ts';
import type { Site } from '../model/site.ts';
import { short } from './address-list.ts';
import { type CsvTable, writeCsvTable } from './csv-table.ts';
import { KIND_COLUMN, columnNamed, fieldColumns, readFieldCells, writeFieldCells } from './field-cells.ts';
import { CELL_FIELDS, fieldsOfCells, writeCell } from './page-cells.ts';

/** The columns of a plan, in their order, each with how its cells are written and read. */
const PLAN_COLUMNS: Readonly<
  Record<string, { field: keyof PlanChange; write: (plan: PagePlan) => string; read: (text: string) => unknown }>
> = {
  origin: {
    field: 'origin',
    write: ({ origin }) => origin ?? '',
    read: (text) => (text === '' ? null : text.toLowerCase()),
  },
  purpose: { field: 'purpose', write: ({ purpose }) => purpose, read: (text) => text },
  owner: { field: 'owner', write: ({ owner }) => owner, read: (text) => text },
  due: { field: 'due', write: ({ due }) => due ?? '', read: (text) => (text === '' ? null : text) },
  readiness: {
    field: 'readiness',
    write: ({ readiness }) => readiness,
    read: (text) => (text === '' ? 'not-started' : text.toLowerCase().replace(/ /g, '-')),
  },
  importance: {
    field: 'importance',
    write: ({ importance }) => (importance === null ? '' : String(importance)),
    read: (text) => (text === '' ? null : Number(text)),
  },
  old_addresses: {
    field: 'oldAddresses',
    write: ({ oldAddresses }) => oldAddresses.join('|'),
    read: (text) =>
      text
        .split('|')
        .map((one) => one.trim())
        .filter(Boolean),
  },
};
/** The columns of a site as CSV, in their order; lists are parted by `|`. `parent` is an id or an address. */
export const SITE_COLUMNS: readonly string[] = [
  'id',
  'parent',
  ...CELL_FIELDS.map(({ column }) => column.name),
  ...Object.keys(PLAN_COLUMNS),
];

/** The tree as CSV, in tree order. Texts are those of the site's language. @param today by the site's clock, as ISO 8601 has it */
export function writeSiteCsv(site: Site, today: string): string {
  const { outline } = derivedOf(site);
  const { language, labels } = site.settings;
  const columns = fieldColumns(labels);
  const context = fieldContextOf(site, today);
  return writeCsvTable(
    [...SITE_COLUMNS, ...(labels.some(isKind) ? [KIND_COLUMN] : []), ...columns.map(({ name }) => name)],
    outline.nodes.map((node) => [
      node.id,
      node.parent ?? '',
      ...CELL_FIELDS.map((field) => writeCell(field, node, language) ?? ''),
      ...Object.values(PLAN_COLUMNS).map(({ write }) => write(planOf(node))),
      ...(labels.some(isKind) ? writeFieldCells(node, columns, labels, context) : []),
    ]),
  );
}

/**
 * Reads a tree from CSV. Columns that are not known are named and kept out. A row whose parent is not there, parents that
 * go in a circle, and ids that stand twice are refused with their lines; a value that cannot be is left out, and noted.
 */
export function readSiteCsv(table: Extract<CsvTable, { ok: true }>, site: Site, today: string): BroughtTree {
  const notes: LineFault[] = [];
  const faults: LineFault[] = [];
  const at = new Map(table.columns.map((name, index) => [name.toLowerCase(), index]));
  const { labels } = site.settings;
  const columns = fieldColumns(labels);
  const context = fieldContextOf(site, today);
  const ofFields = table.columns.flatMap((name) => {
    const column = SITE_COLUMNS.includes(name.toLowerCase()) ? undefined : columnNamed(name, columns);
    return column ? [{ column, in: name.toLowerCase() }] : [];
  });
  const isKnown = (name: string): boolean =>
    SITE_COLUMNS.includes(name) || name === KIND_COLUMN || ofFields.some((one) => one.in === name);
  const unknown = table.columns.filter((name) => !isKnown(name.toLowerCase()));
  if (unknown.length > 0)
    notes.push({ line: 1, detail: `These columns are unknown and ignored: ${unknown.join(', ')}.` });
  if (!at.has('title') && !at.has('id'))
    return { ok: false, faults: [{ line: 1, detail: 'There is no column ‘title’, and no column ‘id’ either.' }] };
  if (table.rows.length > MAX_BROUGHT)
    return {
      ok: false,
      faults: [{ line: MAX_BROUGHT + 2, detail: `At most ${MAX_BROUGHT} rows can be imported at once.` }],
    };

  const rows = table.rows.map(({ line, cells }) => {
    const cell = (column: string) => {
      const index = at.get(column);
      return index === undefined ? undefined : (cells[index] ?? '');
    };
    return { line, cell };
  });
  const rowOfId = new Map<string, number>();
  rows.forEach(({ line, cell }, index) => {
    const id = cell('id') ?? '';
    if (id === '') return;
    if (!pageIdSchema.safeParse(id).success)
      faults.push({ line, detail: `‘${short(id)}’ is not an id: use 1 to 24 letters and digits.` });
    else if (rowOfId.has(id))
      faults.push({ line, detail: `The id ‘${id}’ stands on line ${rows[rowOfId.get(id)!]!.line} already.` });
    else rowOfId.set(id, index);
  });

  const { rowAt, outline } = derivedOf(site);
  const parents = rows.map(({ line, cell }, index): BroughtPage['parent'] => {
    const parent = cell('parent') ?? '';
    if (parent === '') return null;
    const row = rowOfId.get(parent);
    if (row === index) faults.push({ line, detail: 'The row names itself as its parent.' });
    if (row !== undefined) return row;
    const named = outline.rowOf.get(parent as PageId) ?? rowAt.get(parent);
    if (named === undefined) {
      faults.push({
        line,
        detail: `There is no parent page ‘${short(parent)}’ in the file or in the site.`,
      });
      return null;
    }
    const { id } = outline.nodes[named]!;
    return rowOfId.get(id) ?? { page: id };
  });
  const circle = circleIn(parents);
  if (circle !== null)
    faults.push({
      line: rows[circle]!.line,
      detail: 'Its parents form a circle that leads back to this row.',
    });
  if (faults.length > 0) return { ok: false, faults };

  const pages = rows.map(({ line, cell }, index): BroughtPage => {
    const note = (detail: string) => notes.push({ line, detail });
    const id = cell('id') ?? '';
    const fields = fieldsOfCells(({ name }) => cell(name), note);
    const node = site.nodes.get(id as PageId) ?? { type: fields.type ?? 'page', access: null, content: null };
    return {
      line,
      id: id === '' ? null : pageIdSchema.parse(id),
      parent: parents[index]!,
      fields: {
        ...fields,
        plan: planIn(cell, note),
        ...readFieldCells(node, ofFields, labels, context, cell, note),
      },
    };
  });
  return inTreeOrder(pages, notes);
}

function planIn(cell: (column: string) => string | undefined, note: (detail: string) => void): PlanChange | undefined {
  const plan: Record<string, unknown> = {};
  for (const [column, { field, read }] of Object.entries(PLAN_COLUMNS)) {
    const text = cell(column);
    if (text === undefined) continue;
    const parsed = planChangeSchema.safeParse({ [field]: read(text) });
    if (parsed.success) plan[field] = parsed.data[field];
    else note(`‘${short(text)}’ in ${column} is not allowed; it is left out.`);
  }
  return Object.keys(plan).length > 0 ? (plan as PlanChange) : undefined;
}

/** A row from which following the parents leads back to it, or null. */
function circleIn(parents: readonly BroughtPage['parent'][]): number | null {
  const done = new Uint8Array(parents.length);
  for (let start = 0; start < parents.length; start++) {
    const way: number[] = [];
    let row: BroughtPage['parent'] = start;
    while (typeof row === 'number' && done[row] === 0) {
      done[row] = 1;
      way.push(row);
      row = parents[row]!;
    }
    if (typeof row === 'number' && done[row] === 1 && way.includes(row)) return row;
    for (const one of way) done[one] = 2;
  }
  return null;
}

/** The rows in tree order, whatever the order of the file: each after the row that it stands below. */
function inTreeOrder(pages: readonly BroughtPage[], notes: readonly LineFault[]): BroughtTree {
  const below = new Map<number | null, number[]>();
  pages.forEach(({ parent }, index) => {
    const key = typeof parent === 'number' ? parent : null;
    below.set(key, [...(below.get(key) ?? []), index]);
  });
  const order: number[] = [];
  const waiting = [...(below.get(null) ?? [])].reverse();
  while (waiting.length > 0) {
    const index = waiting.pop()!;
    order.push(index);
    waiting.push(...[...(below.get(index) ?? [])].reverse());
  }
  const placeOf = new Map(order.map((index, place) => [index, place]));
  return {
    ok: true,
    notes,
    pages: order.map((index) => {
      const page = pages[index]!;
      return typeof page.parent === 'number' ? { ...page, parent: placeOf.get(page.parent)! } : page;
    }),
  };
}
