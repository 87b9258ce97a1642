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

/** The row's columns with their types, for `jsonb_to_recordset`. */
export const NODE_RECORD = `id text, parent text, sort_order text, type text, title jsonb, label jsonb, slug jsonb,
  description jsonb, in_menus boolean, hidden text, in_address boolean, target jsonb, content text, access jsonb, frame jsonb`;
export const NODE_COLUMNS =
  'id, parent, sort_order, type, title, label, slug, description, in_menus, hidden, in_address, target, content, access, frame';
export const NODE_UPDATES = NODE_COLUMNS.split(', ')
  .slice(1)
  .map((column) => `${column} = excluded.${column}`)
  .join(', ');

/** What only the draft has, with its types. */
export const DRAFT_RECORD = 'removed_with text, plan jsonb';
export const DRAFT_COLUMNS = 'removed_with, plan';
export const DRAFT_UPDATES = 'removed_with = excluded.removed_with, plan = excluded.plan';
export interface DraftRow extends NodeRow {
  removed_with: PageId | null;
  plan: KeptPlan | null;
}

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

export const LIVE_RECORD = 'is_retired boolean, leads_to jsonb';
export const LIVE_COLUMNS = 'is_retired, leads_to';

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
