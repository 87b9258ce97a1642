import { type AccessRule, sameAccess } from './access.ts';
import { type PageFrame, sameFrame } from './frame.ts';
import type { ContentId, PageId } from './ids.ts';
import type { PagePlan } from './plan.ts';
import { type Slugs, sameSlugs } from './slug.ts';
import type { Target } from './target.ts';
import { type Texts, sameTexts } from './texts.ts';

export const NODE_TYPES = ['page', 'heading', 'link'] as const;
export type NodeType = (typeof NODE_TYPES)[number];

/** `page`: this page alone cannot be reached; `branch`: nor anything below it. */
export const HIDDEN = ['no', 'page', 'branch'] as const;
export type Hidden = (typeof HIDDEN)[number];

/** A node of the tree: a page, a heading or a link. Never changed in place. */
export interface SiteNode {
  readonly id: PageId;
  /** The node above, or null at the top of the tree. */
  readonly parent: PageId | null;
  /** A fractional index: siblings stand in the order of these keys, compared by code unit; ties by id. */
  readonly order: string;
  readonly type: NodeType;
  readonly title: Texts;
  /** The menu label; where it is empty the title serves. */
  readonly label: Texts;
  /** Empty for links, which have no address of their own. */
  readonly slug: Slugs;
  readonly description: Texts;
  readonly inMenus: boolean;
  readonly hidden: Hidden;
  /** For a heading: whether it adds a step to the addresses below it. Always true for a page, false for a link. */
  readonly inAddress: boolean;
  /** For a link only. */
  readonly target: Target | null;
  /** The page's text, or null while it has none. */
  readonly content: ContentId | null;
  /** Its own rule of who may open it, or null where it has none. */
  readonly access: AccessRule | null;
  /** What it says of its layout, its trail and what it lists, or null where it says nothing. */
  readonly frame: PageFrame | null;
  /** What is planned for it, or null where nothing is. The plan never goes live. */
  readonly plan: PagePlan | null;
  /** The node whose removal took this one out of the tree, or null while it stands in the tree. */
  readonly removedWith: PageId | null;
}

/** The ways in which two states of a node can differ, in the order in which they are shown. */
export const ASPECTS = [
  'place',
  'type',
  'title',
  'label',
  'slug',
  'description',
  'text',
  'target',
  'inMenus',
  'hidden',
  'access',
  'frame',
  'inAddress',
  'order',
] as const;
export type Aspect = (typeof ASPECTS)[number];

/** The node as it goes live: without its plan. */
export const withoutPlan = (node: SiteNode): SiteNode => (node.plan === null ? node : { ...node, plan: null });

/** Whether two states of one node are the same in everything. */
export const isSameNode = (a: SiteNode, b: SiteNode): boolean =>
  a === b ||
  (Object.keys(a) as (keyof SiteNode)[]).every((key) =>
    key === 'target'
      ? sameTarget(a.target, b.target)
      : key === 'access'
        ? sameAccess(a.access, b.access)
        : key === 'frame'
          ? sameFrame(a.frame, b.frame)
          : key === 'slug'
            ? sameSlugs(a.slug, b.slug)
            : a[key] === b[key],
  );

const sameTarget = (a: Target | null, b: Target | null): boolean =>
  a === b || (a !== null && b !== null && JSON.stringify(a) === JSON.stringify(b));

/** What differs between two states of one node; empty where nothing does. Whether it is removed is not looked at. */
export const nodeDifferences = (a: SiteNode, b: SiteNode): Aspect[] =>
  a === b ? [] : ASPECTS.filter((aspect) => differsIn(a, b, aspect));

/** Whether any aspect differs: as `nodeDifferences`, without a list of them, for whole trees. */
export const isNodeDifferent = (a: SiteNode, b: SiteNode): boolean =>
  a !== b &&
  (a.parent !== b.parent ||
    a.order !== b.order ||
    a.type !== b.type ||
    a.content !== b.content ||
    a.inMenus !== b.inMenus ||
    a.hidden !== b.hidden ||
    a.inAddress !== b.inAddress ||
    !sameAccess(a.access, b.access) ||
    !sameFrame(a.frame, b.frame) ||
    !sameTexts(a.title, b.title) ||
    !sameTexts(a.label, b.label) ||
    !sameSlugs(a.slug, b.slug) ||
    !sameTexts(a.description, b.description) ||
    !sameTarget(a.target, b.target));

function differsIn(a: SiteNode, b: SiteNode, aspect: Aspect): boolean {
  switch (aspect) {
    case 'place':
      return a.parent !== b.parent;
    case 'title':
      return !sameTexts(a.title, b.title);
    case 'label':
      return !sameTexts(a.label, b.label);
    case 'slug':
      return !sameSlugs(a.slug, b.slug);
    case 'description':
      return !sameTexts(a.description, b.description);
    case 'text':
      return a.content !== b.content;
    case 'target':
      return !sameTarget(a.target, b.target);
    case 'access':
      return !sameAccess(a.access, b.access);
    case 'frame':
      return !sameFrame(a.frame, b.frame);
    case 'order':
      return a.order !== b.order && a.parent === b.parent;
    default:
      return a[aspect] !== b[aspect];
  }
}
