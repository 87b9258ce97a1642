import type { PageId } from '#core/model/ids.ts';
import {
  DRAFT_FIELDS,
  type DraftFieldName,
  LIVE_FIELDS,
  type LiveFieldName,
  type SiteNode,
  nodeOf,
  unsetNode,
} from '#core/model/node.ts';
import { type KeptOf, PAGE_FIELD_NAMES, type PageFieldName, forEachField, pageField } from '#core/model/page-fields.ts';
import type { LiveNode } from '#core/model/site.ts';

/** `inMenus` as `in_menus`. */
type ColumnName<Name extends string> = Name extends `${infer Letter}${infer Rest}`
  ? `${Letter extends Lowercase<Letter> ? Letter : `_${Lowercase<Letter>}`}${ColumnName<Rest>}`
  : Name;
const columnName = (name: string): string => name.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);

/** A node as a row, of the draft or of the live state: each field of a page that goes live is a column. */
export type NodeRow = Pick<SiteNode, 'id' | 'parent'> & { sort_order: string } & {
  [Name in LiveFieldName as ColumnName<Name>]: KeptOf<Name>;
};
type ColumnType = 'text' | 'boolean' | 'jsonb';
type ColumnTypes = Readonly<Record<string, ColumnType>>;

const TYPE_OF = { word: 'text', 'yes-no': 'boolean', json: 'jsonb' } as const;
const typesOf = (names: readonly PageFieldName[]): ColumnTypes =>
  Object.fromEntries(names.map((name) => [columnName(name), TYPE_OF[pageField(name).keptAs]]));
const NODE_COLUMN_TYPES: ColumnTypes = { id: 'text', parent: 'text', sort_order: 'text', ...typesOf(LIVE_FIELDS) };

/** Columns with their types, for `jsonb_to_recordset`. */
const recordOf = (types: Readonly<Record<string, string>>): string =>
  Object.entries(types)
    .map(([column, type]) => `${column} ${type}`)
    .join(', ');
const columnsOf = (types: object): string => Object.keys(types).join(', ');
const updatesOf = (types: object): string =>
  Object.keys(types)
    .filter((column) => column !== 'id')
    .map((column) => `${column} = excluded.${column}`)
    .join(', ');

export const NODE_RECORD = recordOf(NODE_COLUMN_TYPES);
export const NODE_COLUMNS = columnsOf(NODE_COLUMN_TYPES);
export const NODE_UPDATES = updatesOf(NODE_COLUMN_TYPES);

/** What only the draft has. */
export type DraftRow = NodeRow & { removed_with: PageId | null } & {
  [Name in DraftFieldName as ColumnName<Name>]: KeptOf<Name>;
};
const DRAFT_COLUMN_TYPES: ColumnTypes = { removed_with: 'text', ...typesOf(DRAFT_FIELDS) };
export const DRAFT_RECORD = recordOf(DRAFT_COLUMN_TYPES);
export const DRAFT_COLUMNS = columnsOf(DRAFT_COLUMN_TYPES);
export const DRAFT_UPDATES = updatesOf(DRAFT_COLUMN_TYPES);

const placeIn = ({ id, parent, sort_order: order }: NodeRow) => ({ id, parent, order });

const valuesIn = (row: object, names: readonly PageFieldName[]): Partial<SiteNode> => {
  const values: Record<string, unknown> = {};
  for (const name of names) values[name] = pageField(name).fromKept((row as Record<string, unknown>)[COLUMN_OF[name]]);
  return values;
};
const COLUMN_OF = forEachField((_, name) => columnName(name));

/** Writes nodes as rows with these columns. An object that has all of them from the start is filled in a fraction of the time. */
function rowWriter(types: ColumnTypes, names: readonly PageFieldName[]): (node: SiteNode) => Record<string, unknown> {
  const empty = Object.fromEntries(Object.keys(types).map((column) => [column, null as unknown]));
  const fields = names.map((name) => ({ name, column: COLUMN_OF[name], toKept: pageField(name).toKept }));
  return (node) => {
    const row = { ...empty, id: node.id, parent: node.parent, sort_order: node.order };
    for (const { name, column, toKept } of fields) (row as Record<string, unknown>)[column] = toKept(node[name]);
    return row;
  };
}

/** The columns of the draft with the field of a node that each keeps. */
const COLUMNS: readonly { readonly column: string; readonly field: keyof SiteNode }[] = [
  { column: 'parent', field: 'parent' },
  { column: 'sort_order', field: 'order' },
  ...PAGE_FIELD_NAMES.map((field) => ({ column: COLUMN_OF[field], field })),
  { column: 'removed_with', field: 'removedWith' },
];
const DRAFT_ROW_TYPES: ColumnTypes = { ...NODE_COLUMN_TYPES, ...DRAFT_COLUMN_TYPES };

const writeDraft = rowWriter(DRAFT_ROW_TYPES, PAGE_FIELD_NAMES);
export function toDraftRow(node: SiteNode): DraftRow {
  const row = writeDraft(node);
  row['removed_with'] = node.removedWith;
  return row as DraftRow;
}

