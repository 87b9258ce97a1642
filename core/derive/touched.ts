import { type LabelId, ruleOf } from '../model/access.ts';
import type { AudienceId } from '../model/audience.ts';
import type { PageId } from '../model/ids.ts';
import { type LayoutId, STANDARD_LAYOUT } from '../model/layout.ts';
import type { MenuId } from '../model/menu.ts';
import type { SiteNode } from '../model/node.ts';
import { isKind, rulesOfLabels } from '../model/page-label.ts';
import { type GoalId, type SketchId, planOf } from '../model/plan.ts';
import type { Site } from '../model/site.ts';
import { sketchOf } from '../model/sketch.ts';
import { type Membership, NOBODY_KNOWN, accessTable, letsPass, rulesAt } from './access.ts';
import { menuTableOf } from './menu-table.ts';
import type { Outline } from './outline.ts';

/**
 * Why a setting touches a page: the page names it itself, a page above does, or it holds for the whole site; an audience may open a
 * page since everyone may.
 */
export type Through = 'itself' | 'site' | 'everyone' | PageId;

/** The pages that something touches, each with the reason, in tree order. */
export type Touched = ReadonlyMap<PageId, Through>;

/** The pages that take a layout. Headings and links have none. */
export function touchedByLayout(site: Site, outline: Outline, layout: LayoutId): Touched {
  const { layouts } = site.settings;
  const known = new Set<string>(layouts.map(({ id }) => id));
  const standard = layouts[0] ?? STANDARD_LAYOUT;
  return inherited(
    outline,
    ({ frame }) => (frame?.layout && known.has(frame.layout) ? frame.layout === layout : null),
    standard.id === layout,
  );
}

/**
 * The pages that bear a label, and those below that its rule reaches; a page that stands alone takes nothing from above, and a kind
 * without a rule says something of its own pages only.
 */
export function touchedByLabel(site: Site, outline: Outline, label: LabelId): Touched {
  const bears = (node: SiteNode) => ruleOf(node).labels.includes(label);
  const found = site.settings.labels.find(({ id }) => id === label);
  if (found && isKind(found) && Object.keys(found.rule).length === 0) return own(outline, bears);
  return inherited(outline, (node) => (bears(node) ? true : ruleOf(node).standsAlone ? false : null), false);
}

/** The pages whose own rule, or a label of theirs, names an audience, and all below them. A page that stands alone takes nothing from above. */
export function touchedByAudience(site: Site, outline: Outline, audience: AudienceId): Touched {
  const naming = new Set(
    site.settings.labels
      .filter(({ rule }) => rule.only?.includes(audience) || rule.except?.includes(audience))
      .map(({ id }) => id),
  );
  return inherited(
    outline,
    (node) => {
      const rule = ruleOf(node);
      const names =
        rule.only?.includes(audience) || rule.except.includes(audience) || rule.labels.some((one) => naming.has(one));
      return names ? true : rule.standsAlone ? false : null;
    },
    false,
  );
}

/**
 * The pages that a visitor can open: as everyone can, or by the rule of the nearest page that keeps others out, its own or one above.
 * @param at the moment, in milliseconds since 1970
 */
export function touchedByOpening(site: Site, outline: Outline, visitor: Membership, at: number): Touched {
  const { nodes, parent } = outline;
  const { open } = accessTable(outline, site.settings, [visitor, NOBODY_KNOWN], at);
  const ofLabels = rulesOfLabels(site.settings.labels);
  const through: (PageId | null)[] = [];
  const touched = new Map<PageId, Through>();
  nodes.forEach((node, row) => {
    const own = ruleOf(node);
    const keepsOut = rulesAt(own, ofLabels).some((rule) => !letsPass(rule, NOBODY_KNOWN));
    const above = own.standsAlone || parent[row] === -1 ? null : through[parent[row]!]!;
    through.push(keepsOut ? node.id : above);
    if (node.type !== 'page' || (open[row]! & 1) === 0) return;
    const by = (open[row]! & 2) === 0 ? through[row]! : 'everyone';
    touched.set(node.id, by === node.id ? 'itself' : by);
  });
  return touched;
}

/** The pages that serve a goal. */
export const touchedByGoal = (outline: Outline, goal: GoalId): Touched =>
  own(outline, (node) => planOf(node).goals.includes(goal));

/** The pages that are to be made up as a sketch has it: those that name it, and those of its kinds that name no other. */
export const touchedBySketch = (site: Site, outline: Outline, sketch: SketchId): Touched =>
  own(outline, (node) => sketchOf(site, node)?.id === sketch);

/** What stands in a menu: pages, headings and links. */
export function touchedByMenu(site: Site, outline: Outline, menu: MenuId): Touched {
  const found = site.settings.menus.find(({ id }) => id === menu);
  if (!found) return new Map();
  const { answerAt } = menuTableOf(site, found);
  return own(outline, (_, row) => answerAt(row) === 'in', true);
}

/**
 * The pages for which it holds: `says` tells what a node says of itself and what is below it, null where it says nothing.
 * @param atFirst whether it holds where nobody says anything
 */
function inherited(
  { nodes, parent }: Outline,
  says: (node: SiteNode) => boolean | null,
  atFirst: boolean,
): Map<PageId, Through> {
  const touched = new Map<PageId, Through>();
  const through: (Through | null)[] = [];
  nodes.forEach((node, row) => {
    const said = says(node);
    const above = parent[row] === -1 ? (atFirst ? 'site' : null) : through[parent[row]!]!;
    through.push(said === null ? above : said ? node.id : null);
    const reason = through[row]!;
    if (node.type === 'page' && reason !== null) touched.set(node.id, reason === node.id ? 'itself' : reason);
  });
  return touched;
}

function own(
  { nodes }: Outline,
  isTouched: (node: SiteNode, row: number) => boolean,
  withOthers = false,
): Map<PageId, Through> {
  const touched = new Map<PageId, Through>();
  nodes.forEach((node, row) => {
    if ((withOthers || node.type === 'page') && isTouched(node, row)) touched.set(node.id, 'itself');
  });
  return touched;
}

/** The pages of the tree among those whose text names something. */
export const touchedByTexts = (outline: Outline, pages: readonly PageId[]): Touched =>
  new Map(pages.filter((page) => outline.rowOf.has(page)).map((page) => [page, 'itself']));
