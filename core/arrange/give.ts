import { type LabelId, ruleOf } from '../model/access.ts';
import type { AudienceId } from '../model/audience.ts';
import type { PageId } from '../model/ids.ts';
import { kindChanges } from '../model/kind-outline.ts';
import type { LayoutId } from '../model/layout.ts';
import { isKind } from '../model/page-label.ts';
import { type GoalId, type SketchId, planOf } from '../model/plan.ts';
import { type MenuId, entryOf } from '../model/menu.ts';
import type { SiteNode } from '../model/node.ts';
import { derivedOf } from '../derive/derived.ts';
import { type Site, maybeNodeAt, nodeAt } from '../model/site.ts';
import { applyOperations } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { onEach, putInMenu } from './arrange-entries.ts';

type Fields = Extract<Operation, { name: 'page.set' }>['fields'];

/** Gives pages a layout, for themselves and what is below them; nothing for those that name it already, nor for what is no page. */
export const giveLayout = (site: Site, pages: readonly PageId[], layout: LayoutId): Operation[] =>
  give(site, pages, ({ type, frame }) => (type === 'page' && frame?.layout !== layout ? { frame: { layout } } : null));

/** Gives pages a label; a kind takes the place of the kind that a page has, since it has one at most. */
export function giveLabel(site: Site, pages: readonly PageId[], label: LabelId): Operation[] {
  const { labels } = site.settings;
  const isOfKind = labels.some((one) => one.id === label && isKind(one));
  return give(site, pages, (node) => {
    const before = ruleOf(node).labels;
    if (before.includes(label) || (isOfKind && node.type !== 'page')) return null;
    return isOfKind ? kindChanges(node, label, labels) : { access: { labels: [...before, label] } };
  });
}

/** Lets pages be open to an audience: to it alone where they had no rule of their own, else to it as well. */
export const giveAudience = (site: Site, pages: readonly PageId[], audience: AudienceId): Operation[] =>
  give(site, pages, (node) => {
    const { only } = ruleOf(node);
    return only?.includes(audience) ? null : { access: { only: [...(only ?? []), audience] } };
  });

/** Lets pages serve a goal. */
export const giveGoal = (site: Site, pages: readonly PageId[], goal: GoalId): Operation[] =>
  give(site, pages, (node) => {
    const { goals } = planOf(node);
    return node.type !== 'page' || goals.includes(goal) ? null : { plan: { goals: [...goals, goal] } };
  });

/** Gives pages a sketch. */
export const giveSketch = (site: Site, pages: readonly PageId[], sketch: SketchId): Operation[] =>
  give(site, pages, (node) => (node.type !== 'page' || planOf(node).sketch === sketch ? null : { plan: { sketch } }));

/**
 * Lets nodes stand in a menu: they are off menus no longer, one that is arranged by hand gets entries for them, and one that follows the
 * tree no longer leaves them out. What is outside of its range stays so.
 */
export function giveMenu(site: Site, pages: readonly PageId[], menu: MenuId): Operation[] {
  const { outline } = derivedOf(site);
  return onEach(site, menu, pages, (now, found, page) => {
    if (!outline.rowOf.has(page)) return [];
    const fromAll: Operation[] = nodeAt(now, page).inMenus
      ? []
      : [{ name: 'page.set', page, fields: { inMenus: true } }];
    if (found.isByHand) {
      const inMenus = applyOperations(now, fromAll);
      return [...fromAll, ...putInMenu(inMenus.ok ? inMenus.site : now, found, page)];
    }
    const isLeftOut = found.exceptions.some((one) => one.page === page && one.isLeftOut);
    return isLeftOut
      ? [...fromAll, { name: 'entry.set', menu, entry: entryOf(page), fields: { isLeftOut: false } }]
      : fromAll;
  });
}

function give(site: Site, pages: readonly PageId[], fieldsFor: (node: SiteNode) => Fields | null): Operation[] {
  return pages.flatMap((page): Operation[] => {
    const node = maybeNodeAt(site, page);
    const fields = node ? fieldsFor(node) : null;
    return fields ? [{ name: 'page.set', page, fields }] : [];
  });
}