/** The columns of the draft in which two states of a node differ, with what they are set to. */
export function changedColumns(
  before: SiteNode,
  after: SiteNode,
): { readonly column: string; readonly type: string; readonly value: unknown }[] {
  const row: Readonly<Record<string, unknown>> = toDraftRow(after);
  return COLUMNS.filter(({ field }) => before[field] !== after[field]).map(({ column }) => {
    const value = row[column];
    const type = DRAFT_ROW_TYPES[column]!;
    return { column, type, value: type === 'jsonb' && value !== null ? JSON.stringify(value) : value };
  });
}

/** What only the live state has: whether the node was taken down, and where its address leads then. */
export type LiveRow = NodeRow & {
  is_retired: boolean;
  leads_to: LiveNode['leadsTo'] | null;
};

const LIVE_COLUMN_TYPES: ColumnTypes = { is_retired: 'boolean', leads_to: 'jsonb' };
export const LIVE_RECORD = recordOf(LIVE_COLUMN_TYPES);
export const LIVE_COLUMNS = columnsOf(LIVE_COLUMN_TYPES);
export const LIVE_UPDATES = updatesOf(LIVE_COLUMN_TYPES);

const writeLive = rowWriter({ ...NODE_COLUMN_TYPES, ...LIVE_COLUMN_TYPES }, LIVE_FIELDS);
export function toLiveRow({ node, retired, leadsTo }: LiveNode): LiveRow {
  const row = writeLive(node);
  row['is_retired'] = retired;
  row['leads_to'] = leadsTo ?? null;
  return row as LiveRow;
}

/** For queries of very many rows: each comes as a list of texts, as PostgreSQL sends them, which takes a third of the time. */
export const AS_TEXTS = { rowMode: 'array', types: { getTypeParser: () => (text: string) => text } } as const;
/** A row of such a query. */
export type TextRow = readonly (string | null)[];

const PLACE_COLUMNS = ['id', 'parent', 'sort_order'];

/** The column of a field, NULL where the field is as that of a new page: nothing of it travels then. */
function unusual(name: PageFieldName): string {
  const { keptAs, none, toKept } = pageField(name);
  const [column, kept] = [COLUMN_OF[name], toKept(none)];
  if (kept === null) return column;
  const text = keptAs === 'json' ? JSON.stringify(kept) : String(kept);
  return `NULLIF(${column}, '${text.replaceAll("'", "''")}'::${TYPE_OF[keptAs]})`;
}

/** The columns that `draftNodes` and `liveNodes` read, for SELECT. */
const DRAFT_TEXTS = [...PLACE_COLUMNS, ...PAGE_FIELD_NAMES.map(unusual), 'removed_with'];
const LIVE_TEXTS = [...PLACE_COLUMNS, ...LIVE_FIELDS.map(unusual), 'is_retired', 'leads_to'];
export const DRAFT_UNUSUAL = DRAFT_TEXTS.join(', ');
export const LIVE_UNUSUAL = LIVE_TEXTS.join(', ');

/** The nodes of the draft, from rows of texts. */
export function draftNodes(rows: readonly TextRow[]): SiteNode[] {
  const read = nodeReader(PAGE_FIELD_NAMES);
  return rows.map((row) => {
    const node = read(row);
    node.removedWith = row[DRAFT_TEXTS.length - 1] as PageId | null;
    return node;
  });
}

/** The live states, from rows of texts. */
export function liveNodes(rows: readonly TextRow[]): LiveNode[] {
  const read = nodeReader(LIVE_FIELDS);
  return rows.map((row) => {
    const leadsTo = row[LIVE_TEXTS.length - 1];
    return {
      node: read(row),
      retired: row[LIVE_TEXTS.length - 2] === 't',
      ...(leadsTo != null && { leadsTo: JSON.parse(leadsTo) as NonNullable<LiveNode['leadsTo']> }),
    };
  });
}

function nodeReader(names: readonly PageFieldName[]): (row: TextRow) => ReturnType<typeof unsetNode> {
  const readers = names.map((name) => ({ name, read: fieldReader(name) }));
  return (row) => {
    const node = unsetNode();
    node.id = row[0] as PageId;
    node.parent = row[1] as PageId | null;
    node.order = row[2]!;
    const values = node as Record<string, unknown>;
    for (let at = 0; at < readers.length; at++) {
      const text = row[PLACE_COLUMNS.length + at];
      if (text != null) values[readers[at]!.name] = readers[at]!.read(text);
    }
    return node;
  };
}

/** Reads the texts of one field, row after row. What is said again and again is read once, and pages share it. */
function fieldReader(name: PageFieldName): (text: string) => unknown {
  const field = pageField(name);
  let [last, value]: [string | undefined, unknown] = [undefined, undefined];
  const kept = (text: string): unknown =>
    field.keptAs === 'word' ? text : field.keptAs === 'yes-no' ? text === 't' : JSON.parse(text);
  return (text) => {
    if (text !== last) [last, value] = [text, field.fromKept(kept(text))];
    return value;
  };
}

export const fromLiveRow = (row: LiveRow): LiveNode => ({
  node: nodeOf(placeIn(row), valuesIn(row, LIVE_FIELDS)),
  retired: row.is_retired,
  ...(row.leads_to != null && { leadsTo: row.leads_to }),
});
