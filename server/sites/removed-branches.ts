import type { PageId } from '#core/model/ids.ts';
import { type Site, bySiblingOrder, maybeNodeAt } from '#core/model/site.ts';
import type { SiteNode } from '#core/model/node.ts';
import { textIn } from '#core/model/texts.ts';
import { nearestParent, removedWith } from '#core/operations/page-put-back.ts';
import type { RemovedBranch } from '#contract/api.ts';

/** The branches that were removed from a site and are kept, with where they stood and where they would come back to. */
export function removedBranches(site: Site): Omit<RemovedBranch, 'at' | 'by'>[] {
  const title = (id: PageId) => textIn(site.nodes.get(id)!.title, site.settings.language);
  const tops = [...site.nodes.values()].filter((node) => node.removedWith === node.id);
  return tops.map(({ id, parent }) => {
    const nearest = nearestParent(site, id);
    return {
      page: id,
      title: title(id),
      from: titlesAbove(site, id).map(title),
      below: inOrder(site, id).map(({ page, depth }) => ({ page, title: title(page), depth })),
      nearest: nearest === null ? null : { page: nearest, title: title(nearest) },
      isParentThere: parent === null || maybeNodeAt(site, parent) !== undefined,
      isLive: removedWith(site, id).some((one) => site.live.get(one)?.retired === false),
    };
  });
}

/** The nodes that a removed one stood under, removed or not, from the top. */
function titlesAbove(site: Site, id: PageId): PageId[] {
  const above: PageId[] = [];
  for (let up = site.nodes.get(id)!.parent; up !== null && site.nodes.has(up) && !above.includes(up);) {
    above.unshift(up);
    up = site.nodes.get(up)!.parent;
  }
  return above;
}

/** What was removed with a node, below it, in the order in which it stood. */
function inOrder(site: Site, top: PageId): { page: PageId; depth: number }[] {
  const childrenOf = new Map<string | null, SiteNode[]>();
  for (const id of removedWith(site, top)) {
    const node = site.nodes.get(id)!;
    if (id !== top) childrenOf.set(node.parent, [...(childrenOf.get(node.parent) ?? []), node]);
  }
  const found: { page: PageId; depth: number }[] = [];
  const walk = (above: PageId, depth: number) => {
    for (const node of (childrenOf.get(above) ?? []).sort(bySiblingOrder)) {
      found.push({ page: node.id, depth });
      walk(node.id, depth + 1);
    }
  };
  walk(top, 1);
  return found;
}
