import { type AudienceId, isBuiltIn } from '../model/audience.ts';
import { NO_RULE, audiencesIn, ruleOf } from '../model/access.ts';
import type { PageId } from '../model/ids.ts';
import type { FieldId } from '../model/kind-field.ts';
import { allEntries } from '../model/menu.ts';
import type { SiteNode } from '../model/node.ts';
import type { SettingsPart } from '../model/settings-parts.ts';
import type { Settings, Site } from '../model/site.ts';
import { settingsDifferences } from './waiting-settings.ts';

/** The pages whose texts show something of the settings that visitors do not have yet, by the part that has it. */
export type TextNeeds = Readonly<Partial<Record<'forms' | 'shared', readonly PageId[]>>>;

/** The ids that one list has and an earlier one does not. */
export function freshIds(had: readonly { readonly id: string }[], has: readonly { readonly id: string }[]): string[] {
  const known = new Set(had.map(({ id }) => id));
  return has.map(({ id }) => id).filter((id) => !known.has(id));
}

/** A part of the settings that a release takes along, with the page or the part that names what it holds. */
export interface PartAlong {
  readonly part: SettingsPart;
  readonly of: { readonly page: PageId } | { readonly part: SettingsPart };
}

/**
 * The parts of the drafted settings that a release of these pages needs besides those that were asked for: audiences, labels, fields
 * and layouts that its pages name and that visitors do not have yet, forms and shared sections that its texts show, menus that its
 * layouts hold, and menus that name a page which goes live for the first time.
 */
export function partsAlong(
  site: Site,
  pages: ReadonlySet<PageId>,
  asked: readonly SettingsPart[],
  needs: TextNeeds = {},
): PartAlong[] {
  const { settings, liveSettings } = site;
  if (liveSettings === null) return [];
  const along: PartAlong[] = [];
  const taken = new Set<SettingsPart>(asked);
  const differing = new Set(settingsDifferences(liveSettings, settings));
  const take = (part: SettingsPart, of: PartAlong['of']) => {
    if (taken.has(part) || !differing.has(part)) return;
    taken.add(part);
    along.push({ part, of });
  };
  const fresh = freshIn(liveSettings, settings);
  for (const id of pages) {
    const node = site.nodes.get(id)!;
    const { labels } = ruleOf(node);
    if (audiencesIn(ruleOf(node)).some((one) => fresh.audiences.has(one))) take('audiences', { page: id });
    const says = node.details === null ? [] : (Object.keys(node.details) as FieldId[]);
    if (labels.some((one) => fresh.labels.has(one)) || says.some((one) => fresh.fields.has(one)))
      take('labels', { page: id });
    if (node.frame?.layout != null && fresh.layouts.has(node.frame.layout)) take('layouts', { page: id });
  }
  for (const part of ['forms', 'shared'] as const) {
    const page = needs[part]?.find((one) => pages.has(one));
    if (page !== undefined) take(part, { page });
  }
  if (differing.has('menus') && !taken.has('menus')) {
    const named = pagesNamedBy(settings, liveSettings);
    for (const id of pages) if (!isLiveIn(site, id) && named.has(id)) take('menus', { page: id });
  }
  // What was taken along may name more in its turn: layouts hold menus, labels and menus name audiences.
  if (
    taken.has('layouts') &&
    settings.layouts.some(({ menus }) => Object.values(menus).some((id) => id !== null && fresh.menus.has(id)))
  )
    take('menus', { part: 'layouts' });
  const named = (part: 'labels' | 'menus', audiences: readonly AudienceId[]) => {
    if (taken.has(part) && audiences.some((one) => fresh.audiences.has(one))) take('audiences', { part });
  };
  named(
    'labels',
    settings.labels.flatMap(({ rule }) => audiencesIn({ ...NO_RULE, ...rule })),
  );
  named('menus', audiencesOfMenus(settings));
  return along;
}

/** The part of the settings that lacks an audience, a label or a layout which a page names; null where they have all of them. */
export function lackingFor(node: SiteNode, { audiences, labels, layouts }: Settings): SettingsPart | null {
  const rule = ruleOf(node);
  const has = (list: readonly { readonly id: string }[], id: string) => list.some((one) => one.id === id);
  if (rule.labels.some((id) => !has(labels, id))) return 'labels';
  if (audiencesIn(rule).some((id) => !isBuiltIn(id) && !has(audiences, id))) return 'audiences';
  return node.frame?.layout != null && !has(layouts, node.frame.layout) ? 'layouts' : null;
}

interface Fresh {
  readonly audiences: ReadonlySet<string>;
  readonly labels: ReadonlySet<string>;
  readonly layouts: ReadonlySet<string>;
  readonly fields: ReadonlySet<FieldId>;
  readonly menus: ReadonlySet<string>;
}

/** The ids that the second settings have and the first do not. */
function freshIn(had: Settings, has: Settings): Fresh {
  const fresh = (part: 'audiences' | 'labels' | 'layouts' | 'menus') => {
    return new Set(freshIds(had[part], has[part]));
  };
  const fieldsOf = ({ labels }: Settings): FieldId[] => labels.flatMap(({ fields = [] }) => fields.map(({ id }) => id));
  const known = new Set(fieldsOf(had));
  const fields = new Set(fieldsOf(has).filter((id) => !known.has(id)));
  return {
    fields,
    audiences: fresh('audiences'),
    labels: fresh('labels'),
    layouts: fresh('layouts'),
    menus: fresh('menus'),
  };
}

const isLiveIn = (site: Site, id: PageId): boolean => site.live.get(id)?.retired === false;

/** The pages that menus name in the first settings and not in the second. */
function pagesNamedBy(settings: Settings, before: Settings): ReadonlySet<PageId> {
  const had = namesInMenus(before);
  return new Set([...namesInMenus(settings)].filter((id) => !had.has(id)));
}

function namesInMenus({ menus }: Settings): Set<PageId> {
  const named = new Set<PageId>();
  for (const { root, exceptions, extras, arranged, isByHand } of menus) {
    if (typeof root === 'object') named.add(root.page);
    for (const { page } of isByHand ? [] : exceptions) named.add(page);
    const targets = isByHand ? [...allEntries(arranged?.entries ?? [])] : extras;
    for (const { target } of targets) if (target !== null && 'page' in target) named.add(target.page);
  }
  return named;
}

const audiencesOfMenus = ({ menus }: Settings): AudienceId[] =>
  menus
    .flatMap(({ exceptions, extras, arranged }) => [...exceptions, ...extras, ...allEntries(arranged?.entries ?? [])])
    .flatMap(({ only }) => only ?? [])
    .filter((id) => !isBuiltIn(id));
