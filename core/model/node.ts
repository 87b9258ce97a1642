import { z } from 'zod';
import { type ContentId, type PageId, pageIdSchema } from './ids.ts';
import { type Slugs, sameSlugs } from './slug.ts';
import { type Texts, sameTexts } from './texts.ts';

export const NODE_TYPES = ['page', 'heading', 'link'] as const;
export type NodeType = (typeof NODE_TYPES)[number];

/** `page`: this page alone cannot be reached; `branch`: nor anything below it. */
export const HIDDEN = ['no', 'page', 'branch'] as const;
export type Hidden = (typeof HIDDEN)[number];

/** Where a link points: another page of the tree (an alias), or an outside address. */
export const targetSchema = z.union([
  z.strictObject({ page: pageIdSchema }),
  z.strictObject({
    url: z
      .string()
      .max(2000, 'at most 2,000 characters')
      .regex(
        /^(https?:\/\/[^\s]+|mailto:[^\s]+|tel:[+0-9 ()-]+)$/i,
        'an outside address starts with https://, http://, mailto: or tel:',
      ),
  }),
]);
export type Target = z.infer<typeof targetSchema>;

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
  'inAddress',
  'order',
] as const;
export type Aspect = (typeof ASPECTS)[number];

const sameTarget = (a: Target | null, b: Target | null): boolean =>
  a === b || (a !== null && b !== null && JSON.stringify(a) === JSON.stringify(b));

/** What differs between two states of one node; empty where nothing does. Whether it is removed is not looked at. */
export function nodeDifferences(a: SiteNode, b: SiteNode): Aspect[] {
  if (a === b) return [];
  const differences: Aspect[] = [];
  const note = (differs: boolean, aspect: Aspect) => {
    if (differs) differences.push(aspect);
  };
  note(a.parent !== b.parent, 'place');
  note(a.type !== b.type, 'type');
  note(!sameTexts(a.title, b.title), 'title');
  note(!sameTexts(a.label, b.label), 'label');
  note(!sameSlugs(a.slug, b.slug), 'slug');
  note(!sameTexts(a.description, b.description), 'description');
  note(a.content !== b.content, 'text');
  note(!sameTarget(a.target, b.target), 'target');
  note(a.inMenus !== b.inMenus, 'inMenus');
  note(a.hidden !== b.hidden, 'hidden');
  note(a.inAddress !== b.inAddress, 'inAddress');
  note(a.order !== b.order && a.parent === b.parent, 'order');
  return differences;
}
