import { type AccessChange, fromKeptAccess, toKeptAccess } from '#core/model/access.ts';
import { type FrameChange, fromKeptFrame, toKeptFrame } from '#core/model/frame.ts';
import type { ContentId, PageId } from '#core/model/ids.ts';
import type { Hidden, NodeType, SiteNode } from '#core/model/node.ts';
import type { Target } from '#core/model/target.ts';
import { type KeptPlan, fromKeptPlan, toKeptPlan } from '#core/model/plan.ts';
import type { LiveNode } from '#core/model/site.ts';
import type { Slugs } from '#core/model/slug.ts';
import type { Texts } from '#core/model/texts.ts';

/** A node as a row, of the draft or of the live state. */
export interface NodeRow {
  id: PageId;
  parent: SiteNode['parent'];
  sort_order: string;
  type: NodeType;
  title: Texts;
  label: Texts;
  slug: Slugs;
  description: Texts;
  in_menus: boolean;
  hidden: Hidden;
  in_address: boolean;
  target: Target | null;
  content: ContentId | null;
  access: AccessChange | null;
  frame: FrameChange | null;
}

type ColumnTypes<Row> = Readonly<Record<keyof Row, 'text' | 'boolean' | 'jsonb'>>;

const NODE_COLUMN_TYPES: ColumnTypes<NodeRow> = {
  id: 'text',
  parent: 'text',
  sort_order: 'text',
  type: 'text',
  title: 'jsonb',
  label: 'jsonb',
  slug: 'jsonb',
  description: 'jsonb',
  in_menus: 'boolean',
  hidden: 'text',
  in_address: 'boolean',
  target: 'jsonb',
  content: 'text',
  access: 'jsonb',
  frame: 'jsonb',
};

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
export interface DraftRow extends NodeRow {
  removed_with: PageId | null;
  plan: KeptPlan | null;
}
const DRAFT_COLUMN_TYPES: ColumnTypes<Omit<DraftRow, keyof NodeRow>> = { removed_with: 'text', plan: 'jsonb' };
export const DRAFT_RECORD = recordOf(DRAFT_COLUMN_TYPES);
export const DRAFT_COLUMNS = columnsOf(DRAFT_COLUMN_TYPES);
export const DRAFT_UPDATES = updatesOf(DRAFT_COLUMN_TYPES);

export const toDraftRow = (node: SiteNode): DraftRow => ({
  ...toRow(node),
  removed_with: node.removedWith,
  plan: node.plan && toKeptPlan(node.plan),
});

export const fromDraftRow = (row: DraftRow): SiteNode => ({
  ...fromRow(row),
  removedWith: row.removed_with,
  plan: fromKeptPlan(row.plan),
});

/** The field of a node that each of its columns keeps. */
const FIELDS: Readonly<Record<Exclude<keyof DraftRow, 'id'>, keyof SiteNode>> = {
  parent: 'parent',
  sort_order: 'order',
  type: 'type',
  title: 'title',
  label: 'label',
  slug: 'slug',
  description: 'description',
  in_menus: 'inMenus',
  hidden: 'hidden',
  in_address: 'inAddress',
  target: 'target',
  content: 'content',
  access: 'access',
  frame: 'frame',
  plan: 'plan',
  removed_with: 'removedWith',
};
const COLUMNS = Object.keys(FIELDS) as (keyof typeof FIELDS)[];
const DRAFT_ROW_TYPES: ColumnTypes<DraftRow> = { ...NODE_COLUMN_TYPES, ...DRAFT_COLUMN_TYPES };

/** The columns of the draft in which two states of a node differ, with what they are set to. */
export function changedColumns(
  before: SiteNode,
  after: SiteNode,
): { readonly column: string; readonly type: string; readonly value: unknown }[] {
  const row = toDraftRow(after);
  return COLUMNS.filter((column) => before[FIELDS[column]] !== after[FIELDS[column]]).map((column) => {
    const value = row[column];
    const type = DRAFT_ROW_TYPES[column];
    return { column, type, value: type === 'jsonb' && value !== null ? JSON.stringify(value) : value };
  });
}

const toRow = (node: SiteNode): NodeRow => ({
  id: node.id,
  parent: node.parent,
  sort_order: node.order,
  type: node.type,
  title: node.title,
  label: node.label,
  slug: node.slug,
  description: node.description,
  in_menus: node.inMenus,
  hidden: node.hidden,
  in_address: node.inAddress,
  target: node.target,
  content: node.content,
  access: node.access && toKeptAccess(node.access),
  frame: node.frame && toKeptFrame(node.frame),
});

/** What only the live state has: whether the node was taken down, and where its address leads then. */
export interface LiveRow extends NodeRow {
  is_retired: boolean;
  leads_to: LiveNode['leadsTo'] | null;
}

const LIVE_COLUMN_TYPES: ColumnTypes<Omit<LiveRow, keyof NodeRow>> = { is_retired: 'boolean', leads_to: 'jsonb' };
export const LIVE_RECORD = recordOf(LIVE_COLUMN_TYPES);
export const LIVE_COLUMNS = columnsOf(LIVE_COLUMN_TYPES);
export const LIVE_UPDATES = updatesOf(LIVE_COLUMN_TYPES);

export const toLiveRow = ({ node, retired, leadsTo }: LiveNode): LiveRow => ({
  ...toRow(node),
  is_retired: retired,
  leads_to: leadsTo ?? null,
});

export const fromLiveRow = (row: LiveRow): LiveNode => ({
  node: fromRow(row),
  retired: row.is_retired,
  ...(row.leads_to != null && { leadsTo: row.leads_to }),
});

/** A node as visitors have it. */
const fromRow = (row: NodeRow): SiteNode => ({
  id: row.id,
  parent: row.parent,
  order: row.sort_order,
  type: row.type,
  title: row.title,
  label: row.label,
  slug: row.slug,
  description: row.description,
  inMenus: row.in_menus,
  hidden: row.hidden,
  inAddress: row.in_address,
  target: row.target,
  content: row.content,
  access: fromKeptAccess(row.access),
  frame: fromKeptFrame(row.frame),
  plan: null,
  removedWith: null,
});
