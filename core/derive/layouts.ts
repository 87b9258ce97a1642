import type { PageId } from '../model/ids.ts';
import { type Layout, STANDARD_LAYOUT } from '../model/layout.ts';
import { type Site, ancestorsOf, branchOf, maybeNodeAt, nodeAt } from '../model/site.ts';
import type { TrailSetting } from '../model/trail-setting.ts';

/** Whose setting holds: the page's own, that of a page above, the layout's or the site's. */
export type SetBy =
  | { readonly by: 'page' | 'branch'; readonly page: PageId }
  | { readonly by: 'layout'; readonly layout: Layout }
  | { readonly by: 'site' };

/** The layout of a page: its own, else that of the nearest page above which has one, else the site's first. */
export function layoutOf(site: Site, page: PageId | null): Layout {
  return layoutWithReason(site, page).layout;
}

/** The layout of a page, and the page that names it; null where none does. */
export function layoutWithReason(
  site: Site,
  page: PageId | null,
): { readonly layout: Layout; readonly namedBy: PageId | null } {
  const { layouts } = site.settings;
  for (const node of upwards(site, page)) {
    const named = node.frame?.layout ?? null;
    const layout = named === null ? undefined : layouts.find(({ id }) => id === named);
    if (layout) return { layout, namedBy: node.id };
  }
  return { layout: layouts[0] ?? STANDARD_LAYOUT, namedBy: null };
}

/** How a page's trail looks, by the nearest setting: the page's own, a branch's, the layout's, the site's. */
export function trailSettingOf(site: Site, page: PageId): { readonly setting: TrailSetting; readonly setBy: SetBy } {
  for (const node of upwards(site, page)) {
    const trail = node.frame?.trail ?? null;
    if (trail === null || (node.id !== page && trail.reach === 'page')) continue;
    return { setting: trail.setting, setBy: { by: node.id === page ? 'page' : 'branch', page: node.id } };
  }
  const layout = layoutOf(site, page);
  return layout.trail
    ? { setting: layout.trail, setBy: { by: 'layout', layout } }
    : { setting: site.settings.trail, setBy: { by: 'site' } };
}

/** The pages of the tree by the layout that each takes. */
export function pagesByLayout(site: Site): ReadonlyMap<Layout['id'], readonly PageId[]> {
  const pages = new Map<Layout['id'], PageId[]>();
  const known = new Map<PageId | null, Layout['id']>();
  const standard = layoutOf(site, null).id;
  const names = new Set(site.settings.layouts.map(({ id }) => id));
  const walk = (parent: PageId | null) => {
    for (const id of site.children.get(parent) ?? []) {
      const node = site.nodes.get(id)!;
      const named = node.frame?.layout ?? null;
      const layout = named !== null && names.has(named) ? named : (known.get(parent) ?? standard);
      known.set(id, layout);
      if (node.type === 'page') {
        const list = pages.get(layout);
        if (list) list.push(id);
        else pages.set(layout, [id]);
      }
      walk(id);
    }
  };
  walk(null);
  return pages;
}

const byPage = new WeakMap<Site, ReadonlyMap<PageId, Layout['id']>>();

/** The layout that a page of the tree takes, quickly for many pages of one site; undefined for what is no page. */
export function layoutIdOf(site: Site, page: PageId): Layout['id'] | undefined {
  let known = byPage.get(site);
  if (!known) {
    known = new Map([...pagesByLayout(site)].flatMap(([layout, pages]) => pages.map((one) => [one, layout] as const)));
    byPage.set(site, known);
  }
  return known.get(page);
}

/** How many pages have their trail by what is set at a node: those of its branch down to where another setting holds. */
export function pagesWithTrailOf(site: Site, page: PageId): number {
  let count = 0;
  for (const id of branchOf(site, page)) {
    const { setBy } = trailSettingOf(site, id);
    if (nodeAt(site, id).type === 'page' && 'page' in setBy && setBy.page === page) count++;
  }
  return count;
}

function upwards(site: Site, page: PageId | null) {
  const node = page === null ? undefined : maybeNodeAt(site, page);
  return node ? [node, ...ancestorsOf(site, node.id)] : [];
}
