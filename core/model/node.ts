import type { PageId } from './ids.ts';
import {
  PAGE_FIELDS,
  PAGE_FIELD_NAMES,
  type PageFieldName,
  type PageValues,
  NO_VALUES,
  forEachField,
  pageField,
} from './page-fields.ts';

/** A node of the tree: a page, a heading or a link. Never changed in place. */
export interface SiteNode extends PageValues {
  readonly id: PageId;
  /** The node above, or null at the top of the tree. */
  readonly parent: PageId | null;
  /** A fractional index: siblings stand in the order of these keys, compared by code unit; ties by id. */
  readonly order: string;
  /** The node whose removal took this one out of the tree, or null while it stands in the tree. */
  readonly removedWith: PageId | null;
}

/** A node at a place that says what is given, and of all else what a new page says. */
export const nodeOf = (
  { id, parent, order }: Pick<SiteNode, 'id' | 'parent' | 'order'>,
  values: Partial<PageValues>,
  removedWith: PageId | null = null,
): SiteNode => ({ ...NO_VALUES, ...values, id, parent, order, removedWith });

/** A node whose fields are still to be set, all of them: for whoever makes very many. `nodeOf` takes four times as long. */
export const unsetNode = (): { -readonly [Field in keyof SiteNode]: SiteNode[Field] } => ({ ...UNSET });
const UNSET: SiteNode = nodeOf({ id: '' as PageId, parent: null, order: '' }, {});

type FieldAspect = Exclude<(typeof PAGE_FIELDS)[PageFieldName]['aspect'], null>;
export type Aspect = 'place' | FieldAspect | 'order';

/** The fields that never go live, and those that do. */
export type DraftFieldName = {
  [Name in PageFieldName]: (typeof PAGE_FIELDS)[Name]['aspect'] extends null ? Name : never;
}[PageFieldName];
export type LiveFieldName = Exclude<PageFieldName, DraftFieldName>;
export const DRAFT_FIELDS = PAGE_FIELD_NAMES.filter(
  (name): name is DraftFieldName => PAGE_FIELDS[name].aspect === null,
);
export const LIVE_FIELDS = PAGE_FIELD_NAMES.filter((name): name is LiveFieldName => PAGE_FIELDS[name].aspect !== null);
const ASPECT_OF = forEachField(({ aspect }) => aspect) as Readonly<Record<PageFieldName, FieldAspect>>;
const IS_SAME = forEachField((field) => field.isSame);
const NOTHING_DRAFTED = Object.fromEntries(
  DRAFT_FIELDS.map((name) => [name, pageField(name).none]),
) as Partial<PageValues>;

/** The ways in which two states of a node can differ, in the order in which they are shown. */
export const ASPECTS: readonly Aspect[] = ['place', ...LIVE_FIELDS.map((name) => ASPECT_OF[name]), 'order'];

/** What is said of a difference. */
export const ASPECT_WORDS = Object.fromEntries(
  LIVE_FIELDS.map((name) => [ASPECT_OF[name], PAGE_FIELDS[name].called]),
) as Readonly<Record<FieldAspect, string>>;

const isSameIn = (a: SiteNode, b: SiteNode, name: PageFieldName): boolean =>
  a[name] === b[name] || IS_SAME[name](a[name], b[name]);

/** The node as it goes live: without its plan. */
export const asLive = (node: SiteNode): SiteNode =>
  DRAFT_FIELDS.every((name) => node[name] === NO_VALUES[name]) ? node : { ...node, ...NOTHING_DRAFTED };

/** Whether two states of one node are the same in everything. */
export const isSameNode = (a: SiteNode, b: SiteNode): boolean =>
  a === b ||
  (a.id === b.id &&
    a.parent === b.parent &&
    a.order === b.order &&
    a.removedWith === b.removedWith &&
    PAGE_FIELD_NAMES.every((name) => isSameIn(a, b, name)));

/** What differs between two states of one node; empty where nothing does. Whether it is removed is not looked at. */
export function nodeDifferences(a: SiteNode, b: SiteNode): Aspect[] {
  if (a === b) return [];
  const differences: Aspect[] = LIVE_FIELDS.filter((name) => !isSameIn(a, b, name)).map((name) => ASPECT_OF[name]);
  if (a.parent !== b.parent) differences.unshift('place');
  else if (a.order !== b.order) differences.push('order');
  return differences;
}

/** Whether any aspect differs: as `nodeDifferences`, without a list of them, for whole trees. */
export function isNodeDifferent(a: SiteNode, b: SiteNode): boolean {
  if (a === b) return false;
  if (a.parent !== b.parent || a.order !== b.order) return true;
  for (const name of LIVE_FIELDS) if (!isSameIn(a, b, name)) return true;
  return false;
}
