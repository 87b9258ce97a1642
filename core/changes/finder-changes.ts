import { type Finder, accessTable, heldBackRows, membershipsOf } from '../derive/access.ts';
import { derivedOf } from '../derive/derived.ts';
import type { PageId } from '../model/ids.ts';
import { ruleOf, sameAccess } from '../model/access.ts';
import type { Site } from '../model/site.ts';

/** Which pages a finder gains and loses by a change. */
export interface FinderChange {
  readonly gains: readonly PageId[];
  readonly loses: readonly PageId[];
}

/**
 * What search engines (and with them the sitemap file) and the site's own search gain and lose between two drafts of one site,
 * at a moment: engines are offered what everyone may open, search finds what anybody may. Pages that come or go with the
 * change are counted too.
 */
export function finderChanges(before: Site, after: Site, at: number): Readonly<Record<Finder, FinderChange>> {
  if (before === after || isAlike(before, after)) return { engines: NOTHING, search: NOTHING };
  const [was, is] = [pagesFound(before, at), pagesFound(after, at)];
  const change = (finder: Finder): FinderChange => ({
    gains: [...is[finder]].filter((page) => !was[finder].has(page)),
    loses: [...was[finder]].filter((page) => !is[finder].has(page)),
  });
  return { engines: change('engines'), search: change('search') };
}

/** Whether two drafts are alike in all that finders go by, as they are while a title or an address is typed. */
function isAlike(before: Site, after: Site): boolean {
  const { audiences, labels } = after.settings;
  if (audiences !== before.settings.audiences || labels !== before.settings.labels) return false;
  const [was, is] = [derivedOf(before).outline, derivedOf(after).outline];
  return (
    was.nodes.length === is.nodes.length &&
    is.nodes.every((node, row) => {
      const old = was.nodes[row]!;
      return (
        node === old ||
        (node.id === old.id &&
          node.parent === old.parent &&
          node.type === old.type &&
          node.hidden === old.hidden &&
          sameAccess(node.access, old.access))
      );
    })
  );
}

const NOTHING: FinderChange = { gains: [], loses: [] };

type Found = Readonly<Record<Finder, ReadonlySet<PageId>>>;
/** What was found last on sites that are still looked at: one is compared with many while a change is being chosen. */
const known = new WeakMap<Site, { readonly at: number; readonly found: Found }>();

/** The pages that each finder has, in tree order. */
function pagesFound(site: Site, at: number): Found {
  const before = known.get(site);
  if (before?.at === at) return before.found;
  const found = findPages(site, at);
  known.set(site, { at, found });
  return found;
}

function findPages(site: Site, at: number): Found {
  const { outline } = derivedOf(site);
  const { open } = accessTable(outline, site.settings, membershipsOf(site.settings.audiences), at);
  const found: Record<Finder, Set<PageId>> = { engines: new Set(), search: new Set() };
  for (const finder of ['engines', 'search'] as const) {
    const held = heldBackRows(outline, site.settings, finder);
    outline.nodes.forEach((node, row) => {
      const isOpen = finder === 'engines' ? (open[row]! & 1) === 1 : open[row] !== 0;
      if (node.type === 'page' && isOpen && held[row] === -1 && ruleOf(node).standsIn === null)
        found[finder].add(node.id);
    });
  }
  return found;
}
