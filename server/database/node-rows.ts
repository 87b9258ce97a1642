import type { ContentId, PageId } from '#core/model/ids.ts';
import type { Hidden, NodeType, SiteNode, Target } from '#core/model/node.ts';
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
}

/** The row's columns with their types, for `jsonb_to_recordset`. */
export const NODE_RECORD = `id text, parent text, sort_order text, type text, title jsonb, label jsonb, slug jsonb,
  description jsonb, in_menus boolean, hidden text, in_address boolean, target jsonb, content text`;
export const NODE_COLUMNS =
  'id, parent, sort_order, type, title, label, slug, description, in_menus, hidden, in_address, target, content';
export const NODE_UPDATES = NODE_COLUMNS.split(', ')
  .slice(1)
  .map((column) => `${column} = excluded.${column}`)
  .join(', ');

export const toRow = (node: SiteNode): NodeRow => ({
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
});

export const fromRow = (row: NodeRow, removedWith: PageId | null): SiteNode => ({
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
  removedWith,
});
