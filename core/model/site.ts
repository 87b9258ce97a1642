import type { Audience } from './audience.ts';
import { FIRST_FACTS, type Fact } from './fact.ts';
import type { Language, PageId, SiteKey } from './ids.ts';
import { LayeredMap } from './layered-map.ts';
import { type Layout, STANDARD_LAYOUT } from './layout.ts';
import { FIRST_LOOK, type Look } from './look.ts';
import { MAIN_MENU, type Menu } from './menu.ts';
import type { SiteNode } from './node.ts';
import type { OldPageDecision } from './old-page.ts';
import type { PageLabel } from './page-label.ts';
import type { Goal } from './plan.ts';
import type { Board } from './board.ts';
import type { Sketch } from './sketch.ts';
import type { LeadsTo, Redirect } from './redirect.ts';
import type { SiteForm } from './site-form.ts';
import type { SharedSection } from './shared-section.ts';
import { PLAIN_TRAIL, type TrailSetting } from './trail-setting.ts';

/** A node as visitors have it. `retired`: it was live and has been taken down; the node is its last live state. */
export interface LiveNode {
  readonly node: SiteNode;
  readonly retired: boolean;
  /** Where its address leads once it is taken down; left out for the page above it. */
  readonly leadsTo?: NonNullable<LeadsTo>;
}

/** A site's settings. */
export interface Settings {
  readonly name: string;
  readonly language: Language;
  /** The page named as home, or null: then the first page of the tree is home. */
  readonly home: PageId | null;
  /** The site's audiences besides `everyone`, in the order in which they are shown. */
  readonly audiences: readonly Audience[];
  /** The labels that its pages can bear, with the rule of each, in the order in which they are shown. */
  readonly labels: readonly PageLabel[];
  /** The site's menus, in the order in which they are shown. */
  readonly menus: readonly Menu[];
  /** The frames of its pages; the first one is that of pages which name no other. */
  readonly layouts: readonly Layout[];
  /** What is said of the site in many places. */
  readonly facts: readonly Fact[];
  /** The texts that are kept once and shown on many pages. */
  readonly shared: readonly SharedSection[];
  /** What visitors fill in and send. */
  readonly forms: readonly SiteForm[];
  /** How the site appears. */
  readonly look: Look;
  /** The hosts whose frames pages may show, as they stand in addresses. */
  readonly hosts: readonly string[];
  /** The redirects that were made by hand, in the order in which they were. */
  readonly redirects: readonly Redirect[];
  /** The IANA name of the time zone in which its moments are said. */
  readonly timeZone: string;
  /** How trails look where neither the page, nor its branch, nor its layout says. */
  readonly trail: TrailSetting;
}

/** The settings of a new site: a main menu that follows the tree, in the header of the one layout. */
export const newSettings = (name: string, language: Language): Settings => ({
  name,
  language,
  home: null,
  audiences: [],
  labels: [],
  menus: [MAIN_MENU],
  layouts: [STANDARD_LAYOUT],
  facts: FIRST_FACTS,
  shared: [],
  forms: [],
  look: FIRST_LOOK,
  hosts: [],
  redirects: [],
  timeZone: 'UTC',
  trail: PLAIN_TRAIL,
});

/**
 * A page tree with its settings: the draft, and beside it what is live. Never changed in place: operations give a new
 * site that shares with the old one all that they did not touch.
 */
export interface Site {
  readonly key: SiteKey;
  readonly settings: Settings;
  /** Every node, those that were removed too. */
  readonly nodes: LayeredMap<PageId, SiteNode>;
  /** The children of each node that stand in the tree, in order; `null` holds the top level. No empty lists. */
  readonly children: LayeredMap<PageId | null, readonly PageId[]>;
  readonly live: LayeredMap<PageId, LiveNode>;
  /** The settings that visitors have, or null before the first release. */
  readonly liveSettings: Settings | null;
  /** What the site is for, in the order in which it was put down. */
  readonly goals: readonly Goal[];
  /** What pages will contain, in the order of the list. */
  readonly sketches: readonly Sketch[];
  /** What is collected for its look, in the order of the list. */
  readonly boards: readonly Board[];
  /** The page below which colleagues practise and nothing ever goes live; null where there is none. */
  readonly practice: PageId | null;
  /** What was decided about addresses of the old site, besides which page takes which over: that stands with the page. */
  readonly oldPages: LayeredMap<string, OldPageDecision>;
  /** Set where this is the tree as visitors have it (`liveSiteOf`): no page is home there but the one that is named. */
  readonly isLiveTree?: true;
}

/** A site has at most so many nodes, those that were removed among them: whoever opens one has all of them in memory. */
export const MAX_NODES = 250_000;
/** The top level is depth 0; a tree has at most this many levels. */
export const MAX_DEPTH = 40;
const NO_CHILDREN: readonly PageId[] = Object.freeze([]);

/** Siblings in order: by order key, ties by id. */
export const bySiblingOrder = (a: SiteNode, b: SiteNode): number =>
  a.order < b.order ? -1 : a.order > b.order ? 1 : a.id < b.id ? -1 : a.id > b.id ? 1 : 0;

