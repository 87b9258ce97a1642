import { type AccessChange, ruleOf } from '../model/access.ts';
import { isSameJson } from '../model/canonical-json.ts';
import type { PageId } from '../model/ids.ts';
import {
  PAGE_FIELDS,
  PAGE_FIELD_NAMES,
  type PageChanges,
  type PageFieldName,
  pageField,
} from '../model/page-fields.ts';
import { type Site, branchOf } from '../model/site.ts';
import type { Operation, OperationName } from '../operations/operation.ts';
import { nearestParent } from '../operations/page-put-back.ts';
import type { Permission } from '../model/permission.ts';

/** A permission that an operation needs: at a page, on a branch as a whole, or on the whole site for `null`. */
export interface Need {
  readonly permission: Permission;
  readonly at: PageId | null;
  /** Also at all pages below. */
  readonly isBranch?: boolean;
}

type NeedsOf = {
  readonly [Name in OperationName]: (operation: Extract<Operation, { name: Name }>, site: Site) => Need[];
};

const onSite = (permission: Permission) => (): Need[] => [{ permission, at: null }];
/** What stands in a menu by a page's id is that page's entry. */
const ofEntry = ({ entry }: { readonly entry: string }, site: Site): Need[] => [
  { permission: 'menus', at: site.nodes.has(entry as PageId) ? (entry as PageId) : null },
];

/** What each operation needs. What concerns one page is needed there; settings of the site are needed on the whole site. */
const NEEDS: NeedsOf = {
  'page.add': ({ place, restores, ...given }) => [
    { permission: 'shape', at: place.parent },
    ...ofNewValues(given, place.parent),
    ...ofRestored(restores),
  ],
  'page.move': ({ page, place, restores }, site) => [
    ...ofLeaving(page, site),
    { permission: 'shape', at: place.parent },
    ...ofRestored(restores),
  ],
  'page.set': ({ page, fields, restores }, site) => [...ofChanges(fields, page, site), ...ofRestored(restores)],
  'page.remove': ({ page, remember, restores }, site) => [
    ...ofLeaving(page, site),
    ...(remember ? [{ permission: 'shape' as const, at: remember.parent }] : []),
    ...ofRestored(restores),
  ],
  'page.copy': ({ page, place }, site) => [
    { permission: 'read', at: page, isBranch: true },
    { permission: 'shape', at: place.parent },
    ...(branchOf(site, page).some((id) => site.nodes.get(id)?.inMenus)
      ? [{ permission: 'menus' as const, at: place.parent }]
      : []),
  ],
  'page.putBack': ({ page, place, restores }, site) => [
    { permission: 'shape', at: page, isBranch: true },
    { permission: 'shape', at: place ? place.parent : nearestParent(site, page) },
    ...ofRestored(restores),
  ],
  'page.erase': ({ page }, site) => ofLeaving(page, site),
  'page.recall': ({ nodes }) => {
    const recalled = new Set<PageId | null>(nodes.map(({ id }) => id));
    return nodes
      .filter(({ parent }) => !recalled.has(parent))
      .map(({ parent }): Need => ({ permission: 'shape', at: parent }));
  },
  'site.set': ({ fields, restores }) => [
    ...Object.keys(fields).map((field): Need => ({
      permission: SITE_FIELDS[field as keyof typeof SITE_FIELDS],
      at: null,
    })),
    ...ofRestored(restores),
  ],
  'audience.add': onSite('access'),
  'audience.set': onSite('access'),
  'audience.remove': onSite('access'),
  'label.add': onSite('access'),
  'label.set': onSite('access'),
  'label.remove': onSite('access'),
  'field.add': onSite('shape'),
  'field.set': onSite('shape'),
  'field.move': onSite('shape'),
  'field.remove': onSite('shape'),
  'menu.add': onSite('menus'),
  'menu.set': onSite('menus'),
  'menu.remove': onSite('menus'),
  'entry.add': ofEntry,
  'entry.set': ofEntry,
  'entry.move': ofEntry,
  'entry.remove': ofEntry,
  'layout.add': onSite('menus'),
  'layout.set': onSite('menus'),
  'layout.remove': onSite('menus'),
  'fact.add': onSite('write'),
  'fact.set': onSite('write'),
  'fact.remove': onSite('write'),
  'shared.add': onSite('write'),
  'shared.set': onSite('write'),
  'shared.remove': onSite('write'),
  'form.add': onSite('write'),
  'form.set': onSite('write'),
  'form.remove': onSite('write'),
  'redirect.add': onSite('shape'),
  'redirect.set': onSite('shape'),
  'redirect.remove': onSite('shape'),
  'practice.set': onSite('everything'),
  'goal.add': onSite('plan'),
  'goal.set': onSite('plan'),
  'goal.remove': onSite('plan'),
  'sketch.add': onSite('plan'),
  'sketch.set': onSite('plan'),
  'sketch.remove': onSite('plan'),
  'variant.add': onSite('plan'),
  'variant.set': onSite('plan'),
  'variant.remove': onSite('plan'),
  'box.put': onSite('plan'),
  'box.remove': onSite('plan'),
  'board.add': onSite('plan'),
  'board.set': onSite('plan'),
  'board.remove': onSite('plan'),
  'piece.put': onSite('plan'),
  'piece.remove': onSite('plan'),
  'oldPage.decide': onSite('plan'),
  'release.make': ({ pages, retire, settings, leadsTo }) => [
    ...[...pages, ...retire, ...Object.keys(leadsTo ?? {})].map((page): Need => ({
      permission: 'publish',
      at: page as PageId,
    })),
    ...(settings?.length === 0 ? [] : [{ permission: 'publish' as const, at: null }]),
  ],
  'release.takeBack': ({ before, settings }, site) => [
    ...Object.keys(before).map((page): Need => ({ permission: 'publish', at: page as PageId })),
    ...(isSameJson(settings, site.liveSettings) ? [] : [{ permission: 'publish' as const, at: null }]),
  ],
};

