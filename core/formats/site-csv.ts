import type { LineFault } from '../carryover/inventory.ts';
import { type BroughtPage, type BroughtTree, MAX_BROUGHT } from '../imports/brought-page.ts';
import { derivedOf } from '../derive/derived.ts';
import { type PageId, pageIdSchema } from '../model/ids.ts';
import { HIDDEN, NODE_TYPES } from '../model/node.ts';
import { targetSchema } from '../model/target.ts';
import { type PlanChange, planChangeSchema, planOf } from '../model/plan.ts';
import type { Site } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import { short } from './address-list.ts';
import { type CsvTable, writeCsvTable } from './csv-table.ts';

/** The columns of a site as CSV, in their order; lists are parted by `|`. `parent` is an id or an address. */
export const SITE_COLUMNS = [
  'id',
  'parent',
  'type',
  'title',
  'menu_label',
  'slug',
  'in_menus',
  'hidden',
  'description',
  'origin',
  'purpose',
  'owner',
  'due',
  'readiness',
  'importance',
  'old_addresses',
  'target',
] as const;
type SiteColumn = (typeof SITE_COLUMNS)[number];

/** The tree as CSV, in tree order. Texts are those of the site's language. */
export function writeSiteCsv(site: Site): string {
  const { outline } = derivedOf(site);
  const { language } = site.settings;
  return writeCsvTable(
    SITE_COLUMNS,
    outline.nodes.map((node) => {
      const plan = planOf(node);
      const slug = node.slug[language];
      const cells: Readonly<Record<SiteColumn, string>> = {
        id: node.id,
        parent: node.parent ?? '',
        type: node.type,
        title: textIn(node.title, language),
        menu_label: node.label[language] ?? '',
        slug: slug?.text ?? '',
        in_menus: node.inMenus ? 'yes' : 'no',
        hidden: node.hidden,
        description: node.description[language] ?? '',
        origin: plan.origin ?? '',
        purpose: plan.purpose,
        owner: plan.owner,
        due: plan.due ?? '',
        readiness: plan.readiness,
        importance: plan.importance === null ? '' : String(plan.importance),
        old_addresses: plan.oldAddresses.join('|'),
        target: node.target === null ? '' : 'url' in node.target ? node.target.url : node.target.page,
      };
      return SITE_COLUMNS.map((column) => cells[column]);
    }),
  );
}

const YES = /^(yes|true|1|y|x)$/i;
const NO = /^(no|false|0|n)$/i;

/**
 * Reads a tree from CSV. Columns that are not known are named and kept out. A row whose parent is not there, parents that
 * go in a circle, and ids that stand twice are refused with their lines; a value that cannot be is left out, and noted.
 */
export function readSiteCsv(table: Extract<CsvTable, { ok: true }>, site: Site): BroughtTree {
  const notes: LineFault[] = [];
  const faults: LineFault[] = [];
  const at = new Map(table.columns.map((name, index) => [name.toLowerCase(), index]));
  const unknown = table.columns.filter((name) => !(SITE_COLUMNS as readonly string[]).includes(name.toLowerCase()));
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
    const cell = (column: SiteColumn) => {
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
    const oneOf = <Value extends string>(column: SiteColumn, values: readonly Value[]): Value | undefined => {
      const text = cell(column)?.toLowerCase() ?? '';
      const value = values.find((one) => one === text);
      if (text !== '' && value === undefined)
        note(`‘${short(text)}’ in ${column} is none of ${values.join(', ')}; it is left out.`);
      return value;
    };
    const yesNo = (column: SiteColumn): boolean | undefined => {
      const text = cell(column) ?? '';
      if (text === '') return undefined;
      if (YES.test(text)) return true;
      if (NO.test(text)) return false;
      note(`‘${short(text)}’ in ${column} is neither yes nor no; it is left out.`);
      return undefined;
    };
    const id = cell('id') ?? '';
    const hiddenText = cell('hidden') ?? '';
    const target = cell('target') ?? '';
    return {
      line,
      id: id === '' ? null : pageIdSchema.parse(id),
      parent: parents[index]!,
      fields: {
        type: oneOf('type', NODE_TYPES),
        title: cell('title'),
        label: cell('menu_label'),
        slug: cell('slug'),
        inMenus: yesNo('in_menus'),
        hidden: YES.test(hiddenText) ? 'page' : NO.test(hiddenText) ? 'no' : oneOf('hidden', HIDDEN),
        description: cell('description'),
        target: target === '' ? undefined : targetOf(target, note),
        plan: planIn(cell, note),
      },
    };
  });
  return inTreeOrder(pages, notes);
}

function targetOf(text: string, note: (detail: string) => void) {
  const parsed = targetSchema.safeParse(/^[0-9A-Za-z]{1,24}$/.test(text) ? { page: text } : { url: text });
  if (!parsed.success) note(`‘${short(text)}’ in target is neither a page nor an outside address; it is left out.`);
  return parsed.data;
}

function planIn(
  cell: (column: SiteColumn) => string | undefined,
  note: (detail: string) => void,
): PlanChange | undefined {
  const plan: Record<string, unknown> = {};
  const take = (field: keyof PlanChange, column: SiteColumn, value: (text: string) => unknown) => {
    const text = cell(column);
    if (text === undefined) return;
    const parsed = planChangeSchema.safeParse({ [field]: value(text) });
    if (parsed.success) plan[field] = parsed.data[field];
    else note(`‘${short(text)}’ in ${column} is not allowed; it is left out.`);
  };
  take('origin', 'origin', (text) => (text === '' ? null : text.toLowerCase()));
  take('purpose', 'purpose', (text) => text);
  take('owner', 'owner', (text) => text);
  take('due', 'due', (text) => (text === '' ? null : text));
  take('readiness', 'readiness', (text) => (text === '' ? 'not-started' : text.toLowerCase().replace(/ /g, '-')));
  take('importance', 'importance', (text) => (text === '' ? null : Number(text)));
  take('oldAddresses', 'old_addresses', (text) =>
    text
      .split('|')
      .map((one) => one.trim())
      .filter(Boolean),
  );
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