/** What is planned for the site as a whole. */
export interface PlanOfSite {
  readonly goals?: readonly Goal[];
  readonly sketches?: readonly Sketch[];
  readonly boards?: readonly Board[];
  readonly practice?: PageId | null;
  readonly oldPages?: Iterable<readonly [string, OldPageDecision]>;
}

/** A site from its nodes, in any order. Whether they make a sound tree is for `checkSite` to say. */
export function makeSite(
  key: SiteKey,
  settings: Settings,
  nodes: Iterable<SiteNode>,
  live: Iterable<LiveNode> = [],
  liveSettings: Settings | null = null,
  { goals = [], sketches = [], boards = [], practice = null, oldPages = [] }: PlanOfSite = {},
): Site {
  const all = new Map<PageId, SiteNode>();
  const byParent = new Map<PageId | null, SiteNode[]>();
  for (const node of nodes) {
    all.set(node.id, node);
    if (node.removedWith !== null) continue;
    const siblings = byParent.get(node.parent);
    if (siblings) siblings.push(node);
    else byParent.set(node.parent, [node]);
  }
  const liveNodes = new Map<PageId, LiveNode>();
  for (const entry of live) liveNodes.set(entry.node.id, entry);
  return {
    key,
    settings,
    nodes: new LayeredMap(all),
    children: new LayeredMap(inOrder(byParent)),
    live: new LayeredMap(liveNodes),
    liveSettings,
    goals,
    sketches,
    boards,
    practice,
    oldPages: new LayeredMap(new Map(oldPages)),
  };
}

/** The ids of siblings in their order. Lists that are in order already, as trees are sent, are not sorted. */
function inOrder(byParent: ReadonlyMap<PageId | null, SiteNode[]>): Map<PageId | null, readonly PageId[]> {
  const children = new Map<PageId | null, readonly PageId[]>();
  for (const [parent, siblings] of byParent) {
    for (let at = 1; at < siblings.length; at++) {
      if (bySiblingOrder(siblings[at - 1]!, siblings[at]!) < 0) continue;
      siblings.sort(bySiblingOrder);
      break;
    }
    children.set(
      parent,
      siblings.map(({ id }) => id),
    );
  }
  return children;
}

/** The node of that id that stands in the tree, or undefined. */
export function maybeNodeAt(site: Site, id: PageId): SiteNode | undefined {
  const node = site.nodes.get(id);
  return node && node.removedWith === null ? node : undefined;
}

/** @throws where no such node stands in the tree: for callers that know that it does. */
export function nodeAt(site: Site, id: PageId): SiteNode {
  const node = maybeNodeAt(site, id);
  if (!node) throw new Error(`No node '${id}' stands in the tree of site '${site.key}'; look it up with maybeNodeAt.`);
  return node;
}

export const childrenOf = (site: Site, parent: PageId | null): readonly PageId[] =>
  site.children.get(parent) ?? NO_CHILDREN;

/** The node and all below it, in tree order; the whole tree for `null`. */
export function branchOf(site: Site, top: PageId | null): PageId[] {
  const found: PageId[] = [];
  const waiting: PageId[] = top === null ? [...childrenOf(site, null)].reverse() : [top];
  while (waiting.length > 0) {
    const id = waiting.pop()!;
    found.push(id);
    const below = childrenOf(site, id);
    for (let i = below.length - 1; i >= 0; i--) waiting.push(below[i]!);
  }
  return found;
}

/** The nodes above, nearest first. */
export function ancestorsOf(site: Site, id: PageId): SiteNode[] {
  const found: SiteNode[] = [];
  for (let up = site.nodes.get(id)?.parent ?? null; up !== null;) {
    const node = site.nodes.get(up);
    if (!node || node.removedWith !== null) break;
    found.push(node);
    up = node.parent;
  }
  return found;
}

/** Whether `id` is `top` or stands below it. */
export function isWithin(site: Site, id: PageId, top: PageId): boolean {
  for (let at: PageId | null = id; at !== null; at = site.nodes.get(at)?.parent ?? null) if (at === top) return true;
  return false;
}

/**
 * The home page: the one that is named, where it stands in the tree as a page; else the first page of a drafted tree that is not for practice. A
 * release names the home page that the draft has: while that one is not live, visitors have none, and no other page takes its address.
 */
export function homeOf(site: Site): PageId | null {
  const named = site.settings.home === null ? undefined : maybeNodeAt(site, site.settings.home);
  if (named?.type === 'page') return named.id;
  return site.isLiveTree ? null : firstPage(site, null);
}

function firstPage(site: Site, parent: PageId | null): PageId | null {
  for (const id of childrenOf(site, parent)) {
    if (id === site.practice) continue;
    if (nodeAt(site, id).type === 'page') return id;
    const below = firstPage(site, id);
    if (below !== null) return below;
  }
  return null;
}

/** Whether the node adds a step to addresses: pages other than home do, headings if told to, links never. */
export const addsStep = (node: SiteNode, home: PageId | null): boolean =>
  node.type !== 'link' && node.inAddress && node.id !== home;

/** How many levels stand below a node: 0 for one without children. */
export function heightOf(site: Site, id: PageId): number {
  let height = 0;
  for (const child of childrenOf(site, id)) height = Math.max(height, 1 + heightOf(site, child));
  return height;
}