/** A branch is taken out of its place by who may shape all of it, and where it stands: nobody removes the branch that they were given. */
const ofLeaving = (page: PageId, site: Site): Need[] => [
  { permission: 'shape', at: page, isBranch: true },
  { permission: 'shape', at: site.nodes.get(page)?.parent ?? null },
];

const SITE_FIELDS = {
  name: 'everything',
  language: 'everything',
  timeZone: 'everything',
  hosts: 'everything',
  home: 'shape',
  trail: 'menus',
  look: 'look',
} as const satisfies Record<keyof Extract<Operation, { name: 'site.set' }>['fields'], Permission>;

/** What an operation needs, for the site as it is before it. */
export function needsOf(site: Site, operation: Operation): Need[] {
  const needs = NEEDS[operation.name] as (operation: Operation, site: Site) => Need[];
  return needs(operation, site);
}

/** What a change of a page's fields needs. Who may open a page, and what is hidden, is handed down. */
const ofChanges = (fields: PageChanges, page: PageId, site: Site): Need[] =>
  PAGE_FIELD_NAMES.filter((name) => fields[name] !== undefined).map((name): Need => {
    const permission = permissionFor(name, fields, page, site);
    return { permission, at: page, ...(permission === 'access' && { isBranch: true }) };
  });

function permissionFor(name: PageFieldName, { access, frame }: PageChanges, page: PageId, site: Site): Permission {
  if (name === 'access' && access && !changesRules(site, page, access)) return 'shape';
  // A page's date, and what it lists, are said by who writes it.
  if (name === 'frame' && frame && Object.keys(frame).every((part) => part === 'date' || part === 'listing'))
    return 'write';
  return PAGE_FIELDS[name].permission;
}

/** Whether a change of a page's rule says more than which labels without a rule, such as most kinds, the page bears. */
function changesRules(site: Site, page: PageId, change: AccessChange): boolean {
  if (Object.keys(change).some((part) => part !== 'labels')) return true;
  const before = ruleOf(site.nodes.get(page) ?? { access: null }).labels;
  const after = change.labels ?? before;
  const differing = [...before.filter((id) => !after.includes(id)), ...after.filter((id) => !before.includes(id))];
  const ruleless = new Set(
    site.settings.labels.filter(({ rule }) => Object.keys(rule).length === 0).map(({ id }) => id),
  );
  return differing.some((id) => !ruleless.has(id));
}

/** What the values of a new page need, where they are not those of any new page. A page in menus needs to be put there. */
const ofNewValues = (given: PageChanges, parent: PageId | null): Need[] =>
  PAGE_FIELD_NAMES.flatMap((name): Need[] => {
    const { permission } = PAGE_FIELDS[name];
    if (name === 'inMenus') return given.inMenus === false ? [] : [{ permission, at: parent }];
    const change = given[name];
    if (change === undefined || permission === 'shape') return [];
    const { none, with: withChange, isSame } = pageField(name);
    return isSame(none, withChange(none, change)) ? [] : [{ permission, at: parent }];
  });

const ofRestored = (restores: Readonly<Record<string, unknown>> | undefined): Need[] =>
  Object.keys(restores ?? {}).map((page): Need => ({ permission: 'shape', at: page as PageId }));
